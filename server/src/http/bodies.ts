import express, {
  type NextFunction,
  type Request,
  type RequestHandler,
  type Response,
} from 'express'
import { readJson, usualDepth } from '@wickerframe/core'
import { HttpProblem } from './problem.ts'

/** Routes whose body is a file, not JSON. */
export const takesFile: ReadonlySet<string> = new Set([
  '/api/roster',
  '/api/free-days',
  '/api/rubric-file',
  '/api/courses/made',
  '/api/courses/values',
])
export const fileBody: RequestHandler = express.raw({ type: () => true, limit: '12mb' })

interface BodyLimits {
  bytes: number
  values: number
}
const usual: BodyLimits = { bytes: 2 * 2 ** 20, values: 60_000 }
/** Routes that take less, or a whole template, or very many courses. */
const limits: Readonly<Record<string, BodyLimits>> = {
  '/api/sign-in': { bytes: 2 * 2 ** 10, values: 10 },
  '/api/templates': { bytes: 8 * 2 ** 20, values: 200_000 },
  '/api/renames': { bytes: 8 * 2 ** 20, values: 200_000 },
  '/api/mends': { bytes: 8 * 2 ** 20, values: 200_000 },
}

/** Reads the JSON body of a route, within limits of size, depth and number of values that are counted before it is parsed. */
export const jsonBody = (path: string): RequestHandler[] => {
  const { bytes, values } = limits[path] ?? usual
  return [
    express.text({ type: 'application/json', limit: bytes, defaultCharset: 'utf-8' }),
    (request: Request, _: Response, next: NextFunction) => {
      if (typeof request.body !== 'string') return next()
      const read = readJson(request.body === '' ? '{}' : request.body, {
        depth: usualDepth,
        values,
      })
      if (read.ok) request.body = read.value
      else {
        const [problem] = read.problems
        throw new HttpProblem(
          400,
          'unusable-input',
          `what was sent: found ${problem?.found}; expected ${problem?.expected}`,
          { problems: read.problems },
        )
      }
      next()
    },
  ]
}
