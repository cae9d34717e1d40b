import { z } from 'zod'
import {
  AdoptStrengths,
  ApproveRequest,
  DecideRequest,
  MergeCourse,
  UnmergeCourse,
  NextTerm,
  RolloutRequest,
  StandingRulePut,
  UndoRequest,
  type PlanSummary,
  type Receipt,
  type RolloutOrder,
} from './rollouts.ts'
import {
  AttestationRequest,
  FollowUpPut,
  JoinPut,
  MendOwnRequest,
  MendRequest,
  NotThisWeekPut,
  WaiverDecision,
  WaiverRequest,
  type CourseCare,
} from './followUp.ts'
import {
  Asset,
  HouseText,
  Key,
  KeptBlock,
  PlainDate,
  Rubric,
  TemplateEdit,
  Term,
  Unit,
  weekdays,
  type CheckResult,
  type Counts,
  type Course,
  type Crossing,
  type Facts,
  type FieldValues,
  type MendAction,
  type Problem,
  type Remark,
  type TakeOverNote,
  type Template,
  type TemplateChange,
  type WeaveColumn,
} from '@wickerframe/core'

export const roles = ['designer', 'contributor', 'instructor', 'reviewer', 'administrator'] as const
export type Role = (typeof roles)[number]

/** `anyone`: without signing in. Rows are narrowed further: an instructor sees only their own courses. */
export type Access = 'anyone' | readonly Role[]

const everybody: Access = roles
const readers: Access = ['designer', 'contributor', 'reviewer', 'administrator']
const designers: Access = ['designer', 'administrator']
const builders: Access = ['designer', 'contributor', 'administrator']

const CourseIds = z.array(z.number().int().positive()).min(1).max(10_000)

export const SignIn = z.strictObject({
  email: z.string().min(1).max(200),
  password: z.string().min(1).max(200),
})
export const SignOut = z.strictObject({
  everywhere: z.boolean().default(false).describe('All sessions of the person, on every device'),
})
export const ChangePassword = z.strictObject({
  was: z.string().min(1).max(200),
  password: z.string().min(12).max(200),
})
export const DraftEdits = z.strictObject({
  revision: z.number().int().min(0),
  edits: z.array(TemplateEdit).min(1).max(500),
})
export const Release = z.strictObject({
  revision: z.number().int().min(0),
  note: z.string().max(1000).default(''),
})
export const TakeOver = z.strictObject({
  revision: z.number().int().min(0),
  version: z.number().int().min(1).describe('Of the template it is built on'),
  dry: z.boolean().default(false),
})
export const UseVersion = z.strictObject({
  uses: z
    .array(
      z.strictObject({
        department: z.string().min(1).max(40),
        modality: z.string().min(1).max(40),
        inUse: z.boolean(),
      }),
    )
    .min(1)
    .max(200),
})
export const RetireVersion = z.strictObject({ retired: z.boolean() })
export const NewComment = z.strictObject({
  part: Key.nullable().default(null),
  answersTo: z.number().int().positive().nullable().default(null),
  text: z.string().trim().min(1).max(4000),
})
export const CloseComment = z.strictObject({ closed: z.boolean() })
export const LetContribute = z.strictObject({ email: z.email().max(200), may: z.boolean() })
export const libraryKinds = ['house-text', 'image', 'rubric', 'block'] as const
export type LibraryKind = (typeof libraryKinds)[number]
/** Which list of a template holds what the library has of a kind. */
export const templateListOf = {
  'house-text': 'houseTexts',
  image: 'assets',
  rubric: 'rubrics',
  block: 'keptBlocks',
} as const satisfies Record<LibraryKind, keyof Template>
/** What stands in the library, by kind: the same documents that templates hold. */
export const LibraryPut = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('house-text'),
    was: z.number().int().min(1).nullable(),
    document: HouseText,
  }),
  z.strictObject({
    kind: z.literal('image'),
    was: z.number().int().min(1).nullable(),
    document: Asset,
  }),
  z.strictObject({
    kind: z.literal('rubric'),
    was: z.number().int().min(1).nullable(),
    document: Rubric,
  }),
  z.strictObject({
    kind: z.literal('block'),
    was: z.number().int().min(1).nullable(),
    document: KeptBlock,
  }),
])
export type LibraryPut = z.output<typeof LibraryPut>
export const CheckRequest = z.strictObject({
  courses: CourseIds.optional(),
  asOf: PlainDate.optional(),
})
export const ProposedRename = z.strictObject({
  what: z.enum(['course', 'module', 'item']),
  id: z
    .string()
    .min(1)
    .max(200)
    .describe('Of the module or item on the platform; of the course itself, any text'),
  was: z
    .string()
    .max(2000)
    .describe('The name it bears now; one that was changed since is left alone'),
  name: z.string().min(1).max(2000),
})
export type ProposedRename = z.output<typeof ProposedRename>
export const RenameRequest = z.strictObject({
  names: z
    .array(ProposedRename.extend({ course: z.number().int().positive() }))
    .min(1)
    .max(10_000),
})
export const TermPut = z.strictObject({
  was: z.string().length(64).nullable().describe('Revision that was edited; null for a new term'),
  term: Term,
})
export const TermPreviewRequest = z.strictObject({ term: Term })
/** What somebody decided about a course's calendar; everything else of it is computed. */
export const CourseCalendar = z.strictObject({
  meetingDays: z
    .array(z.enum(weekdays))
    .max(7)
    .default([])
    .describe('Weekdays on which the class meets; Monday to Friday without any'),
  units: z
    .array(Unit)
    .max(60)
    .default([])
    .describe('Which weeks or days each unit covers; the template decides without any'),
  nextTerm: z
    .string()
    .max(60)
    .nullable()
    .default(null)
    .describe('Code of the term after it, for a course that spans two'),
})
export type CourseCalendar = z.output<typeof CourseCalendar>
export const PutUnder = z.strictObject({ template: Key, version: z.number().int().min(1) })

