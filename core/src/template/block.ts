import { z } from 'zod'
import { Line, Address } from '../document/index.ts'
import { Basis, Format, Html, Key, Strength } from './words.ts'

/** What a home page must show; a block says which of them it is. */
export const homeElements = [
  'banner',
  'course-title',
  'welcome',
  'instructor-contact',
  'office-hours',
  'where-to-begin',
  'signposts',
  'help',
] as const
export const HomeElement = z.enum(homeElements)
export type HomeElement = z.output<typeof HomeElement>

export const fillInTypes = [
  'text',
  'rich-text',
  'image',
  'file',
  'video',
  'date',
  'e-mail',
  'link',
  'list',
  'table',
] as const

const shared = {
  key: Key,
  strength: Strength.default('must'),
  basis: Basis.optional(),
  element: HomeElement.optional(),
}
const label = Line(200, 0)
/** One line of plain text in which fields may stand, e.g. {topic}. */
const line = Line(500)

export const FixedText = z.strictObject({ ...shared, kind: z.literal('fixed-text'), html: Html })
export const FillIn = z.strictObject({
  ...shared,
  kind: z.literal('fill-in'),
  label: label.optional(),
  type: z.enum(fillInTypes).default('text'),
  prompt: z.string().min(1).max(1000),
  hint: z.string().max(1000).optional(),
  scope: z.enum(['place', 'course']).default('place'),
  minWords: z.number().int().min(1).max(5000).optional(),
  maxWords: z.number().int().min(1).max(5000).optional(),
  answer: Html.optional().describe('What a layer answered in place of the instructor'),
  earlierPrompts: z
    .array(z.string().max(1000))
    .default([])
    .describe('Prompts of earlier versions; they still count as unfilled'),
})
export const GuidanceNote = z.strictObject({
  ...shared,
  kind: z.literal('guidance-note'),
  html: Html,
})
export const HouseTextBlock = z.strictObject({
  ...shared,
  kind: z.literal('house-text'),
  houseText: Key,
  mode: z.enum(['copied', 'linked']).default('copied'),
})
export const Title = z.strictObject({ ...shared, kind: z.literal('title'), text: Format })
export const Banner = z.strictObject({ ...shared, kind: z.literal('banner'), image: Key })
export const Signposts = z.strictObject({
  ...shared,
  kind: z.literal('signposts'),
  label: label.optional(),
  links: z
    .array(z.strictObject({ text: Line(200), to: Key.describe('Key of the part it leads to') }))
    .min(1)
    .max(30),
})
export const WorkList = z.strictObject({
  ...shared,
  kind: z.literal('work-list'),
  label: label.default('To do'),
})

/** What a student can do after it, and which wider outcomes it serves. */
export const Objective = z.strictObject({
  key: Key,
  text: line,
  serves: z
    .array(Key)
    .max(30)
    .default([])
    .describe('Keys of the module objectives or course outcomes it serves'),
})
export type Objective = z.output<typeof Objective>

