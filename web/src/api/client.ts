import type { ApiProblem, Progress } from '@wickerframe/contract'

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
export const get = <T>(path: string): Promise<T> =>
  ask<T>(path, { signal: AbortSignal.timeout(mostMilliseconds) })
export const post = <T>(path: string, body: unknown = {}): Promise<T> =>
  ask<T>(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-wickerframe': '1' },
    body: JSON.stringify(body),
  })
/** Sends a table that was pasted or typed. */
export const postText = <T>(path: string, text: string): Promise<T> =>
  ask<T>(path, {
    method: 'POST',
    headers: { 'content-type': 'text/csv', 'x-wickerframe': '1' },
    body: text,
  })
/** Sends a file as it is. @param type its media type */
export const postFile = <T>(
  path: string,
  file: File,
  type: 'text/csv' | 'text/calendar',
): Promise<T> =>
  ask<T>(path, {
    method: 'POST',
    headers: { 'content-type': type, 'x-wickerframe': '1' },
    body: file,
  })

/**
 * Sends a file and listens line by line how far the work is; what answers is the last line.
 * @param told is called with each progress
 */
export const postFileWatched = async <T>(
  path: string,
  file: File,
  type: 'text/csv',
  told: (progress: Progress) => void,
): Promise<T> => {
  const response = await reach(path, {
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
