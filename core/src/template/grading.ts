import { Line } from '../document/index.ts'
import { z } from 'zod'
import { Key } from './words.ts'

/** How scores make a grade. */
export const GradeScheme = z.strictObject({
  weighted: z.boolean().default(true).describe('Whether categories carry weights that come to 100'),
  shown: z
    .enum(['rolled-up', 'item-by-item'])
    .default('rolled-up')
    .describe('Scores rolled up by category, or item by item'),
  categories: z
    .array(
      z.strictObject({
        key: Key,
        name: Line(100),
        weight: z.number().min(0).max(100).default(0),
        counts: z.boolean().default(true).describe('false: practice, outside the grade'),
      }),
    )
    .max(40)
    .default([]),
})
export type GradeScheme = z.output<typeof GradeScheme>

/** Weights of what counts, added up. */
export const weightsTotal = (scheme: GradeScheme): number =>
  Math.round(
    scheme.categories
      .filter((category) => category.counts)
      .reduce((sum, { weight }) => sum + weight, 0) * 100,
  ) / 100

const Level = z.strictObject({ text: z.string().max(1000), points: z.number().min(0).max(10_000) })
/** By what work is judged. Levels stand from best to least. */
export const Rubric = z.strictObject({
  key: Key,
  title: Line(200),
  criteria: z
    .array(z.strictObject({ text: Line(500), levels: z.array(Level).min(1).max(10) }))
    .min(1)
    .max(30),
})
export type Rubric = z.output<typeof Rubric>

/** Points of a rubric: the best level of every criterion, added up. */
export const rubricPoints = (rubric: Rubric): number =>
  rubric.criteria.reduce(
    (sum, { levels }) => sum + Math.max(...levels.map((level) => level.points)),
    0,
  )

/** What a course is set to as a whole; what is left out is the course's own affair. */
export const CourseSettings = z.strictObject({
  language: z
    .string()
    .regex(
      /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/,
      'a language tag as BCP 47 has them, e.g. en or fr-CA',
    )
    .optional(),
  gradesShown: z.boolean().optional().describe('Whether students see their running grade'),
  joinByKey: z.boolean().optional().describe('Whether anybody with the course’s key may join'),
  completionTracked: z.boolean().optional(),
  notices: z.boolean().optional().describe('Whether announcements also go out by e-mail'),
  seenBy: z
    .enum(['enrolled', 'institution', 'anybody'])
    .optional()
    .describe('Who may see the course: who is enrolled, everybody at the institution, or anybody'),
  arranged: z
    .enum(['by-topic', 'by-date'])
    .optional()
    .describe('Whether students find its contents by topic or by date'),
  picture: z
    .string()
    .min(1)
    .max(200)
    .optional()
    .describe(
      'The picture by which it is known: in a template the key of an image, in a course the image by its name there',
    ),
})
export type CourseSettings = z.output<typeof CourseSettings>
