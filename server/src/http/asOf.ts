import type { Request } from 'express'
import { isPlainDate } from '@wickerframe/core'
import { HttpProblem } from './problem.ts'

/** The as-of date of a request, or today. @throws HttpProblem 400 when it is no date */
export const asOfIn = (request: Request, today: string): string => {
  const asked = request.query['asOf']
  if (asked === undefined) return today
  if (typeof asked !== 'string' || !isPlainDate(asked))
    throw new HttpProblem(400, 'unusable-input', 'asOf: a date that exists, written YYYY-MM-DD')
  return asked
}
