import { z } from 'zod'
import { JsonValue } from '../document/index.ts'
import { ContentId, ShownFile } from '../files/index.ts'
import { CourseQuestion, mostQuestions } from './courseQuestion.ts'
import { CourseSettings, GradeScheme, ItemKind, Rubric, WorkSettings } from '../template/index.ts'

const Instant = z.iso.datetime({ offset: true })
const Id = z.string().min(1).max(100)

export const RecordedAs = z
  .strictObject({
    part: z.string().max(80),
    repetition: z
      .string()
      .max(80)
      .nullable()
      .default(null)
      .describe('Id minted when it was first deployed'),
    number: z
      .number()
      .int()
      .nullable()
      .default(null)
      .describe(
        'Number of that repetition when it was last deployed: an attribute, not its identity',
      ),
  })
  .describe('Which part of the template a deployment made this from')
export type RecordedAs = z.output<typeof RecordedAs>

const published = z
  .boolean()
  .default(true)
  .describe('false: hidden from students for now, as an instructor hides and shows things')
const staffOnly = z
  .boolean()
  .default(false)
  .describe('true: never for students, whether it is published or not')
const carried = z
  .record(z.string().max(200), JsonValue)
  .optional()
  .describe(
    'What the platform holds of it that has no field here; Wickerframe carries it along and never looks into it',
  )

export const CourseItem = z.strictObject({
  id: Id,
  kind: ItemKind,
  name: z.string().max(2000),
  published,
  staffOnly,
  opensAt: Instant.nullable().default(null),
  dueAt: Instant.nullable().default(null),
  closesAt: Instant.nullable().default(null),
  points: z.number().nullable().default(null),
  category: z.string().max(200).nullable().default(null),
  html: z
    .string()
    .nullable()
    .default(null)
    .describe(
      'As the platform holds it; never run. null: it has none, or the platform does not tell it; a page without words is an empty text',
    ),
  url: z
    .string()
    .max(2000)
    .nullable()
    .default(null)
    .describe('Its address on the platform, as links in pages write it'),
  target: z
    .string()
    .max(2000)
    .nullable()
    .default(null)
    .describe('Where a web link or tool link leads'),
  work: WorkSettings.optional().describe('How work is handed in and judged, as far as it is set'),
  rubric: Rubric.optional(),
  questions: z
    .array(CourseQuestion)
    .max(mostQuestions)
    .optional()
    .describe('Of an assessment, in order; absent where the platform does not tell them'),
  file: ShownFile.nullable()
    .optional()
    .describe('Of the kind file; null: it shows none; absent where the platform does not tell it'),
  studentWork: z.boolean().default(false),
  carried,
  recordedAs: RecordedAs.optional(),
})
export type CourseItem = z.output<typeof CourseItem>

const moduleShape = {
  id: Id,
  kind: z.literal('module'),
  name: z.string().max(2000),
  published,
  staffOnly,
  opensAt: Instant.nullable().default(null),
  url: z
    .string()
    .max(2000)
    .optional()
    .describe('Address at which the platform shows the module, as links in pages have it'),
  carried,
  recordedAs: RecordedAs.optional(),
}
const BareModule = z.strictObject(moduleShape)
export type CourseModule = z.output<typeof BareModule> & { children: CourseChild[] }
/** What stands in a module: an item, or a module inside it. */
export type CourseChild = CourseItem | CourseModule
export const CourseChild: z.ZodType<CourseChild> = z.lazy(() =>
  z.discriminatedUnion('kind', [CourseItem, CourseModule]),
)
export const CourseModule = z.strictObject({
  ...moduleShape,
  children: z
    .array(CourseChild)
    .max(2000)
    .default([])
    .describe('Items and inner modules, in the order in which students meet them'),
})

/** A file uploaded to a course, whether a module shows it or not. */
export const CourseFile = z.strictObject({
  id: Id,
  name: z.string().max(500),
  url: z.string().max(2000),
  restricted: z
    .boolean()
    .default(false)
    .describe('Flagged as about a student, or kept from students otherwise'),
  content: ContentId.optional().describe('What it holds, where the platform tells it'),
  words: z
    .string()
    .optional()
    .describe('Its text as it was read here, a line for each paragraph; never told by a platform'),
})
export type CourseFile = z.output<typeof CourseFile>

