import { z } from 'zod'
import { addDays } from './plainDate.ts'
import { instantOf } from './instant.ts'
import type { Week } from './weeks.ts'

/** How long students reach a course around its weeks. The last day of class and the last day of access differ. */
export const Availability = z.strictObject({
  opensDaysBefore: z
    .number()
    .int()
    .min(0)
    .max(366)
    .default(0)
    .describe('Days before the first day of week 1'),
  closesDaysAfter: z
    .number()
    .int()
    .min(0)
    .max(1000)
    .default(21)
    .describe('Days after the last day of class'),
})
export type Availability = z.output<typeof Availability>

/**
 * The instants (ISO 8601, UTC) at which a course opens to students and closes again: from the start of its first day on,
 * until the end of its last.
 * @param weeks the course's instructional weeks; a preparatory week 0 does not open it
 * @returns null when there is no week
 */
export const availabilityWindow = (
  weeks: readonly Week[],
  timeZone: string,
  { opensDaysBefore, closesDaysAfter }: Availability,
): { opensAt: string; closesAt: string } | null => {
  const first = weeks.find((week) => week.number > 0)
  const last = weeks.at(-1)
  if (!first || !last) return null
  return {
    opensAt: instantOf(addDays(first.first, -opensDaysBefore), '00:00', timeZone),
    closesAt: instantOf(addDays(last.last, closesDaysAfter), '23:59', timeZone),
  }
}