export const Objectives = z.strictObject({
  ...shared,
  kind: z.literal('objectives'),
  label: label.default('By the end you can'),
  objectives: z.array(Objective).min(1).max(30),
})
export const KeyDates = z.strictObject({
  ...shared,
  kind: z.literal('key-dates'),
  label: label.default('Key dates'),
  of: z
    .enum(['module', 'term'])
    .default('module')
    .describe(
      'module: what is due in its module; term: opening day, breaks, holidays, other dates, last day',
    ),
})
export const Schedule = z.strictObject({
  ...shared,
  kind: z.literal('schedule'),
  label: label.default('Schedule'),
})
export const ContactCard = z.strictObject({
  ...shared,
  kind: z.literal('contact-card'),
  label: label.default('Your instructor'),
})
export const Checklist = z.strictObject({
  ...shared,
  kind: z.literal('checklist'),
  label: label.default('Before you go on'),
  lines: z.array(line).min(1).max(40),
})
export const Video = z.strictObject({
  ...shared,
  kind: z.literal('video'),
  title: line,
  url: Address,
  minutes: z.number().min(0).max(600).optional(),
  captions: z.boolean().default(false),
  transcript: Address.optional().describe('Address of the transcript'),
})
export const Reading = z.strictObject({
  ...shared,
  kind: z.literal('reading'),
  label: label.default('Reading'),
  works: z
    .array(
      z.strictObject({
        text: line,
        url: Address.optional(),
        minutes: z.number().min(0).max(6000).optional(),
      }),
    )
    .min(1)
    .max(60),
})
export const AssignmentBrief = z.strictObject({
  ...shared,
  kind: z.literal('assignment-brief'),
  why: Html.default(''),
  whatToDo: Html,
  handIn: Html.default('').describe('What is handed in, and in which form'),
  judged: Html.default('').describe('How it is judged'),
})
export const DiscussionPrompt = z.strictObject({
  ...shared,
  kind: z.literal('discussion-prompt'),
  question: Html,
  firstBy: line.optional(),
  answers: z.number().int().min(0).max(20).default(0).describe('How many classmates to answer'),
  answersBy: line.optional(),
})
export const TakeCare = z.strictObject({ ...shared, kind: z.literal('take-care'), html: Html })
export const InShort = z.strictObject({ ...shared, kind: z.literal('in-short'), html: Html })
export const Table = z
  .strictObject({
    ...shared,
    kind: z.literal('table'),
    caption: label,
    header: z.array(Line(300, 0)).min(1).max(12),
    rows: z
      .array(z.array(z.string().max(2000)).max(12))
      .max(200)
      .default([]),
  })
  .refine((table) => table.rows.every((row) => row.length === table.header.length), {
    message: 'as many cells in every row as there are headers',
    path: ['rows'],
  })

/** The kinds of block that can be kept and used in several places. */
export const KeptBlockBody = z.discriminatedUnion('kind', [
  FixedText,
  FillIn,
  GuidanceNote,
  HouseTextBlock,
  Title,
  Banner,
  Signposts,
  WorkList,
  Objectives,
  KeyDates,
  Schedule,
  ContactCard,
  Checklist,
  Video,
  Reading,
  AssignmentBrief,
  DiscussionPrompt,
  TakeCare,
  InShort,
  Table,
])
export type KeptBlockBody = z.output<typeof KeptBlockBody>

/** A place where a kept block is shown: a correction of the kept one reaches all of them. */
export const KeptBlockPlace = z.strictObject({
  ...shared,
  kind: z.literal('kept-block'),
  kept: Key.describe('Key of the kept block'),
})

export const Block = z.discriminatedUnion('kind', [...KeptBlockBody.options, KeptBlockPlace])
export type Block = z.output<typeof Block>

/** A block kept under a name, to be put in elsewhere. */
export const KeptBlock = z.strictObject({ key: Key, title: Line(200), block: KeptBlockBody })
export type KeptBlock = z.output<typeof KeptBlock>

/** A block as it stands on its page: a place that shows a kept block becomes that block, under the place's key. */
export const blockInPlace = (block: Block, kept: readonly KeptBlock[]): KeptBlockBody | null => {
  if (block.kind !== 'kept-block') return block
  const one = kept.find((candidate) => candidate.key === block.kept)
  return one
    ? {
        ...one.block,
        key: block.key,
        strength: block.strength,
        ...(block.element ? { element: block.element } : {}),
        ...(block.basis ? { basis: block.basis } : {}),
      }
    : null
}

export const blockKinds = Block.options.map((option) => option.shape.kind.value)

const fixedKinds: ReadonlySet<string> = new Set([
  'fixed-text',
  'objectives',
  'checklist',
  'video',
  'reading',
  'assignment-brief',
  'discussion-prompt',
  'take-care',
  'in-short',
  'table',
])
/** Whether a block's wording is the template's own and must stand as written; what is made from the course changes with it. */
export const isFixedText = (block: { kind: string }): boolean => fixedKinds.has(block.kind)
