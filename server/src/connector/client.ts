import { Course, readDocument, readJson, usualDepth, type Problem } from '@wickerframe/core'
import {
  AssetStored,
  ChangeSetAnswer,
  connectorPath,
  CourseList,
  Discarded,
  Enrolments,
  ProblemDetails,
  type ChangeSet,
} from '@wickerframe/contract'
import type { z } from 'zod'
import { courseAsAsked, enrolledAsAsked, listAsAsked, setAsAsked } from './heldAgainst.ts'
import { AnswerTooLong, readWithin } from './readWithin.ts'

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
  putAsset: (fileName: string, bytes: Uint8Array) => Promise<Answer<z.output<typeof AssetStored>>>
}

/** What is read of an answer at most: a course of 150 items and 60 pages has a quarter of a megabyte. */
const mostBytes = 32 * 2 ** 20
const answerLimits = { depth: usualDepth, values: 400_000 }

interface Asked<S extends z.ZodType> {
  method: 'GET' | 'POST' | 'PUT'
  path: string
  answer: S
  json?: unknown
  bytes?: Uint8Array
  key?: string
  /** What is wrong with an answer that follows the contract, but is not to what was asked; null for nothing. */
  wrong?: (answer: z.output<S>) => string | null
}

export const connectorClient = ({ url, token, timeoutSeconds }: ConnectorSettings): Connector => {
  const ask = async <S extends z.ZodType>(asked: Asked<S>): Promise<Answer<z.output<S>>> => {
    const { json, bytes, key } = asked
    const deadline = new AbortController()
    const clock = setTimeout(
      () => deadline.abort(new DOMException('too late', 'TimeoutError')),
      timeoutSeconds * 1000,
    )
    let response: Response
    let text: string
    try {
      response = await fetch(new URL(connectorPath + asked.path, url), {
        method: asked.method,
        headers: {
          authorization: `Bearer ${token}`,
          ...(json === undefined ? {} : { 'content-type': 'application/json' }),
          ...(bytes === undefined ? {} : { 'content-type': 'application/octet-stream' }),
          ...(key === undefined ? {} : { 'idempotency-key': key }),
        },
        ...(json === undefined ? {} : { body: JSON.stringify(json) }),
        ...(bytes === undefined ? {} : { body: Buffer.from(bytes) }),
        signal: deadline.signal,
        redirect: 'error',
      })
      text = await readWithin(response, mostBytes, deadline.signal)
    } catch (cause) {
      return lost(cause, timeoutSeconds)
    } finally {
      clearTimeout(clock)
    }
    return response.ok ? believed(asked, text) : refusal(response, text)
  }
  const course = (id: string) => `/courses/${encodeURIComponent(id)}`
  const sameCourse = (id: string) => (answer: Course) => courseAsAsked(answer, id)
  return {
    list: (after) =>
      ask({
        method: 'GET',
        path: `/courses?after=${after}`,
        answer: CourseList,
        wrong: (list) => listAsAsked(list, after),
      }),
    create: (id, name) =>
      ask({
        method: 'POST',
        path: '/courses',
        answer: Course,
        json: { id, name },
        wrong: sameCourse(id),
      }),
    enrol: (id, people) =>
      ask({
        method: 'POST',
        path: `${course(id)}/enrolments`,
        answer: Enrolments,
        json: { people },
        wrong: (answer) => enrolledAsAsked(answer, people),
      }),
    setStatus: (id, status) =>
      ask({
        method: 'POST',
        path: `${course(id)}/status`,
        answer: Course,
        json: { status },
        wrong: (answer) =>
          courseAsAsked(answer, id) ??
          (answer.status === status ? null : `it is told as ${answer.status}, not ${status}`),
      }),
    rehearse: (id, of) =>
      ask({
        method: 'POST',
        path: '/rehearsals',
        answer: Course,
        json: { id, of },
        wrong: sameCourse(id),
      }),
    discard: (id) =>
      ask({
        method: 'POST',
        path: `/rehearsals/${encodeURIComponent(id)}/discard`,
        answer: Discarded,
      }),
    snapshot: (id) =>
      ask({ method: 'GET', path: `${course(id)}/snapshot`, answer: Course, wrong: sameCourse(id) }),
    apply: async (id, key, set) => {
      const answer = await ask({
        method: 'POST',
        path: `${course(id)}/change-sets`,
        answer: ChangeSetAnswer,
        json: set,
        key,
        wrong: (one) => setAsAsked(one, id, set),
      })
      // It was carried out, or something was: an answer that cannot be believed leaves open what stands there now.
      return answer.state === 'refused' && answer.code === unusableAnswer
        ? { state: 'unknown', detail: answer.detail }
        : answer
    },
    putAsset: (fileName, bytes) =>
      ask({
        method: 'PUT',
        path: `/assets/${encodeURIComponent(fileName)}`,
        answer: AssetStored,
        bytes,
      }),
  }
}

const unusableAnswer = 'unusable-answer'

/** What a request came to that got no whole answer. */
const lost = (cause: unknown, timeoutSeconds: number): Answer<never> => {
  const code =
    cause instanceof Error && cause.cause instanceof Error && 'code' in cause.cause
      ? String(cause.cause.code)
      : ''
  // Nothing listens there: the request cannot have been carried out.
  if (code === 'ECONNREFUSED')
    return { state: 'later', afterSeconds: null, detail: 'the platform cannot be reached' }
  if (cause instanceof AnswerTooLong)
    return { state: 'unknown', detail: `the platform’s answer does not end: ${cause.message}` }
  return {
    state: 'unknown',
    detail:
      cause instanceof Error && cause.name === 'TimeoutError'
        ? `no whole answer in ${timeoutSeconds} seconds`
        : 'the connection was cut before an answer came',
  }
}

/** An answer that says that all went well, once it is seen to follow the contract and to be to what was asked. */
const believed = <S extends z.ZodType>(
  { answer, wrong }: Asked<S>,
  text: string,
): Answer<z.output<S>> => {
  const unusable = (detail: string): Answer<never> => ({
    state: 'refused',
    status: 200,
    code: unusableAnswer,
    detail,
  })
  const against = ([first]: Problem[]) =>
    unusable(
      `the platform’s answer does not follow the contract, at ${first?.path || '/'}: found ${first?.found}; expected ${first?.expected}`,
    )
  const json = readJson(text, answerLimits)
  if (!json.ok)
    return json.problems[0]?.code === 'not-json'
      ? { state: 'unknown', detail: 'an answer that is not JSON' }
      : against(json.problems)
  const read = readDocument(answer, json.value)
  if (!read.ok) return against(read.problems)
  const found = wrong?.(read.value) ?? null
  return found === null
    ? { state: 'answered', value: read.value }
    : unusable(`the platform did not answer what it was asked: ${found}; nothing of it is kept`)
}

/** An answer that says that it did not go well. */
const refusal = (response: Response, text: string): Answer<never> => {
  const json = readJson(text, { depth: 8, values: 1000 })
  const problem = ProblemDetails.safeParse(json.ok ? json.value : null)
  const detail = problem.success
    ? (problem.data.detail ?? problem.data.title).slice(0, 500)
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
