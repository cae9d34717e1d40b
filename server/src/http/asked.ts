import express, {
  type NextFunction,
  type Request,
  type RequestHandler,
  type Response,
} from 'express'
import type { z } from 'zod'
import { readDocument, readJson, usualDepth, type Problem } from '@wickerframe/core'
import {
  isMedia,
  pathParameters,
  type BodyLimits,
  type ParameterName,
  type Route,
} from '@wickerframe/contract'
import { HttpProblem } from './problem.ts'

const usualLimits: BodyLimits = { bytes: 2 * 2 ** 20, values: 60_000 }
const fileBody = express.raw({ type: () => true, limit: '12mb' })

/** Reads the JSON body of a request, within limits of size, depth and number of values that are counted before it is parsed. */
const jsonBody = ({ bytes, values }: BodyLimits): RequestHandler[] => [
  express.text({ type: 'application/json', limit: bytes, defaultCharset: 'utf-8' }),
  (request: Request, _: Response, next: NextFunction) => {
    if (typeof request.body !== 'string') return next()
    const read = readJson(request.body === '' ? '{}' : request.body, { depth: usualDepth, values })
    if (!read.ok) throw unusable('what was sent', read.problems)
    request.body = read.value
    next()
  },
]

/** What takes the body of a route from the wire, as its definition has it. */
export const bodyReaders = ({ method, body, limits = usualLimits }: Route): RequestHandler[] =>
  method === 'get' || (body !== undefined && isMedia(body) && body.streamed)
    ? []
    : body !== undefined && isMedia(body)
      ? [fileBody]
      : jsonBody(limits)

const unusable = (where: string, problems: readonly Problem[]): HttpProblem => {
  const [first] = problems
  return new HttpProblem(
    400,
    'unusable-input',
    `${where}: found ${first?.found}; expected ${first?.expected}`,
    { problems: problems.slice(0, 50) },
  )
}

/** The body as a document of a schema. @throws HttpProblem 400 with every problem */
const bodyAs = (schema: z.ZodType, body: unknown): unknown => {
  const read = readDocument(schema, body ?? {})
  if (read.ok) return read.value
  throw unusable(`at ${read.problems[0]?.path || '/'}`, read.problems)
}

const queryAs = (schema: z.ZodType, query: unknown): {} => {
  const read = readDocument(schema, query)
  if (read.ok) return read.value ?? {}
  const [first] = read.problems
  throw unusable(`${first?.path.slice(1) || 'the address'}, after the ?`, read.problems)
}

/** What stands in the address. @throws HttpProblem 404 where no such thing can be */
const addressAs = (parameters: Request['params']): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(parameters).map(([name, said]) => {
      const read = pathParameters[name as ParameterName].safeParse(said)
      if (!read.success) throw new HttpProblem(404, 'not-found', `there is no such ${name}`)
      return [name, read.data]
    }),
  )

/** What was asked of a route, read by its definition. @throws HttpProblem 404 or 400 */
export const askedOf = (
  route: Route,
  request: Request,
): { at: Record<string, unknown>; query: {}; body: unknown } => ({
  at: addressAs(request.params),
  query: route.query ? queryAs(route.query, request.query) : {},
  body:
    route.body !== undefined && !isMedia(route.body) ? bodyAs(route.body, request.body) : undefined,
})
