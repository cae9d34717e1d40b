import { z } from 'zod'
import { foldedName } from '../naming/index.ts'
import { everyCourseItem, type Course } from './course.ts'

/** Which names of a course meet those of others: its own name and label in lists, its dated items in students' calendars. */
export const cohortNameKinds = ['course-name', 'label', 'calendar-name'] as const
export type CohortNameKind = (typeof cohortNameKinds)[number]

/** A name of this course that other courses of its term carry as well. */
export const CohortClash = z.strictObject({
  kind: z.enum(cohortNameKinds),
  name: z.string(),
  others: z.array(z.string()).min(1).describe('Courses that carry it, in words'),
  sharesInstructor: z
    .boolean()
    .describe('Whether somebody teaches this course and one of them, and so sees both in one list'),
})
export type CohortClash = z.output<typeof CohortClash>

/** The names of a course that meet those of other courses, with the folded form by which they are compared. */
export const cohortNames = (
  course: Course,
): { kind: CohortNameKind; name: string; folded: string }[] => {
  const named = (kind: CohortNameKind, name: string) =>
    name.trim() === '' ? [] : [{ kind, name, folded: foldedName(name) }]
  const dated = new Map(
    everyCourseItem(course)
      .flatMap(({ item }) => (item.dueAt === null ? [] : named('calendar-name', item.name)))
      .map((name) => [name.folded, name]),
  )
  return [...named('course-name', course.name), ...named('label', course.label), ...dated.values()]
}
