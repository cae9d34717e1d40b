import type { Facts } from '../course/index.ts'
import type { FieldValues } from '../naming/index.ts'
import type { Turn } from './repetitions.ts'

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

/** Values of the fields that come from a turn's place in the calendar, beside those of its course. */
export const turnValues = (
  facts: Facts,
  turn: Turn,
  ofCourse: FieldValues = courseValues(facts),
): FieldValues => {
  const first = turn.weeks[0]
  const last = turn.weeks.at(-1)
  // Topics are known by week: a unit has a title of its own, and a single day none.
  const topic = turn.unit
    ? turn.unit.title
    : turn.day || !first
      ? undefined
      : (facts.topics[String(first.number)] ?? first.breakName)
  return {
    ...ofCourse,
    number: turn.number,
    ...(turn.unit ? { unit: turn.unit.number } : first ? { week: first.number } : {}),
    ...(turn.unit && first && last ? { weeks: { from: first.number, to: last.number } } : {}),
    ...(turn.day ? { day: turn.number } : {}),
    ...(turn.half ? { half: turn.half.half } : {}),
    ...(first && last
      ? { dates: { first: first.first, last: last.last }, start: first.first, end: last.last }
      : {}),
    ...(topic ? { topic } : {}),
  }
}
