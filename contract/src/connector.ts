import { z } from 'zod'
import {
  Change,
  ContentId,
  Course,
  Line,
  mostChanges,
  mostFileBytes,
  ReaderName,
} from '@wickerframe/core'
import { bytes, streamed, type Media, type NamesIn } from './route.ts'

/** A course as the list of a platform names it. */
export const CourseListing = z.strictObject({
  id: z.string(),
  name: z.string(),
  status: z.string(),
  revision: z
    .string()
    .describe(
      'Another one after every change, and never one that the course had before, also where the platform is brought back as it stood earlier',
    ),
  cursor: z.number().int(),
})
export const CourseList = z.strictObject({
  courses: z.array(CourseListing),
  cursor: z.number().int().describe('Ask with after=cursor for what changed since'),
  readerName: ReaderName.nullable()
    .optional()
    .describe(
      'What this platform shows as the first name of whoever reads a page, where it stands in the page; null: it shows none',
    ),
})
export type CourseList = z.output<typeof CourseList>

export const CreateCourse = z.strictObject({
  id: z
    .string()
    .regex(/^[\w-]{1,60}$/, 'letters, digits, - and _')
    .describe('Given by the client, so that asking twice makes one'),
  name: Line(300),
})

const Enrolled = z.strictObject({ email: z.email().max(200), name: Line(200) })
/** Everybody who teaches a course. Asking twice enrols once. */
export const EnrolPeople = z.strictObject({ people: z.array(Enrolled).max(200) })
export const Enrolments = z.strictObject({ people: z.array(Enrolled) })
export const CopyCourse = z.strictObject({
  id: CreateCourse.shape.id,
  of: z.string().min(1).max(60),
})
export const SetStatus = z.strictObject({ status: Course.shape.status.unwrap() })

export const ChangeSet = z.strictObject({
  expectedRevision: z
    .string()
    .describe('The revision the changes were planned on; another one refuses the set'),
  changes: z.array(Change).min(1).max(mostChanges),
})
export type ChangeSet = z.output<typeof ChangeSet>

export const ChangeSetAnswer = z.strictObject({
  revision: z.string(),
  ids: z.record(z.string(), z.string()).describe('The platform’s id for each client id'),
  course: Course.describe('The course as it stands after the set, from the same transaction'),
})
export type ChangeSetAnswer = z.output<typeof ChangeSetAnswer>

export const KeyFate = z.discriminatedUnion('state', [
  z.strictObject({ state: z.literal('unknown') }),
  z.strictObject({ state: z.literal('voided') }),
  z.strictObject({ state: z.literal('applied'), answer: ChangeSetAnswer }),
])
export type KeyFate = z.output<typeof KeyFate>

export const Discarded = z.strictObject({ discarded: z.boolean() })
export const AssetStored = z.strictObject({ url: z.string() })
export const ContentHeld = z.strictObject({ held: z.boolean() })
export const ContentStored = z.strictObject({ content: ContentId })

/** RFC 9457 problem details. */
export const ProblemDetails = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  detail: z.string().optional(),
  code: z.string().optional(),
})
export type ProblemDetails = z.output<typeof ProblemDetails>

export const connectorPath = '/connector/v1'

/** The id of a course, an idempotency key, a file name, what a file holds: as they stand in an address. */
type ConnectorParameter = 'course' | 'rehearsal' | 'key' | 'fileName' | 'content'

/** One operation of the connector: what both sides, and the document for those who build one, need of it. */
export interface ConnectorOperation {
  method: 'get' | 'post' | 'put'
  path: `/${string}`
  summary: string
  query?: z.ZodObject
  /** JSON of a schema, or the bytes of a file. */
  body?: z.ZodType | Media
  /** Of the body; the usual ones of who implements it without. */
  mostBytes?: number
  /** JSON of a schema, or the bytes of a file. */
  answer: z.ZodType | Media
  needsKey?: true
  refusals: Readonly<Record<number, string>>
}
export type ConnectorParametersOf<O extends ConnectorOperation> = {
  [Name in NamesIn<O['path']> & ConnectorParameter]: string
}

const common = {
  401: 'the token is missing or wrong',
  429: 'too many requests; Retry-After says when to ask again',
}
const withBody = { ...common, 400: 'the body is not of this schema' }
const kB = 1024