export interface ApiRoute {
  method: 'get' | 'post'
  path: string
  summary: string
  roles: Access
  body?: z.ZodType
}

/** Every route and who may call it. The server takes its guards from here, and a test walks it. */
export const apiRoutes = [
  {
    method: 'get',
    path: '/api/health',
    summary: 'Whether the server and its database answer',
    roles: 'anyone',
  },
  {
    method: 'post',
    path: '/api/sign-in',
    summary: 'Sign in with a local account',
    roles: 'anyone',
    body: SignIn,
  },
  {
    method: 'post',
    path: '/api/sign-out',
    summary: 'End the session, or all sessions of the person',
    roles: everybody,
    body: SignOut,
  },
  {
    method: 'post',
    path: '/api/password',
    summary: 'Change one’s own password; older sessions end',
    roles: everybody,
    body: ChangePassword,
  },
  {
    method: 'get',
    path: '/api/audit',
    summary:
      'Who did what, newest first: ?who=, ?what=, ?subject= narrow it, ?before= goes on from an id',
    roles: ['administrator'],
  },
  {
    method: 'get',
    path: '/api/me',
    summary: 'Who is signed in, and the demo’s today',
    roles: everybody,
  },
  { method: 'get', path: '/api/terms', summary: 'Terms', roles: everybody },
  {
    method: 'get',
    path: '/api/terms/:code',
    summary: 'A term, with the courses in it',
    roles: readers,
  },
  {
    method: 'post',
    path: '/api/terms/:code/preview',
    summary: 'What an edited term would change in its courses',
    roles: designers,
    body: TermPreviewRequest,
  },
  {
    method: 'post',
    path: '/api/terms/:code',
    summary: 'Save a term, or make a new one',
    roles: designers,
    body: TermPut,
  },
  {
    method: 'get',
    path: '/api/terms/:code/calendar',
    summary: 'A term as an iCalendar file',
    roles: everybody,
  },
  {
    method: 'post',
    path: '/api/free-days',
    summary: 'Read holidays and breaks from an iCalendar file, from one day until another',
    roles: designers,
  },
  { method: 'get', path: '/api/today', summary: 'What needs the designer now', roles: readers },
  { method: 'get', path: '/api/templates', summary: 'Templates', roles: readers },
  {
    method: 'post',
    path: '/api/templates',
    summary: 'Bring in a template document as a new draft',
    roles: designers,
  },
  { method: 'get', path: '/api/templates/:key', summary: 'A template’s draft', roles: readers },
  {
    method: 'get',
    path: '/api/templates/:key/versions/:number',
    summary: 'A released version',
    roles: readers,
  },
  {
    method: 'post',
    path: '/api/templates/:key/edits',
    summary: 'Edit the draft',
    roles: builders,
    body: DraftEdits,
  },
  {
    method: 'get',
    path: '/api/templates/:key/revision',
    summary: 'The revision of a draft, to see whether somebody else edited it',
    roles: readers,
  },
  {
    method: 'get',
    path: '/api/templates/:key/compare',
    summary: 'What differs between two versions (?from=1&to=2; draft for the draft)',
    roles: readers,
  },
  {
    method: 'post',
    path: '/api/templates/:key/take-over',
    summary:
      'Bring a newer version of the layer above into this layer’s draft; dry: only say what it brings',
    roles: builders,
    body: TakeOver,
  },
  {
    method: 'post',
    path: '/api/templates/:key/versions/:number/use',
    summary: 'Say for which departments and modalities a version is the one in use',
    roles: designers,
    body: UseVersion,
  },
  {
    method: 'post',
    path: '/api/templates/:key/versions/:number/retire',
    summary: 'Retire a version, or bring it back',
    roles: designers,
    body: RetireVersion,
  },
  {
    method: 'post',
    path: '/api/templates/:key/contributors',
    summary: 'Let somebody contribute to a template, or no longer',
    roles: designers,
    body: LetContribute,
  },
  {
    method: 'get',
    path: '/api/templates/:key/comments',
    summary: 'Comments on a template',
    roles: readers,
  },
  {
    method: 'post',
    path: '/api/templates/:key/comments',
    summary: 'Comment on a part, or answer a comment',
    roles: readers,
    body: NewComment,
  },
  {
    method: 'post',
    path: '/api/templates/:key/comments/:id/close',
    summary: 'Close a comment, or open it again',
    roles: readers,
    body: CloseComment,
  },
  {
    method: 'post',
    path: '/api/rubric-file',
    summary: 'Read a rubric from a CSV file; nothing is kept',
    roles: builders,
  },
  {
    method: 'get',
    path: '/api/library',
    summary: 'House texts, images, rubrics and blocks, with where each is used',
    roles: readers,
  },
  {
    method: 'post',
    path: '/api/library',
    summary: 'Put something into the library, or correct it',
    roles: designers,
    body: LibraryPut,
  },
  {
    method: 'post',
    path: '/api/templates/:key/release',
    summary: 'Release the draft as a version',
    roles: designers,
    body: Release,
  },
  { method: 'get', path: '/api/courses', summary: 'Courses', roles: everybody },
  {
    method: 'post',
    path: '/api/roster',
    summary: 'Import a roster file (CSV); with ?dry=1 only say what it would change',
    roles: designers,
  },
  {
    method: 'get',
    path: '/api/courses/:id',
    summary: 'A course with its snapshot and check',
    roles: everybody,
  },
  {
    method: 'get',
    path: '/api/courses/:id/facts',
    summary: 'What is known of a course besides its content',
    roles: everybody,
  },
  {
    method: 'get',
    path: '/api/courses/:id/items/:item',
    summary: 'A page of the course, sanitised',
    roles: everybody,
  },
  {
    method: 'get',
    path: '/api/courses/:id/report',
    summary: 'The check of a course as a JSON file',
    roles: everybody,
  },
  {
    method: 'get',
    path: '/api/courses/:id/calendar',
    summary: 'Weeks and due dates of a course as an iCalendar file',
    roles: everybody,
  },
  {
    method: 'post',
    path: '/api/courses/:id/calendar',
    summary: 'Decide on meeting days, units and a second term of a course',
    roles: ['designer', 'administrator', 'instructor'] as Access,
    body: CourseCalendar,
  },
  {
    method: 'post',
    path: '/api/courses/:id/version',
    summary: 'Put a course under a version for checking only',
    roles: designers,
    body: PutUnder,
  },
  { method: 'get', path: '/api/rollouts', summary: 'Rollouts', roles: readers },
  {
    method: 'post',
    path: '/api/rollouts',
    summary: 'Plan a rollout; nothing is written until its plans are approved',
    roles: designers,
    body: RolloutRequest,
  },
  {
    method: 'get',
    path: '/api/rollouts/:run/shapes',
    summary: 'The plans of a rollout, those that look alike together',
    roles: readers,
  },
  {
    method: 'get',
    path: '/api/rollouts/:run/courses/:course',
    summary: 'The plan for one course, down to the text',
    roles: readers,
  },
  {
    method: 'post',
    path: '/api/rollouts/:run/decisions',
    summary: 'Decide on conflicts, or on what is left out; what it touches is planned again',
    roles: designers,
    body: DecideRequest,
  },
  {
    method: 'post',
    path: '/api/rollouts/:run/courses/:course/rehearse',
    summary: 'Carry the plan of a course out on a copy of it',
    roles: designers,
  },
  {
    method: 'post',
    path: '/api/rollouts/:run/undo',
    summary: 'Plan to take a rollout back, for all or some courses',
    roles: designers,
    body: UndoRequest,
  },
  {
    method: 'get',
    path: '/api/rehearsals',
    summary: 'Copies of courses on which plans are rehearsed',
    roles: designers,
  },
  {
    method: 'post',
    path: '/api/rehearsals/:rehearsal/discard',
    summary: 'Throw a rehearsal away',
    roles: designers,
  },
  {
    method: 'get',
    path: '/api/standing-rules',
    summary: 'Which template is meant for which courses',
    roles: readers,
  },
  {
    method: 'post',
    path: '/api/standing-rules',
    summary: 'Add a standing rule',
    roles: designers,
    body: StandingRulePut,
  },
  {
    method: 'post',
    path: '/api/standing-rules/:rule/remove',
    summary: 'Remove a standing rule',
    roles: designers,
  },
  {
    method: 'post',
    path: '/api/courses/made',
    summary:
      'Make courses on the platform from roster rows (CSV) that name none: ?how=each or ?how=shared, ?template=KEY for their names, ?dry=1 only to say which',
    roles: designers,
  },
  {
    method: 'post',
    path: '/api/courses/values',
    summary:
      'Set topics, rooms, meeting days, units and instructors of courses from a table (CSV or pasted); ?dry=1 only to say what would change',
    roles: designers,
  },
  {
    method: 'post',
    path: '/api/courses/:id/merge',
    summary: 'Merge a course into another one; dry: only say what that means',
    roles: designers,
    body: MergeCourse,
  },
  {
    method: 'post',
    path: '/api/courses/:id/unmerge',
    summary: 'Take a merge back; dry: only say what that means',
    roles: designers,
    body: UnmergeCourse,
  },
  {
    method: 'post',
    path: '/api/next-term',
    summary: 'Make next term’s courses from this term’s and plan what comes along',
    roles: designers,
    body: NextTerm,
  },
  {
    method: 'get',
    path: '/api/messages',
    summary: 'Messages to whoever is signed in',
    roles: everybody,
  },
  {
    method: 'post',
    path: '/api/messages/:message/read',
    summary: 'Mark a message as read',
    roles: everybody,
  },
  {
    method: 'post',
    path: '/api/courses/:id/strengths',
    summary:
      'Judge a course by strengths and parameters of a newer version, without writing to the platform',
    roles: designers,
    body: AdoptStrengths,
  },
  {
    method: 'get',
    path: '/api/names',
    summary: 'The names that a part of a template bears in the courses',
    roles: designers,
  },
  {
    method: 'post',
    path: '/api/renames',
    summary:
      'Plan new names for courses, modules and items; nothing is written until the plan is approved',
    roles: designers,
    body: RenameRequest,
  },
  {
    method: 'get',
    path: '/api/runs/:run',
    summary:
      'A run with the state of each course; an instructor sees runs of their own courses only',
    roles: everybody,
  },
  {
    method: 'get',
    path: '/api/runs/:run/events',
    summary: 'Progress of a run, as server-sent events',
    roles: everybody,
  },
  {
    method: 'post',
    path: '/api/runs/:run/approve',
    summary: 'Approve a planned run, or plans that came out differently; all or some courses',
    roles: designers,
    body: ApproveRequest,
  },
  {
    method: 'post',
    path: '/api/runs/:run/pause',
    summary: 'Stop claiming further courses',
    roles: designers,
  },
  { method: 'post', path: '/api/runs/:run/resume', summary: 'Go on', roles: designers },
  {
    method: 'post',
    path: '/api/runs/:run/cancel',
    summary: 'Leave out what has not begun',
    roles: designers,
  },
  {
    method: 'post',
    path: '/api/runs/:run/retry',
    summary: 'Try failed courses again',
    roles: designers,
  },
  {
    method: 'post',
    path: '/api/checks',
    summary: 'Check courses as of a date',
    roles: designers,
    body: CheckRequest,
  },
  {
    method: 'post',
    path: '/api/courses/:id/check',
    summary: 'Check one course again',
    roles: ['designer', 'administrator', 'instructor'] as Access,
    body: CheckRequest,
  },
  {
    method: 'get',
    path: '/api/courses/:id/items/:item/difference',
    summary:
      'A page block by block: what was altered, left unfilled, left standing or is out of date',
    roles: everybody,
  },
  {
    method: 'get',
    path: '/api/courses/:id/items/:item/marked',
    summary: 'A page of the course, sanitised, with what departs from the template marked in it',
    roles: everybody,
  },
  {
    method: 'post',
    path: '/api/courses/:id/joins',
    summary: 'Join or unjoin a pair by hand, or forget that',
    roles: designers,
    body: JoinPut,
  },
  {
    method: 'post',
    path: '/api/courses/:id/waivers',
    summary: 'Ask for a waiver; a designer gives it at once',
    roles: ['designer', 'administrator', 'instructor'] as Access,
    body: WaiverRequest,
  },
  {
    method: 'post',
    path: '/api/courses/:id/waivers/:waiver',
    summary: 'Approve, refuse or withdraw a waiver',
    roles: ['designer', 'administrator', 'instructor'] as Access,
    body: WaiverDecision,
  },
  {
    method: 'post',
    path: '/api/courses/:id/attestations',
    summary: 'Give one’s word for what a snapshot cannot show, or take it back',
    roles: ['designer', 'administrator', 'instructor'] as Access,
    body: AttestationRequest,
  },
  {
    method: 'post',
    path: '/api/courses/:id/follow-ups',
    summary: 'Raise findings with their owner, promise, answer or close them',
    roles: ['designer', 'administrator', 'instructor'] as Access,
    body: FollowUpPut,
  },
  {
    method: 'post',
    path: '/api/courses/:id/not-this-week',
    summary: 'Say that a part that may go is left out on purpose',
    roles: ['designer', 'administrator', 'instructor'] as Access,
    body: NotThisWeekPut,
  },
  {
    method: 'post',
    path: '/api/courses/:id/mends',
    summary: 'Apply chosen mends to one course',
    roles: ['designer', 'administrator', 'instructor'] as Access,
    body: MendOwnRequest,
  },
  {
    method: 'post',
    path: '/api/mends',
    summary: 'Plan chosen mends in many courses; nothing is written until the plan is approved',
    roles: designers,
    body: MendRequest,
  },
  {
    method: 'get',
    path: '/api/mends',
    summary: 'What Wickerframe could mend by itself in all courses, by rule (?rule=ID for one)',
    roles: designers,
  },
  {
    method: 'get',
    path: '/api/conformance',
    summary: 'The weave over all courses as of a date',
    roles: readers,
  },
] as const satisfies readonly ApiRoute[]

