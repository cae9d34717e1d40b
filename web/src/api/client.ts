import type { ApiProblem } from '@wickerframe/contract'

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

const answerOf = async <T>(response: Response): Promise<T> => {
  const text = await response.text()
  if (response.ok) return JSON.parse(text) as T
  try {
    throw new ApiError(JSON.parse(text) as ApiProblem)
  } catch (cause) {
    if (cause instanceof ApiError) throw cause
    throw new ApiError({ ...unreachable, status: response.status })
  }
}

const ask = async <T>(path: string, init: RequestInit): Promise<T> => {
  let response: Response
  try {
    response = await fetch(path, { credentials: 'same-origin', ...init })
  } catch {
    throw new ApiError(unreachable)
  }
  return answerOf<T>(response)
}

export const get = <T>(path: string): Promise<T> => ask<T>(path, {})
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
