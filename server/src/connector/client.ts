import {
  mostFileBytes,
  readDocument,
  readJson,
  usualDepth,
  type Course,
  type Problem,
} from '@wickerframe/core'
import {
  connectorOperations,
  connectorPath,
  ProblemDetails,
  type AssetStored,
  type ChangeSet,
  type ChangeSetAnswer,
  type ConnectorOperation,
  type ConnectorParametersOf,
  type CourseList,
  type Discarded,
  type Enrolments,
  type Media,
} from '@wickerframe/contract'
import { sha256 } from '../digest.ts'
import type { z } from 'zod'
import { courseAsAsked, enrolledAsAsked, listAsAsked, setAsAsked } from './heldAgainst.ts'
import { AnswerTooLong, bytesWithin, readWithin } from './readWithin.ts'

/**
 * What came of a request. `refused`: the platform said no, and will say no again. `later`: it is away, or asks to wait, so
 * nothing was done. `unknown`: the answer was lost, so what was asked may or may not have been done.
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
  /** Whether it holds the bytes of a file, by their SHA-256. */
  hasContent: (content: string) => Promise<Answer<{ held: boolean }>>
  /** Sends the bytes of a file, piece by piece. @param bytes how many there are */
  putContent: (
    content: string,
    pieces: AsyncIterable<Uint8Array>,
    bytes: number,
  ) => Promise<Answer<{ content: string }>>
  /** The bytes of a file that a course shows or holds. */
  readContent: (id: string, content: string) => Promise<Answer<Buffer>>
}

/** What is read of an answer at most: a course of 150 items and 60 pages has a quarter of a megabyte. */
const mostBytes = 32 * 2 ** 20
const answerLimits = { depth: usualDepth, values: 400_000 }

/** How slow a line may be on which a file is sent or fetched: so many bytes a second have to get through beside the usual time. */
const slowestBytes = 100_000

/** Operations that answer JSON. */
type JsonOperation = ConnectorOperation & { answer: z.ZodType }
/** One request to an operation of the contract. */
interface Asked<O extends ConnectorOperation & { answer: z.ZodType | Media }> {
  at: ConnectorParametersOf<O>
  query?: O['query'] extends z.ZodType ? z.input<O['query']> : undefined
  /** JSON of the operation's schema, or the bytes of a file, also as they come. */
  body?: O['body'] extends z.ZodType ? z.input<O['body']> : Uint8Array | AsyncIterable<Uint8Array>
  /** How many bytes are sent or fetched, where it may take its time. */
  bytes?: number
  key?: string
  /** What is wrong with an answer that follows the contract, but is not to what was asked; null for nothing. */
  wrong?: O['answer'] extends z.ZodType ? (answer: z.output<O['answer']>) => string | null : never
}

const isComing = (body: unknown): body is AsyncIterable<Uint8Array> =>
  typeof body === 'object' && body !== null && Symbol.asyncIterator in body

const addressOf = (
  { path }: ConnectorOperation,
  { at, query }: { at: Readonly<Record<string, string>>; query?: object | undefined },
): string => {
  const filled = path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(at[name] ?? ''))
  const asked = new URLSearchParams(
    Object.entries(query ?? {}).map(([name, value]): [string, string] => [name, String(value)]),
  ).toString()
  return connectorPath + filled + (asked === '' ? '' : `?${asked}`)
}

