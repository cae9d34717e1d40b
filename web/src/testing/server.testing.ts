import { vi } from 'vitest'
import {
  isMedia,
  routeNamed,
  routeNames,
  type AnswerTo,
  type ApiProblem,
  type Media,
  type Route,
  type RouteName,
} from '@wickerframe/contract'

/** One request that a screen made. */
export interface Asked {
  route: RouteName
  at: Readonly<Record<string, string>>
  query: Readonly<Record<string, string>>
  body: unknown
}
/** What the server answers to a route: a document, or what it makes of the request. */
export type Answers = {
  [Name in RouteName]?:
    | AnswerTo<Name>
    | ((asked: Asked) => AnswerTo<Name> | Promise<AnswerTo<Name>>)
}

/** A refusal, thrown by an answer. */
export class Refusal extends Error {
  readonly problem: ApiProblem
  constructor(status: number, detail: string, more: Partial<ApiProblem> = {}) {
    super(detail)
    this.problem = { type: 'urn:wickerframe:problem:test', title: 'test', status, detail, ...more }
  }
}

const patternOf = (path: string): RegExp =>
  new RegExp(`^${path.replaceAll(/:(\w+)/g, (_, name: string) => `(?<${name}>[^/]+)`)}$`)
const patterns = routeNames.map((route) => ({
  route,
  method: routeNamed(route).method,
  pattern: patternOf(routeNamed(route).path),
}))

const reply = (body: unknown, status = 200): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } })

type Schema = Exclude<Route['answer'], Media>

const misfits: string[] = []
/** What did not fit the contract since the last look; it is forgotten then. */
export const takeMisfits = (): string[] => misfits.splice(0)

const fitting = (schema: Schema, value: unknown, where: string): unknown => {
  const read = schema.safeParse(value)
  if (read.success) return read.data
  misfits.push(`${where}: ${JSON.stringify(read.error.issues)}`)
  throw new Error(misfits.at(-1))
}

/**
 * A server that answers what it is told to, in the shapes that the contract defines: an answer, or a body sent to it, that
 * does not fit fails the test.
 * @returns every request, in order
 */
export const serve = (answers: Answers): Asked[] => {
  const asked: Asked[] = []
  vi.stubGlobal('fetch', async (input: string, init: RequestInit = {}): Promise<Response> => {
    const url = new URL(input, 'http://wickerframe.test')
    const method = (init.method ?? 'GET').toLowerCase()
    for (const { route, method: its, pattern } of patterns) {
      const match = its === method ? pattern.exec(url.pathname) : null
      if (!match || !(route in answers)) continue
      const { answer, body } = routeNamed(route)
      const sent: unknown =
        body && !isMedia(body)
          ? fitting(body, JSON.parse(String(init.body)), `sent to ${route}`)
          : init.body
      const request = {
        route,
        at: { ...match.groups },
        query: Object.fromEntries(url.searchParams),
        body: sent,
      }
      asked.push(request)
      const given = answers[route]
      try {
        const made: unknown = typeof given === 'function' ? await given(request) : given
        return reply(isMedia(answer) ? made : fitting(answer, made, `answered by ${route}`))
      } catch (cause) {
        if (cause instanceof Refusal) return reply(cause.problem, cause.problem.status)
        throw cause
      }
    }
    misfits.push(`no answer was given for ${method} ${url.pathname}`)
    throw new Error(misfits.at(-1))
  })
  return asked
}
