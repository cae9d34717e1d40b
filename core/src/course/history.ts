import { z } from 'zod'
import { PlainDate } from '../calendar/index.ts'

/** What is known of a course besides what stands in it: an explicit input of a check, never looked up by a rule. */
export const CourseHistory = z.strictObject({
  checkOnly: z
    .boolean()
    .default(false)
    .describe('Whether it stands under its template for checking only'),
  deployedOn: PlainDate.nullable()
    .default(null)
    .describe('Day of the last deployment, in the term’s time zone'),
  deployedVersion: z.number().int().min(1).nullable().default(null),
  newestVersion: z
    .number()
    .int()
    .min(1)
    .nullable()
    .default(null)
    .describe('Newest released version of its template'),
  recordedParts: z
    .number()
    .int()
    .min(0)
    .default(0)
    .describe('How many modules and items the deployments recorded as made'),
  preparing: z
    .string()
    .max(2000)
    .nullable()
    .default(null)
    .describe('Name of the course in which its instructor prepares it'),
  sameClassSection: z
    .array(z.strictObject({ name: z.string(), classSection: z.string() }))
    .default([])
    .describe('Other teaching courses for one of its class sections'),
  readDaysAgo: z
    .number()
    .int()
    .min(0)
    .nullable()
    .default(null)
    .describe('Age of the snapshot in days'),
})
export type CourseHistory = z.output<typeof CourseHistory>
