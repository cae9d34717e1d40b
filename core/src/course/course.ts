import { z } from 'zod'
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

export const CourseItem = z.strictObject({
  id: Id,
  kind: ItemKind,
  name: z.string().max(2000),
  published: z.boolean().default(true),
  opensAt: Instant.nullable().default(null),
  dueAt: Instant.nullable().default(null),
  closesAt: Instant.nullable().default(null),
  points: z.number().nullable().default(null),
  category: z.string().max(200).nullable().default(null),
  html: z.string().nullable().default(null).describe('As the platform holds it; never run'),
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
  studentWork: z.boolean().default(false),
  recordedAs: RecordedAs.optional(),
})
export type CourseItem = z.output<typeof CourseItem>

export const CourseModule = z.strictObject({
  id: Id,
  name: z.string().max(2000),
  published: z.boolean().default(true),
  opensAt: Instant.nullable().default(null),
  items: z.array(CourseItem).max(2000).default([]),
  url: z
    .string()
    .max(2000)
    .optional()
    .describe('Address at which the platform shows the module, as links in pages have it'),
  recordedAs: RecordedAs.optional(),
  get modules(): z.ZodDefault<z.ZodArray<typeof CourseModule>> {
    return z.array(CourseModule).max(400).default([])
  },
})
export type CourseModule = z.output<typeof CourseModule>

/** A file uploaded to a course, whether a module shows it or not. */
export const CourseFile = z.strictObject({
  id: Id,
  name: z.string().max(500),
  url: z.string().max(2000),
  restricted: z
    .boolean()
    .default(false)
    .describe('Flagged as about a student, or kept from students otherwise'),
})
export type CourseFile = z.output<typeof CourseFile>

/** A course on the learning platform, as read at a moment. */
export const Course = z.strictObject({
  schema: z.literal('wickerframe.course/1'),
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
    .array(z.strictObject({ label: z.string().max(300), hidden: z.boolean().default(false) }))
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

/** Every module of a course, outer before inner, in order. */
export const everyModule = (modules: readonly CourseModule[]): CourseModule[] =>
  modules.flatMap((module) => [module, ...everyModule(module.modules)])

/** An item and the module it stands in; null outside every module. */
export interface PlacedItem {
  item: CourseItem
  module: CourseModule | null
  /** Place among the items of its module, from 0. */
  index: number
}

/** Every item of a course with its place, modules in order, stray items last. */
export const everyCourseItem = (course: Course): PlacedItem[] => [
  ...everyModule(course.modules).flatMap((module) =>
    module.items.map((item, index) => ({ item, module, index })),
  ),
  ...course.stray.map((item, index) => ({ item, module: null, index })),
]

/** Whether nothing has been put into a course yet. */
export const isShell = (course: Course): boolean =>
  course.modules.length === 0 && course.stray.length === 0
