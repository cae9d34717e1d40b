import { addDays } from '../calendar/index.ts'
import type { ExpectedCourse, ExpectedPart } from './expected.ts'

/** First day of the term's weeks: everything outside the weeks is needed by then. */
export const openingDayOf = ({ weeks, facts }: ExpectedCourse): string =>
  weeks[0]?.first ?? facts.term.firstDay

/** The day by which a part is needed: its week's first day less the lead of the template, or opening day. */
export const neededBy = (expected: ExpectedCourse, part: ExpectedPart): string => {
  const { follow, leadDays } = expected.template.opening
  const ofCourse =
    part.definition.span === 'course' || part.week === null || follow === 'all-at-once'
  const openingDay = openingDayOf(expected)
  return ofCourse ? openingDay : addDays(part.week?.first ?? openingDay, -leadDays)
}
