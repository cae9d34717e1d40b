import { formatDate, localDateOf, localTimeOf, spanningTerm, type Week } from '../calendar/index.ts'
import type { Facts } from '../course/index.ts'
import type { DateLine, ScheduleLine } from '../template/index.ts'
import type { ExpectedPart } from './expected.ts'

const dayWords = 'EEE d MMM'
const linkOf = (part: ExpectedPart): string => `ref:${part.instance}`

/** What is due among parts, earliest first, with the time of day in the term's zone. */
export const moduleDates = (parts: readonly ExpectedPart[], timeZone: string): DateLine[] =>
  parts
    .flatMap((part) =>
      part.dueAt === null || part.audience !== 'students' ? [] : [{ at: part.dueAt, part }],
    )
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
    .map(({ at, part }) => ({
      date: `${formatDate(localDateOf(at, timeZone), dayWords)}, ${localTimeOf(at, timeZone)}`,
      text: part.name,
      href: linkOf(part),
    }))

/** The dates of a course's term: first day of its weeks, breaks, holidays, other named dates, last day. */
export const termDates = (facts: Facts, weeks: readonly Week[]): DateLine[] => {
  const term = spanningTerm(facts.term, facts.nextTerm)
  const first = weeks.find((week) => week.number > 0)?.first ?? term.firstDay
  const last = weeks.at(-1)?.last ?? term.lastDay
  const dates = [
    { from: first, to: first, text: 'First day of class' },
    ...term.breaks.map(({ first, last, name }) => ({ from: first, to: last, text: name })),
    ...[...term.holidays, ...term.otherDates].map(({ date, name }) => ({
      from: date,
      to: date,
      text: name,
    })),
    {
      from: last < term.lastDay ? last : term.lastDay,
      to: last < term.lastDay ? last : term.lastDay,
      text: 'Last day of class',
    },
  ]
  return dates
    .filter((date) => date.to >= first && date.from <= term.lastDay)
    .sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : 0))
    .map((date) => ({
      date:
        date.from === date.to
          ? formatDate(date.from, dayWords)
          : `${formatDate(date.from, dayWords)} to ${formatDate(date.to, dayWords)}`,
      text: date.text,
      href: null,
    }))
}

/** The schedule of a course: every occurrence of a repeated module that students see, outermost first, with what is due in it. */
export const scheduleLines = (parts: readonly ExpectedPart[], facts: Facts): ScheduleLine[] => {
  const taughtBy = teachersOf(facts)
  const { timeZone } = facts.term
  return parts.flatMap((part): ScheduleLine[] => {
    const first = part.weeks[0]
    const last = part.weeks.at(-1)
    if (part.kind !== 'module' || part.audience !== 'students' || !first || !last) return []
    const topic = part.values.topic
    return [
      {
        dates: `${formatDate(first.first, 'd MMM')} – ${formatDate(last.last, 'd MMM')}`,
        topic: typeof topic === 'string' ? topic : '',
        module: { href: linkOf(part), name: part.name },
        taughtBy: taughtBy(part),
        due: part.inBreak ? [] : moduleDates(part.items, timeZone),
      },
    ]
  })
}

/** Who teaches a module: the one it is assigned to, else those who teach the course; null where none of them is assigned. */
const teachersOf = ({
  instructors,
  assistants,
  moduleOwners,
}: Facts): ((part: ExpectedPart) => string | null) => {
  const people = new Map([...assistants, ...instructors].map(({ email, name }) => [email, name]))
  const assigned = new Map(
    Object.entries(moduleOwners).flatMap(([module, email]) => {
      const name = people.get(email)
      return name === undefined ? [] : [[module, name] as const]
    }),
  )
  if (assigned.size === 0) return () => null
  const everybody = instructors.map(({ name }) => name).join(', ')
  return (part) => (part.inBreak ? '' : (assigned.get(part.instance) ?? everybody))
}
