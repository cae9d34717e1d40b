import { z } from 'zod'
import { Line, Address } from '../document/index.ts'
import { Offset } from '../calendar/index.ts'
import { Block, Objective } from './block.ts'
import { ItemFile } from './file.ts'
import { QuestionSet } from './question.ts'
import { Audience, Basis, Format, ItemKind, Key, Strength } from './words.ts'

export const When = z
  .strictObject({
    modalities: z.array(z.string().max(40)).optional(),
    departments: z.array(z.string().max(40)).optional(),
    weeks: z
      .strictObject({ from: z.number().int().min(1), to: z.number().int().min(1) })
      .optional(),
    classSections: z.enum(['own', 'shared']).optional(),
  })
  .describe('The part applies only to courses for which all of this holds')
export type When = z.output<typeof When>

const weekNumber = z.number().int().min(0).max(60)

export const Repeat = z
  .strictObject({
    per: z.enum(['week', 'unit', 'day', 'half', 'times']),
    times: z.number().int().min(1).max(60).optional().describe('How often, for per: times'),
    from: weekNumber.optional(),
    to: weekNumber.optional(),
    every: z.number().int().min(1).max(20).default(1).describe('2 with from 2: the even weeks'),
    except: z.array(weekNumber).default([]),
  })
  .refine((repeat) => repeat.per !== 'times' || repeat.times !== undefined, {
    message: 'times, when per is times',
    path: ['times'],
  })
export type Repeat = z.output<typeof Repeat>

export const Grouping = z
  .strictObject({
    min: z.number().int().min(1).max(60),
    max: z.number().int().min(1).max(60),
    name: Format.describe('Naming format of a unit, e.g. Unit {unit} · {dates}'),
  })
  .describe(
    'Longer units accepted in place of the weekly modules; which weeks each covers is read from the course',
  )

export const May = z
  .strictObject({
    rename: z.boolean().optional(),
    edit: z.boolean().optional(),
    remove: z.boolean().optional(),
    duplicate: z.boolean().optional(),
    move: z.boolean().optional(),
  })
  .describe('What an instructor may do with the part')
export type May = z.output<typeof May>

/** How work is handed in and judged; what is left out is the instructor's affair. */
const workFields = {
  attempts: z.number().int().min(1).max(100).optional(),
  minutes: z
    .number()
    .int()
    .min(1)
    .max(6000)
    .optional()
    .describe('Time limit; of an event, how long it lasts'),
  where: Line(200, 0).optional().describe('Where an event is held'),
  graceMinutes: z.number().int().min(0).max(600).optional(),
  notification: z.boolean().optional().describe('Whether students are told of new posts'),
  postFirst: z
    .boolean()
    .optional()
    .describe('Whether students see others’ posts only after their own'),
  handIn: z
    .enum(['file', 'text', 'link', 'recording', 'on-paper', 'none'])
    .optional()
    .describe('What is handed in'),
  practice: z.boolean().optional().describe('true: outside the grade'),
  shuffled: z
    .boolean()
    .optional()
    .describe('Whether every student finds the questions in an order of their own'),
  answersShown: z
    .enum(['at-once', 'after-closing', 'never'])
    .optional()
    .describe('When students are shown which answers are right'),
}

export const WorkSettings = z.strictObject(workFields)
export type WorkSettings = z.output<typeof WorkSettings>

/** Whether an assessment is taken on the platform: it has a time limit, attempts, or answers that are shown. */
export const isTakenHere = (work: WorkSettings | undefined): boolean =>
  work !== undefined &&
  (work.handIn === undefined || work.handIn === 'text') &&
  [work.minutes, work.attempts, work.shuffled, work.answersShown].some(
    (value) => value !== undefined,
  )

export const Settings = z.strictObject({
  published: z.boolean().optional(),
  points: z.number().min(0).max(10_000).optional(),
  category: Line(100, 0).optional(),
  opens: Offset.optional(),
  due: Offset.optional(),
  closes: Offset.optional(),
  rubric: Key.optional().describe('Key of the rubric by which it is judged'),
  ...workFields,
})
export type Settings = z.output<typeof Settings>

/** Which repetition of a module is made different. */
export const Anchor = z
  .discriminatedUnion('at', [
    z.strictObject({ at: z.enum(['first', 'last', 'last-of-unit', 'pause']) }),
    z.strictObject({ at: z.literal('number'), number: weekNumber }),
  ])
  .describe('pause: a week that lies wholly in a break')
export type Anchor = z.output<typeof Anchor>

const overlay = { name: Format.optional(), strength: Strength.optional() }
const exceptionShape = {
  key: Key,
  anchor: Anchor,
  omit: z.boolean().default(false).describe('true: this repetition does not exist at all'),
  ...overlay,
  leaveOut: z
    .union([z.literal('all'), z.array(Key).max(400)])
    .default([])
    .describe('Keys of parts of the module that this repetition goes without'),
  set: z
    .array(z.strictObject({ part: Key, ...overlay, settings: Settings.optional() }))
    .max(400)
    .default([])
    .describe('Single fields of parts of the module that are different here'),
}

const shared = {
  key: Key,
  strength: Strength.default('must'),
  basis: Basis.optional(),
  audience: Audience.default('students'),
  name: Format,
  position: z.enum(['in-order', 'first', 'last', 'anywhere', 'newest-first']).default('in-order'),
  span: z
    .enum(['module', 'course'])
    .default('module')
    .describe('course: a resource for the whole term, outside the weeks'),
  when: When.optional(),
  repeat: Repeat.optional(),
  may: May.default({}),
  settings: Settings.default({}),
}

export const Item = z.strictObject({
  ...shared,
  kind: ItemKind,
  blocks: z.array(Block).max(200).default([]),
  questions: QuestionSet.optional().describe('Of an assessment'),
  file: ItemFile.optional().describe('Of the kind file'),
  url: Address.optional(),
  acceptsInstead: z
    .array(z.union([ItemKind, Key]))
    .default([])
    .describe('Other kinds, or keys of other parts, that do its job'),
  inGroup: z
    .enum(['per-unit', 'per-week'])
    .default('per-unit')
    .describe('How often it is wanted where units stand in place of weeks'),
  assesses: z
    .array(Key)
    .max(60)
    .default([])
    .describe('Keys of the outcomes and objectives it assesses'),
})
export type Item = z.output<typeof Item>

const moduleShape = {
  ...shared,
  kind: z.literal('module'),
  groupings: Grouping.optional(),
  objectives: z.array(Objective).max(30).default([]),
}
const BareModule = z.strictObject(moduleShape)
const BareException = z.strictObject(exceptionShape)
/** How one repetition of a module differs from the others: single fields laid over it, and parts of its own. */
export type Exception = z.output<typeof BareException> & { add: Part[] }
export type Module = z.output<typeof BareModule> & { items: Part[]; exceptions: Exception[] }
export type Part = Module | Item
export const Part: z.ZodType<Part> = z.lazy(() => z.discriminatedUnion('kind', [Module, Item]))
export const Exception = z.strictObject({
  ...exceptionShape,
  add: z.array(Part).max(100).default([]).describe('Parts that only this repetition has'),
})
export const Module = z.strictObject({
  ...moduleShape,
  items: z.array(Part).max(400).default([]),
  exceptions: z.array(Exception).max(60).default([]),
})

export const isModule = (part: Part): part is Module => part.kind === 'module'
