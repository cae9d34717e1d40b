import { z } from 'zod'
import { addDays, PlainDate } from '../calendar/index.ts'

/** How many modules, items and settings people added, changed or removed in a course on a day, as far as it was read. */
export const EditDay = z.strictObject({ day: PlainDate, edits: z.number() })
export type EditDay = z.output<typeof EditDay>

/** The same over many courses, and in how many of them. */
export const EditsOfDay = EditDay.extend({ courses: z.number() })
export type EditsOfDay = z.output<typeof EditsOfDay>

/**
 * What people edited over many courses on each day of a stretch, days with nothing included, in their order.
 * @param courses the days of each course on which it was edited
 * @param from the first day, included
 * @param until the last day, included
 */
export const editsByDay = (
  courses: Iterable<readonly EditDay[]>,
  from: string,
  until: string,
): EditsOfDay[] => {
  const days = new Map<string, EditsOfDay>()
  for (let day = from; day <= until; day = addDays(day, 1))
    days.set(day, { day, edits: 0, courses: 0 })
  for (const of of courses)
    for (const { day, edits } of of) {
      const there = days.get(day)
      if (!there) continue
      there.edits += edits
      there.courses += 1
    }
  return [...days.values()]
}