export const connectorClient = ({ url, token, timeoutSeconds }: ConnectorSettings): Connector => {
  /** Asks, and takes what comes in time. @param take reads the body of the answer, within limits */
  const reach = async <T>(
    operation: ConnectorOperation,
    asked: Asked<ConnectorOperation>,
    take: (response: Response, deadline: AbortSignal) => Promise<T>,
  ): Promise<{ response: Response; body: T } | { lost: Answer<never> }> => {
    const { body, key, bytes = 0 } = asked
    const isBytes = body instanceof Uint8Array
    const deadline = new AbortController()
    const seconds = timeoutSeconds + bytes / slowestBytes
    const clock = setTimeout(
      () => deadline.abort(new DOMException('too late', 'TimeoutError')),
      seconds * 1000,
    )
    try {
      const response = await fetch(new URL(addressOf(operation, asked), url), {
        method: operation.method.toUpperCase(),
        headers: {
          authorization: `Bearer ${token}`,
          ...(body === undefined
            ? {}
            : {
                'content-type':
                  isBytes || isComing(body) ? 'application/octet-stream' : 'application/json',
              }),
          ...(key === undefined ? {} : { 'idempotency-key': key }),
        },
        ...(body === undefined
          ? {}
          : isComing(body)
            ? { body: ReadableStream.from(body), duplex: 'half' }
            : { body: isBytes ? Buffer.from(body) : JSON.stringify(body) }),
        signal: deadline.signal,
        redirect: 'error',
      })
      return { response, body: await take(response, deadline.signal) }
    } catch (cause) {
      return { lost: lost(cause, Math.round(seconds)) }
    } finally {
      clearTimeout(clock)
    }
  }
  const ask = async <O extends JsonOperation>(
    operation: O,
    asked: Asked<O>,
  ): Promise<Answer<z.output<O['answer']>>> => {
    const reached = await reach(operation, asked as Asked<ConnectorOperation>, (response, late) =>
      readWithin(response, mostBytes, late),
    )
    if ('lost' in reached) return reached.lost
    const { response, body } = reached
    return response.ok ? believed(operation, asked, body) : refusal(response, body)
  }
  const bytesOf = async (id: string, content: string): Promise<Answer<Buffer>> => {
    const reached = await reach(
      connectorOperations.readContent,
      { at: { course: id, content }, bytes: mostFileBytes } as Asked<ConnectorOperation>,
      (response, late) => bytesWithin(response, mostFileBytes, late),
    )
    if ('lost' in reached) return reached.lost
    const { response, body } = reached
    if (!response.ok) return refusal(response, body.subarray(0, 10_000).toString('utf8'))
    return sha256(body) === content
      ? { state: 'answered', value: body }
      : unusableFor('the platform did not send the file that it was asked for')
  }
  const sameCourse = (id: string) => (answer: Course) => courseAsAsked(answer, id)
  return {
    list: (after) =>
      ask(connectorOperations.listCourses, {
        at: {},
        query: { after },
        wrong: (list) => listAsAsked(list, after),
      }),
    create: (id, name) =>
      ask(connectorOperations.createCourse, { at: {}, body: { id, name }, wrong: sameCourse(id) }),
    enrol: (id, people) =>
      ask(connectorOperations.enrolPeople, {
        at: { course: id },
        body: { people: [...people] },
        wrong: (answer) => enrolledAsAsked(answer, people),
      }),
    setStatus: (id, status) =>
      ask(connectorOperations.setStatus, {
        at: { course: id },
        body: { status },
        wrong: (answer) =>
          courseAsAsked(answer, id) ??
          (answer.status === status ? null : `it is told as ${answer.status}, not ${status}`),
      }),
    rehearse: (id, of) =>
      ask(connectorOperations.rehearse, { at: {}, body: { id, of }, wrong: sameCourse(id) }),
    discard: (id) => ask(connectorOperations.discardRehearsal, { at: { rehearsal: id } }),
    snapshot: (id) =>
      ask(connectorOperations.readSnapshot, { at: { course: id }, wrong: sameCourse(id) }),
    apply: async (id, key, set) => {
      const answer = await ask(connectorOperations.applyChangeSet, {
        at: { course: id },
        body: set,
        key,
        wrong: (told) => setAsAsked(told, id, set),
      })
      // It was carried out, or something was: an answer that cannot be believed leaves open what stands there now.
      return answer.state === 'refused' && answer.code === unusableAnswer
        ? { state: 'unknown', detail: answer.detail }
        : answer
    },
    putAsset: (fileName, bytes) =>
      ask(connectorOperations.putAsset, { at: { fileName }, body: bytes }),
    hasContent: (content) => ask(connectorOperations.hasContent, { at: { content } }),
    putContent: (content, pieces, bytes) =>
      ask(connectorOperations.putContent, {
        at: { content },
        body: pieces,
        bytes,
        wrong: (answer) => (answer.content === content ? null : 'another file is said to be kept'),
      }),
    readContent: bytesOf,
  }
}

const unusableAnswer = 'unusable-answer'
const unusableFor = (detail: string): Answer<never> => ({
  state: 'refused',
  status: 200,
  code: unusableAnswer,
  detail,
})

/** No connection came about: nobody listens there, or nobody knows the way. */
const noConnection: ReadonlySet<string> = new Set([
  'ECONNREFUSED',
  'EHOSTUNREACH',
  'ENETUNREACH',
  'ENOTFOUND',
  'EAI_AGAIN',
  'UND_ERR_CONNECT_TIMEOUT',
])

/** What a request came to that got no whole answer. */
const lost = (cause: unknown, timeoutSeconds: number): Answer<never> => {
  const code =
    cause instanceof Error && cause.cause instanceof Error && 'code' in cause.cause
      ? String(cause.cause.code)
      : ''
  // The request cannot have been carried out.
  if (noConnection.has(code))
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
const believed = <O extends JsonOperation>(
  operation: O,
  { wrong }: Asked<O>,
  text: string,
): Answer<z.output<O['answer']>> => {
  const against = ([first]: Problem[]) =>
    unusableFor(
      `the platform’s answer does not follow the contract, at ${first?.path || '/'}: found ${first?.found}; expected ${first?.expected}`,
    )
  const json = readJson(text, answerLimits)
  if (!json.ok)
    return json.problems[0]?.code === 'not-json'
      ? { state: 'unknown', detail: 'an answer that is not JSON' }
      : against(json.problems)
  const answer: O['answer'] = operation.answer
  const read = readDocument(answer, json.value)
  if (!read.ok) return against(read.problems)
  const found = wrong?.(read.value) ?? null
  return found === null
    ? { state: 'answered', value: read.value }
    : unusableFor(`the platform did not answer what it was asked: ${found}; nothing of it is kept`)
}

/** The seconds to wait that an answer asks for, an hour at most: a number, or a moment by its own clock (RFC 9110, 10.2.3). */
const waitAsked = (headers: Headers): number | null => {
  const asked = headers.get('retry-after') ?? ''
  if (/^\d+$/.test(asked)) return Math.min(Number(asked), 3600) || null
  const until = /\d:\d\d:\d\d/.test(asked) ? Date.parse(asked) : Number.NaN
  const clock = Date.parse(headers.get('date') ?? '')
  const seconds = (until - (Number.isNaN(clock) ? Date.now() : clock)) / 1000
  return seconds > 0 ? Math.min(seconds, 3600) : null
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
    return {
      state: 'later',
      afterSeconds: waitAsked(response.headers),
      detail: `the platform asks to wait (${response.status})`,
    }
  }
  if (code === 'still-working') return { state: 'later', afterSeconds: 1, detail }
  if (response.status >= 500 || response.status === 408)
    return { state: 'unknown', detail: `the platform failed: ${detail}` }
  return { state: 'refused', status: response.status, code, detail }
}
