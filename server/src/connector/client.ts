import { Course, readDocument } from '@wickerframe/core'
import {
  AssetStored,
  ChangeSetAnswer,
  connectorPath,
  CourseList,
  Discarded,
  Enrolments,
  KeyFate,
  ProblemDetails,
  type ChangeSet,
} from '@wickerframe/contract'
import type { z } from 'zod'

/**
 * What came of a request. `refused`: the platform said no, and will say no again. `later`: it may pass. `unknown`: the
 * answer was lost, so what was asked may or may not have been done.
 */
export type Answer<T> =
  | { state: 'answered'; value: T }
  | { state: 'refused'; status: number; code: string; detail: string }
  | { state: 'later'; afterSeconds: number | null; detail: string }
  | { state: 'unknown'; detail: string }

export interface ConnectorSettings {
  url: string
  token: string
  timeoutSeconds: number
}

/** The learning platform, as its connector contract has it; ids are the platform's own. */
export interface Connector {
  /** Courses whose change cursor lies after this one. */
  list: (after: number) => Promise<Answer<z.output<typeof CourseList>>>
  /** Makes an empty course under an id of ours. */
  create: (id: string, name: string) => Promise<Answer<Course>>
  enrol: (
    id: string,
    people: readonly { email: string; name: string }[],
  ) => Promise<Answer<z.output<typeof Enrolments>>>
  setStatus: (id: string, status: Course['status']) => Promise<Answer<Course>>
  /** Makes a private copy `id` of course `of`. */
  rehearse: (id: string, of: string) => Promise<Answer<Course>>
  discard: (id: string) => Promise<Answer<z.output<typeof Discarded>>>
  snapshot: (id: string) => Promise<Answer<Course>>
  /** Applies all of a change set or nothing; the same key is answered as the first time. */
  apply: (
    id: string,
    key: string,
    set: ChangeSet,
  ) => Promise<Answer<z.output<typeof ChangeSetAnswer>>>
  /** What became of a key that was sent. */
  fate: (key: string) => Promise<Answer<z.output<typeof KeyFate>>>
  putAsset: (fileName: string, bytes: Uint8Array) => Promise<Answer<z.output<typeof AssetStored>>>
}

export const connectorClient = ({ url, token, timeoutSeconds }: ConnectorSettings): Connector => {
  const ask = async <S extends z.ZodType>(
    method: string,
    path: string,
    schema: S,
    body?: { json: unknown } | { bytes: Uint8Array },
    key?: string,
  ): Promise<Answer<z.output<S>>> => {
    let response: Response
    let text: string
    try {
      response = await fetch(new URL(connectorPath + path, url), {
        method,
        headers: {
          authorization: `Bearer ${token}`,
          ...(body && 'json' in body ? { 'content-type': 'application/json' } : {}),
          ...(body && 'bytes' in body ? { 'content-type': 'application/octet-stream' } : {}),
          ...(key === undefined ? {} : { 'idempotency-key': key }),
        },
        ...(body
          ? { body: 'json' in body ? JSON.stringify(body.json) : Buffer.from(body.bytes) }
          : {}),
        signal: AbortSignal.timeout(timeoutSeconds * 1000),
        redirect: 'error',
      })
      text = await response.text()
    } catch (cause) {
      const code =
        cause instanceof Error && cause.cause instanceof Error && 'code' in cause.cause
          ? String(cause.cause.code)
          : ''
      // Nothing listens there: the request cannot have been carried out.
      if (code === 'ECONNREFUSED')
        return { state: 'later', afterSeconds: null, detail: 'the platform cannot be reached' }
      return {
        state: 'unknown',
        detail:
          cause instanceof Error && cause.name === 'TimeoutError'
            ? `no answer in ${timeoutSeconds} seconds`
            : 'the connection was cut before an answer came',
      }
    }
    if (response.ok) {
      let json: unknown
      try {
        json = JSON.parse(text)
      } catch {
        return { state: 'unknown', detail: 'an answer that is not JSON' }
      }
      const read = readDocument(schema, json)
      if (read.ok) return { state: 'answered', value: read.value }
      const first = read.problems[0]
      return {
        state: 'refused',
        status: response.status,
        code: 'unusable-answer',
        detail: `the platform’s answer does not follow the contract, at ${first?.path}: found ${first?.found}; expected ${first?.expected}`,
      }
    }
    const problem = ProblemDetails.safeParse(parseOrNull(text))
    const detail = problem.success
      ? (problem.data.detail ?? problem.data.title)
      : `status ${response.status}`
    const code = problem.success ? (problem.data.code ?? '') : ''
    if (response.status === 429 || response.status === 503) {
      const after = Number(response.headers.get('retry-after'))
      return {
        state: 'later',
        afterSeconds: Number.isFinite(after) && after > 0 ? Math.min(after, 3600) : null,
        detail: `the platform asks to wait (${response.status})`,
      }
    }
    if (code === 'still-working') return { state: 'later', afterSeconds: 1, detail }
    if (response.status >= 500 || response.status === 408)
      return { state: 'unknown', detail: `the platform failed: ${detail}` }
    return { state: 'refused', status: response.status, code, detail }
  }
  const course = (id: string) => `/courses/${encodeURIComponent(id)}`
  return {
    list: (after: number) => ask('GET', `/courses?after=${after}`, CourseList),
    create: (id: string, name: string) => ask('POST', '/courses', Course, { json: { id, name } }),
    enrol: (id: string, people: readonly { email: string; name: string }[]) =>
      ask('POST', `${course(id)}/enrolments`, Enrolments, { json: { people } }),
    setStatus: (id: string, status: Course['status']) =>
      ask('POST', `${course(id)}/status`, Course, { json: { status } }),
    rehearse: (id: string, of: string) => ask('POST', '/rehearsals', Course, { json: { id, of } }),
    discard: (id: string) =>
      ask('POST', `/rehearsals/${encodeURIComponent(id)}/discard`, Discarded),
    snapshot: (id: string) => ask('GET', `${course(id)}/snapshot`, Course),
    apply: (id: string, key: string, set: ChangeSet) =>
      ask('POST', `${course(id)}/change-sets`, ChangeSetAnswer, { json: set }, key),
    fate: (key: string) => ask('GET', `/keys/${encodeURIComponent(key)}`, KeyFate),
    putAsset: (fileName: string, bytes: Uint8Array) =>
      ask('PUT', `/assets/${encodeURIComponent(fileName)}`, AssetStored, { bytes }),
  }
}
const parseOrNull = (text: string): unknown => {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