/** A course on the learning platform, as read at a moment. */
export const Course = z.strictObject({
  schema: z.literal('wickerframe.course/2'),
  id: Id,
  name: z.string().max(2000),
  label: z.string().max(300).default(''),
  status: z.enum(['preparing', 'teaching', 'merged', 'set-aside', 'cancelled']).default('teaching'),
  published: z.boolean().default(false),
  revision: z.string().max(100).default('1'),
  readAt: Instant.describe('When it was read; its age is always shown'),
  timeZone: z.string().max(60).nullable().default(null),
  opensAt: Instant.nullable()
    .default(null)
    .describe('From when students reach the course; null: as soon as it is published'),
  closesAt: Instant.nullable()
    .default(null)
    .describe('Until when students reach it; null: without end'),
  homePage: Id.nullable().default(null).describe('Id of the item shown first'),
  navigation: z
    .array(
      z.strictObject({
        label: z.string().max(300),
        hidden: z.boolean().default(false),
        to: z
          .string()
          .max(2000)
          .optional()
          .describe(
            'Where it leads: item:ID, place:NAME (see the template), or an address; absent where the platform does not tell',
          ),
      }),
    )
    .default([]),
  settings: CourseSettings.optional(),
  grading: GradeScheme.optional(),
  classSections: z
    .array(z.string().max(40))
    .max(200)
    .optional()
    .describe('Class sections enrolled on the platform, where it tells them'),
  instructors: z
    .array(z.string().max(200))
    .max(200)
    .optional()
    .describe('E-mail addresses of those who teach it on the platform, where it tells them'),
  files: z
    .array(CourseFile)
    .max(10_000)
    .optional()
    .describe('What was uploaded, where the platform tells it'),
  modules: z.array(CourseModule).max(400).default([]),
  stray: z
    .array(CourseItem)
    .max(5000)
    .default([])
    .describe(
      'Items outside every module, the home page among them where the platform keeps it so',
    ),
})
export type Course = z.output<typeof Course>

export const isCourseModule = (child: CourseChild): child is CourseModule => child.kind === 'module'

/** The items that stand in a module itself, not in a module inside it, in order. */
export const itemsIn = (module: CourseModule): CourseItem[] =>
  module.children.filter((child) => child.kind !== 'module')

/** The modules that stand in a module itself, in order. */
export const modulesIn = (module: CourseModule): CourseModule[] =>
  module.children.filter(isCourseModule)

/** Every module of a course, outer before inner, in order. */
export const everyModule = (modules: readonly CourseModule[]): CourseModule[] =>
  modules.flatMap((module) => [module, ...everyModule(modulesIn(module))])

/** An item and the module it stands in; null outside every module. */
export interface PlacedItem {
  item: CourseItem
  module: CourseModule | null
  /** Place from 0 among everything that stands in the same module, or outside every module. */
  index: number
}

/** Every item below a module, in the order in which students meet them. */
const everyItemBelow = (module: CourseModule): PlacedItem[] =>
  module.children.flatMap((child, index) =>
    isCourseModule(child) ? everyItemBelow(child) : [{ item: child, module, index }],
  )

/** Every item of a course with its place, in the order in which students meet them; stray items last. */
export const everyCourseItem = (course: Course): PlacedItem[] => [
  ...course.modules.flatMap(everyItemBelow),
  ...course.stray.map((item, index) => ({ item, module: null, index })),
]

/** A course with every item, and every module where that is wanted, made anew; what stands where stays as it is. */
export const mapCourse = (
  course: Course,
  item: (item: CourseItem) => CourseItem,
  module: (module: CourseModule) => CourseModule = (same) => same,
): Course => {
  const mapped = (of: CourseModule): CourseModule => ({
    ...module(of),
    children: of.children.map((child) => (isCourseModule(child) ? mapped(child) : item(child))),
  })
  return { ...course, modules: course.modules.map(mapped), stray: course.stray.map(item) }
}

/** Whether students are to see something, dates and what it stands in aside. */
export const isShown = (of: { published: boolean; staffOnly: boolean }): boolean =>
  of.published && !of.staffOnly

/** Whether nothing has been put into a course yet. */
export const isShell = (course: Course): boolean =>
  course.modules.length === 0 && course.stray.length === 0
