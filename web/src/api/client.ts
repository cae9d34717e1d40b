import type { AnswerTo, ApiProblem, Asked, Progress, RouteName } from '@wickerframe/contract'
import { addresses } from '@wickerframe/contract/addresses'

/** What the server refused, in words; `body` has the places and both values of a clash. */
export class ApiError extends Error {
  readonly body: ApiProblem
  constructor(body: ApiProblem) {
    super(body.detail)
    this.body = body
  }
}

const unreachable: ApiProblem = {
  type: 'urn:wickerframe:problem:unreachable',
  title: 'unreachable',
  status: 0,
  detail: 'The server cannot be reached. What you typed is still here; try again in a moment.',
}

/** Whether what went wrong is that no answer of ours came. */
export const isUnreachable = (cause: unknown): boolean =>
  cause instanceof ApiError && cause.body.type === unreachable.type

const answerOf = async <T>(response: Response): Promise<T> => {
  let said: unknown
  try {
    said = JSON.parse(await response.text())
  } catch {
    // Cut off on its way, or a page of somebody in between: a proxy, or a network that wants a sign-in of its own.
    throw new ApiError({ ...unreachable, status: response.ok ? 0 : response.status })
  }
  if (response.ok) return said as T
  throw new ApiError(said as ApiProblem)
}

const reach = async (path: string, init: RequestInit): Promise<Response> => {
  try {
    return await fetch(path, { credentials: 'same-origin', ...init })
  } catch {
    throw new ApiError(unreachable)
  }
}
const ask = async <T>(path: string, init: RequestInit): Promise<T> =>
  answerOf<T>(await reach(path, init))

/** Nobody waits longer for something to be read. */
const mostMilliseconds = 60_000

/** What may be asked of a route: what stands in its address, and its body. */
interface Given {
  at?: object
  query?: object
  body?: unknown
}
type GivenTo<Name extends RouteName> = Asked<Name> & Given
/** Left out when nothing of it is needed. */
type MaybeLeftOut<T> = {} extends T ? [asked?: T] : [asked: T]
type Question<Name extends RouteName> = MaybeLeftOut<GivenTo<Name>>
type Address<Name extends RouteName> = MaybeLeftOut<Omit<GivenTo<Name>, 'body'>>

const fill = (path: string, { at = {}, query = {} }: Given): string => {
  const filled = Object.entries(at).reduce(
    (address, [parameter, value]) =>
      address.replace(`:${parameter}`, encodeURIComponent(String(value))),
    path,
  )
  const said = Object.entries(query).flatMap(([field, value]): [string, string][] =>
    value === undefined ? [] : [[field, String(value)]],
  )
  return said.length === 0 ? filled : `${filled}?${new URLSearchParams(said).toString()}`
}

/** The address of a route, with what is asked for in it. */
export const addressOf = <Name extends RouteName>(name: Name, ...[asked]: Address<Name>): string =>
  fill(addresses[name].path, asked ?? {})

const json = { 'content-type': 'application/json', 'x-wickerframe': '1' }

/** Asks a route, and gives what its definition says that it answers. @throws ApiError */
export const call = <Name extends RouteName>(
  name: Name,
  ...[asked]: Question<Name>
): Promise<AnswerTo<Name>> => {
  const given: Given = asked ?? {}
  const { method, path } = addresses[name]
  return method === 'get'
    ? ask(fill(path, given), { signal: AbortSignal.timeout(mostMilliseconds) })
    : ask(fill(path, given), {
        method: 'POST',
        headers: json,
        body: JSON.stringify(given.body ?? {}),
      })
}

/** Sends a file, or a table that was pasted or typed, to a route that takes one. @param type its media type */
export const send = <Name extends RouteName>(
  name: Name,
  content: File | string,
  type: 'text/csv' | 'text/calendar' | 'application/octet-stream',
  ...[asked]: Address<Name>
): Promise<AnswerTo<Name>> =>
  ask(fill(addresses[name].path, asked ?? {}), {
    method: 'POST',
    headers: { 'content-type': type, 'x-wickerframe': '1' },
    body: content,
  })

/**
 * Sends a file and listens line by line how far the work is; what answers is the last line.
 * @param told is called with each progress
 */
export const sendWatched = async <Name extends RouteName>(
  name: Name,
  file: File,
  type: 'text/csv',
  told: (progress: Progress) => void,
  ...[asked]: Address<Name>
): Promise<AnswerTo<Name>> => {
  type T = AnswerTo<Name>
  const response = await reach(fill(addresses[name].path, asked ?? {}), {
    method: 'POST',
    headers: { 'content-type': type, 'x-wickerframe': '1', accept: 'application/x-ndjson' },
    body: file,
  })
  if (!response.ok || !response.body) return answerOf<T>(response)
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (;;) {
    const { done, value } = await reader.read().catch(() => {
      throw new ApiError(unreachable)
    })
    const lines = (rest + (value ?? '')).split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines) {
      const said = JSON.parse(line) as { progress?: Progress; answer?: T; problem?: ApiProblem }
      if (said.problem) throw new ApiError(said.problem)
      if (said.answer !== undefined) return said.answer
      if (said.progress) told(said.progress)
    }
    if (done) throw new ApiError(unreachable)
  }
}