/** Every operation an institution implements in front of its own platform. */
export const connectorOperations = {
  listCourses: {
    method: 'get',
    path: '/courses',
    summary: 'Courses changed since a cursor, in the order of their changes',
    query: z.strictObject({
      after: z.coerce
        .number()
        .int()
        .min(0)
        .default(0)
        .describe('A cursor that this platform gave; 0 for all courses'),
    }),
    answer: CourseList,
    refusals: { ...common, 400: 'no cursor of this platform' },
  },
  createCourse: {
    method: 'post',
    path: '/courses',
    summary: 'Make an empty course under an id given by the client',
    body: CreateCourse,
    mostBytes: 10 * kB,
    answer: Course,
    refusals: withBody,
  },
  enrolPeople: {
    method: 'post',
    path: '/courses/:course/enrolments',
    summary: 'Who teaches a course; those named are enrolled, and nobody is taken out',
    body: EnrolPeople,
    mostBytes: 100 * kB,
    answer: Enrolments,
    refusals: { ...withBody, 404: 'no such course' },
  },
  setStatus: {
    method: 'post',
    path: '/courses/:course/status',
    summary: 'Say how a course stands: merged into another, set aside, and so on',
    body: SetStatus,
    mostBytes: 10 * kB,
    answer: Course,
    refusals: { ...withBody, 404: 'no such course' },
  },
  rehearse: {
    method: 'post',
    path: '/rehearsals',
    summary: 'Make a copy of a course to try something on, under an id given by the client',
    body: CopyCourse,
    mostBytes: 10 * kB,
    answer: Course,
    refusals: { ...withBody, 404: 'no such course' },
  },
  discardRehearsal: {
    method: 'post',
    path: '/rehearsals/:rehearsal/discard',
    summary: 'Throw a copy away; what is not a copy is never thrown away',
    answer: Discarded,
    refusals: { ...common, 404: 'no such copy' },
  },
  readSnapshot: {
    method: 'get',
    path: '/courses/:course/snapshot',
    summary: 'A course as it stands, with its revision',
    answer: Course,
    refusals: { ...common, 404: 'no such course' },
  },
  applyChangeSet: {
    method: 'post',
    path: '/courses/:course/change-sets',
    summary: 'Apply an ordered change set: all of it or nothing',
    body: ChangeSet,
    mostBytes: 20 * 1024 * kB,
    answer: ChangeSetAnswer,
    needsKey: true,
    refusals: {
      ...withBody,
      404: 'no such course',
      409: 'a stale revision, a key still at work, a voided key, or a change that cannot be made (see code)',
      422: 'the key was used with another payload',
    },
  },
  keyFate: {
    method: 'get',
    path: '/keys/:key',
    summary: 'What became of an idempotency key',
    answer: KeyFate,
    refusals: common,
  },
  voidKey: {
    method: 'post',
    path: '/keys/:key/void',
    summary: 'Make sure that a key is never applied from now on',
    answer: KeyFate,
    refusals: common,
  },
  putAsset: {
    method: 'put',
    path: '/assets/:fileName',
    summary:
      'Store an image under a name, for good; the same bytes again change nothing, and other bytes under a name in use are refused',
    body: bytes,
    mostBytes: 2 * 1024 * kB,
    answer: AssetStored,
    refusals: {
      ...common,
      400: 'not a usable file name, or not an SVG, PNG, JPEG or WebP by its content',
      409: 'another image is kept under the name',
      413: 'too large',
    },
  },
  hasContent: {
    method: 'get',
    path: '/contents/:content',
    summary: 'Whether the bytes of a file are held, by their SHA-256',
    answer: ContentHeld,
    refusals: { ...common, 400: 'not a SHA-256 in 64 hexadecimal digits' },
  },
  putContent: {
    method: 'put',
    path: '/contents/:content',
    summary:
      'Store the bytes of a file under their SHA-256, for change sets to speak of; the same again changes nothing',
    body: streamed,
    mostBytes: mostFileBytes,
    answer: ContentStored,
    refusals: {
      ...common,
      400: 'not a SHA-256 in 64 hexadecimal digits, or not that of the bytes',
      413: 'too large',
    },
  },
  readContent: {
    method: 'get',
    path: '/courses/:course/contents/:content',
    summary: 'The bytes of a file that an item of the course shows, or that the course holds',
    answer: bytes,
    refusals: { ...common, 404: 'the course neither shows nor holds such a file' },
  },
} as const satisfies Readonly<Record<string, ConnectorOperation>>
