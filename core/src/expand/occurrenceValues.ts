import type { Facts } from '../course/index.ts'
import type { FieldValues } from '../naming/index.ts'
import type { Occurrence } from './repetitions.ts'

/** Values of the fields that come from a course's facts. */
export const courseValues = (facts: Facts): FieldValues => ({
  code: facts.code,
  title: facts.title,
  term: facts.term.title,
  year: Number(facts.term.firstDay.slice(0, 4)),
  classSection: facts.classSections.join(', '),
  ...(facts.room === undefined ? {} : { room: facts.room }),
  instructor: facts.instructors.map((person) => person.name).join(', '),
  modality: { 'on-campus': 'on campus', online: 'online', hybrid: 'hybrid' }[facts.modality],
})

/** Values of the fields that come from a occurrence's place in the calendar, beside those of its course. */
export const occurrenceValues = (
  facts: Facts,
  occurrence: Occurrence,
  ofCourse: FieldValues = courseValues(facts),
): FieldValues => {
  const first = occurrence.weeks[0]
  const last = occurrence.weeks.at(-1)
  // Topics are known by week: a unit has a title of its own, and a single day none.
  const topic = occurrence.unit
    ? occurrence.unit.title
    : occurrence.day || !first
      ? undefined
      : (facts.topics[String(first.number)] ?? first.breakName)
  return {
    ...ofCourse,
    number: occurrence.number,
    ...(occurrence.unit ? { unit: occurrence.unit.number } : first ? { week: first.number } : {}),
    ...(occurrence.unit && first && last ? { weeks: { from: first.number, to: last.number } } : {}),
    ...(occurrence.day ? { day: occurrence.number } : {}),
    ...(occurrence.half ? { half: occurrence.half.half } : {}),
    ...(first && last
      ? { dates: { first: first.first, last: last.last }, start: first.first, end: last.last }
      : {}),
    ...(topic ? { topic } : {}),
  }
}
