import type { Request, Response } from 'express'
import type { Pool } from 'mysql2/promise'
import type { z } from 'zod'
import { readDocument } from '@wickerframe/core'
import type { Connector } from '../connector/client.ts'
import type { InstitutionDay, InstitutionInstant } from '../clocks.ts'
import type { FileThreads } from '../files/fileThreads.ts'
import type { Person } from '../repositories/people.ts'
import type { Pulses } from './pulses.ts'
import { HttpProblem } from './problem.ts'

/** What a handler may use. `person` is somebody whose role the route's table admits. */
export interface Handling {
  request: Request
  response: Response
  pool: Pool
  connector: Connector
  files: FileThreads
  pulses: Pulses
  /** Whether the session of the request still stands; asking does not keep it alive. */
  sessionStands: () => Promise<boolean>
  person: Person
  /** By the institution's clock. */
  today: InstitutionDay
  now: InstitutionInstant
  platformUrl: string
  secureCookies: boolean
}

/** Gives what is answered as JSON; undefined when it has answered itself. */
export type Handler = (handling: Handling) => Promise<unknown>

/** The body as a document of a schema. @throws HttpProblem 400 with every problem */
export const bodyOf = <S extends z.ZodType>(schema: S, request: Request): z.output<S> => {
  const read = readDocument(schema, request.body)
  if (read.ok) return read.value
  const first = read.problems[0]
  throw new HttpProblem(
    400,
    'unusable-input',
    `at ${first?.path || '/'}: found ${first?.found}; expected ${first?.expected}`,
    { problems: read.problems.slice(0, 50) },
  )
}

export const parameter = (request: Request, name: string): string => {
  const value = request.params[name]
  return typeof value === 'string' ? value : ''
}

/** A whole number in the address. @throws HttpProblem 404 otherwise: there is no such thing */
export const numberIn = (request: Request, name: string, what: string): number => {
  const value = Number(parameter(request, name))
  if (!Number.isSafeInteger(value) || value < 1)
    throw new HttpProblem(404, 'not-found', `there is no such ${what}`)
  return value
}