export type ApiPath = (typeof apiRoutes)[number]['path']

// What the routes answer.

export interface Me {
  name: string
  email: string
  role: Role
  today: string
}
/** One thing that was done. */
export interface AuditEntry {
  id: number
  at: string
  who: string
  what: string
  subject: string
  /** As JSON, shortened; null where nothing was kept. */
  from: string | null
  to: string | null
}
export interface AuditPage {
  entries: AuditEntry[]
  /** Every kind of thing that was done so far. */
  kinds: string[]
  /** Ask with `before` for older ones; null at the end. */
  before: number | null
}
export interface VersionSummary {
  number: number
  releasedAt: string
  by: string
  note: string
  retired: boolean
  /** Departments and modalities for which it is the one in use. */
  uses: { department: string; modality: string }[]
  /** Courses judged by it. */
  courses: number
}
export interface TemplateSummary {
  key: string
  title: string
  summary: string
  appliesTo: Template['appliesTo']
  /** What it is built on, and the newest version of that. */
  above: { key: string; title: string; version: number; newest: number } | null
  /** Newest first. */
  versions: VersionSummary[]
  draftRevision: number
  changesSinceRelease: number
  courses: number
  openComments: number
  mayEdit: boolean
  mayRelease: boolean
}
export interface TemplateComment {
  id: number
  part: string | null
  answersTo: number | null
  text: string
  at: string
  by: string
  closedAt: string | null
  closedBy: string | null
}
export interface TakenOverDraft {
  revision: number
  draft: Template
  brings: TemplateChange[]
  notes: TakeOverNote[]
}
export interface LibraryEntry {
  kind: LibraryKind
  key: string
  title: string
  revision: number
  savedAt: string
  by: string
  document: LibraryPut['document']
  /** Templates whose draft holds it, and how many of them hold an older state. */
  templates: { key: string; title: string; current: boolean }[]
  /** Courses whose version holds it, and how many of them show an older wording. */
  courses: number
  coursesOutOfDate: number
}
export interface TemplateDraft extends TemplateSummary {
  draft: Template
  savedAt: string
  /** The released version the layer is built on; null for a template of its own. */
  upper: Template | null
  contributors: { name: string; email: string }[]
}
/** Another's edit stands in the way: both values. */
export interface EditClash {
  code: 'clash'
  where: string
  present: unknown
  wanted: unknown
}
export const courseStates = [
  'shell',
  'deployed',
  'other-content',
  'checked-only',
  'not-read',
] as const
export type CourseState = (typeof courseStates)[number]

export interface CourseSummary {
  id: number
  platformId: string
  code: string
  title: string
  term: string
  department: string
  modality: Facts['modality']
  weeks: number
  status: string
  classSections: string[]
  classSectionKind: 'own' | 'shared'
  instructors: { name: string; email: string }[]
  state: CourseState
  template: { key: string; title: string; version: number; newest: number } | null
  readAt: string | null
  check: { asOf: string; readiness: CheckResult['readiness']; counts: Counts } | null
}
export interface CourseDetail extends CourseSummary {
  facts: Facts
  templateDocument: Template | null
  snapshot: Course | null
  result: CheckResult | null
  history: Receipt[]
  /** The course it was merged into, and those merged into it. */
  mergedInto: { id: number; name: string } | null
  mergedHere: { id: number; name: string }[]
  /** A newer version whose strengths and parameters it is judged by, or null. */
  strengthsVersion: number | null
  care: CourseCare
}
export interface ItemPage {
  name: string
  /** Sanitised; shown only in a sandboxed frame. */
  html: string
  policy: number
}
export interface RosterReport {
  dry: boolean
  /** Of all that the preview was made from. */
  digest: string
  /** How the file was read, where that wants telling. */
  note: string
  /** What the file says otherwise than somebody decided here: it stays as decided. */
  kept: { line: number; course: string; field: string; here: string; file: string; by: string }[]
  added: number
  changed: number
  unchanged: number
  rows: number
  errors: { line: number; column: string; found: string; reason: string }[]
  /** The first two thousand; the digest is of all. */
  changes: { line: number; course: string; field: string; from: string; to: string }[]
  /** Rows whose course the platform does not have: they are left out. */
  absent: { line: number; course: string; platformId: string }[]
}
/** How far long work is that is answered line by line. */
export interface Progress {
  /** In words, such as `comparing`. */
  doing: string
  done: number
  /** 0 where it is not known yet. */
  of: number
}
export const taskStates = [
  'to-plan',
  'planned',
  'waiting',
  'at-work',
  'sent',
  'held',
  'done',
  'failed',
  'cancelled',
] as const
export type TaskState = (typeof taskStates)[number]
export interface RunTask {
  id: number
  course: number
  /** Course number on the platform. */
  platformId: string
  code: string
  title: string
  classSections: string[]
  state: TaskState
  attempts: number
  message: string
  finishedAt: string | null
  /** What a run of renames gives this course. */
  renames: ProposedRename[]
  /** What a run of mends is to mend in this course, in words. */
  mends: { message: string; changes: string[] }[]
  /** What its plan comes to, in a rollout. */
  plan: { state: PlanSummary['state']; reason: string; undecided: number } | null
}
export interface RunSummary {
  id: number
  kind: 'rollout' | 'check' | 'renames' | 'mends'
  state: 'planning' | 'planned' | 'running' | 'paused' | 'done' | 'cancelled'
  title: string
  by: string
  createdAt: string
  finishedAt: string | null
  counts: Record<TaskState, number>
  asOf: string | null
}
export interface RunDetail extends RunSummary {
  /** What a rollout was asked to do; null for other runs. */
  order: RolloutOrder | null
  rule: 'keep' | 'take' | null
  standing: boolean
  tasks: RunTask[]
  /** Courses a second over the last stretch, and seconds left at that speed; null before there is a speed. */
  perSecond: number | null
  secondsLeft: number | null
}
export interface TermDetail {
  term: Term
  /** Of what stands stored; an edit names the one it was made from. */
  revision: string
  courses: { id: number; code: string; title: string; weeks: number; session: string | null }[]
}
/** What an edited term changes in courses of the same template, length and session: told of one of them. */
export interface TermChange {
  courses: { id: number; code: string; title: string }[]
  /** Of how many weeks before and after; null where they cannot be worked out. */
  weeks: { before: number; after: number | null }
  names: { from: string; to: string }[]
  dates: { name: string; what: 'due' | 'opens'; from: string | null; to: string | null }[]
  /** Further changes of the same kinds that are not listed. */
  more: number
  /** Why the edited term does not fit these courses, or null. */
  problem: string | null
}
export interface TermPreview {
  /** Of what the preview was made from: saving with `?shown=` is refused once that changed. */
  digest: string
  courses: number
  unchanged: number
  changes: TermChange[]
}
export interface NameInUse {
  course: number
  code: string
  title: string
  what: ProposedRename['what']
  id: string
  name: string
  values: FieldValues
  classSections: string[]
  near: string
}
export interface NamesInUse {
  names: NameInUse[]
  /** Courses that were not looked at, as there are too many. */
  leftOut: number
}
export interface ConformanceRow {
  course: CourseSummary
  crossings: Crossing[]
}
export interface Conformance {
  asOf: string
  columns: WeaveColumn[]
  rows: ConformanceRow[]
  /** Courses not judged as of this date yet. */
  unchecked: number
  mendFirst: MendAction[]
  totals: {
    courses: number
    ready: number
    openMusts: number
    openShoulds: number
    cannotTell: number
  }
}
export interface TodayView {
  today: string
  term: Term
  week: number | null
  weeks: number
  notReady: { course: CourseSummary; first: string }[]
  notBegun: CourseSummary[]
  noTemplate: CourseSummary[]
  duplicates: { classSection: string; courses: CourseSummary[] }[]
  failedRollouts: RunSummary[]
  mendFirst: MendAction[]
  comingDue: { course: CourseSummary; count: number; first: string }[]
  checkedAsOf: string | null
}
/** RFC 9457, with what the reader of a document found. */
export interface ApiProblem {
  type: string
  title: string
  status: number
  detail: string
  problems?: Problem[]
  clash?: EditClash
  /** Which of the edits that were sent was refused, from 0. */
  edit?: number
  remarks?: Remark[]
}
