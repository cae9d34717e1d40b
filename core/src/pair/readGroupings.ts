import { daysBetween, weeksOfUnit, type Unit, type Week } from '../calendar/index.ts'
import { everyModule, type Course, type CourseModule, type Facts } from '../course/index.ts'
import { foldedName, formatOf, rangeSaid, readName } from '../naming/index.ts'
import { everyPart, isModule, type Module, type Template } from '../template/index.ts'

type Grouped = Module & { groupings: NonNullable<Module['groupings']> }

/** What a course made of a module that is to repeat each week. */
export type GroupingReading =
  | { state: 'weekly' }
  /** Units whose ranges can be read and cover no week twice, with one for each stretch of weeks that none of them covers. */
  | { state: 'grouped'; units: Unit[]; modules: string[] }
  /** Modules that look like units, but what they cover cannot be read or does not add up. */
  | { state: 'unreadable'; modules: string[]; why: string }

/** Fewer units beside weeks are told as weeks that were folded together. */
const fewestMixed = 2
/** Edges of a unit may lie this many days off the week's own. */
const edgeDays = 2

/** `Weeks 4 - 7`, `Week 4 and 5`, `wk 4-7`; in “Week 9 - 10 knots to learn” the second number is of the topic. */
const weeksSaid =
  /\b(?:(?:weeks|wks)\s*(\d{1,2})\s*(?:-|to|through|and|&)|(?:week|wk)\s*(\d{1,2})(?:-|\s*(?:to|through|and|&)))\s*(\d{1,2})\b/
const oneWeekSaid = /\b(?:week|wk)\s*(\d{1,2})\b/
/** `4. Bread`, `04 / Bread`, and `Mod 4: Bread` in whatever language: a number behind one word at most. */
const numberFirst = /^(?:\p{L}+\.?\s*)?(\d{1,2})\b(?!\s*(?:-|to|through|and|&)\s*\d)/u
const unitWord = /\b(?:unit|part|block|theme)\s*(\d{1,2}|[ivx]+)\b/

/** The number of the one week that a module’s name says it is, or null. */
const weekAloneIn = (moduleName: string): number | null => {
  const name = foldedName(moduleName)
  if (weeksSaid.test(name)) return null
  const said = oneWeekSaid.exec(name) ?? numberFirst.exec(name)
  return said ? Number(said[1]) : null
}

/** Instructional weeks that a unit covers, the first and the last. */
interface Cover {
  firstWeek: number
  lastWeek: number
}

/** The weeks a module's name says it covers, or null. */
const coverOf = (
  module: CourseModule,
  part: Module,
  weeks: readonly Week[],
  near: string,
): Cover | null => {
  const name = foldedName(module.name)
  const said = weeksSaid.exec(name)
  if (said) return { firstWeek: Number(said[1] ?? said[2]), lastWeek: Number(said[3]) }
  const range = rangeSaid(module.name, near)
  if (range && daysBetween(range.first, range.last) > 8) {
    const first = weeks.find((week) => Math.abs(daysBetween(week.first, range.first)) <= edgeDays)
    const last = weeks.find((week) => Math.abs(daysBetween(week.last, range.last)) <= edgeDays)
    if (first && last) return { firstWeek: first.number, lastWeek: last.number }
  }
  const one = oneWeekSaid.exec(name)
  if (one && !unitWord.test(name) && readName(formatOf(part.name), module.name, {}) === null)
    return { firstWeek: Number(one[1]), lastWeek: Number(one[1]) }
  return null
}

const coverOfUnit = (unit: Unit, weeks: readonly Week[]): Cover | null => {
  const covered = weeksOfUnit(unit, weeks)
  const [first, last] = [covered[0], covered.at(-1)]
  return first && last ? { firstWeek: first.number, lastWeek: last.number } : null
}

/** The weeks that nothing covers, as stretches: where a unit is not there, it is missing as a whole. */
const gapsIn = (weeks: readonly Week[], covered: readonly number[]): Cover[] => {
  const gaps: Cover[] = []
  let open: Cover | null = null
  for (const { number, breakName } of weeks) {
    if (covered.includes(number)) open = null
    else if (breakName === null) {
      if (open) open.lastWeek = number
      else gaps.push((open = { firstWeek: number, lastWeek: number }))
    }
  }
  return gaps
}

/** Modules of a course that may be weeks, and those that may be units in place of them. */
interface Candidates {
  weekly: readonly CourseModule[]
  units: readonly CourseModule[]
  /** Whether any is called a unit; “Weeks 4 and 5” among single weeks is two weeks folded together. */
  called: boolean
  /** Whether some weeks stand by themselves beside units; a single fold of two weeks is no grouping yet. */
  mixed: boolean
}
const candidatesIn = (part: Grouped, course: Course, near: string): Candidates => {
  const candidates = everyModule(course.modules).filter(
    (module) => module.recordedAs === undefined || module.recordedAs.part === part.key,
  )
  const isCalledUnit = ({ name }: CourseModule): boolean =>
    unitWord.test(foldedName(name)) || readName(formatOf(part.groupings.name), name, {}) !== null
  const isWeek = (module: CourseModule): boolean =>
    readName(formatOf(part.name), module.name, {}) !== null ||
    (weekAloneIn(module.name) !== null &&
      (oneWeekSaid.test(foldedName(module.name)) || !isCalledUnit(module)))
  const weekly = candidates.filter(isWeek)
  const units = candidates.filter(
    (module) =>
      !weekly.includes(module) && (isCalledUnit(module) || weeksSaid.test(foldedName(module.name))),
  )
  return {
    weekly,
    units,
    called: units.some(isCalledUnit),
    mixed:
      weekly.length > 0 &&
      units.length >= fewestMixed &&
      units.every(
        (module) =>
          weeksSaid.test(foldedName(module.name)) || rangeSaid(module.name, near) !== null,
      ),
  }
}

/** What a weekly module that accepts units in its place was made into. */
const readGrouping = (
  part: Grouped,
  facts: Facts,
  weeks: readonly Week[],
  course: Course,
): GroupingReading => {
  const near = weeks[0]?.first ?? facts.term.firstDay
  const { weekly, units, called, mixed } = candidatesIn(part, course, near)
  const mostlyWeekly = weekly.length >= weeks.length / 2
  if (mostlyWeekly && !(mixed && called)) return { state: 'weekly' }
  if (!mixed && units.length < fewestMixed) return { state: 'weekly' }
  const unreadable = (why: string): GroupingReading =>
    !mixed && units.length < part.groupings.min
      ? { state: 'weekly' }
      : { state: 'unreadable', modules: units.map((module) => module.id), why }
  const fromFacts =
    facts.units?.length === units.length
      ? facts.units.map((unit) => coverOfUnit(unit, weeks))
      : null
  const covers = units.map(
    (module, i) => coverOf(module, part, weeks, near) ?? fromFacts?.[i] ?? null,
  )
  if (covers.some((cover) => cover === null)) {
    const unread = units.filter((_, i) => covers[i] === null).map((module) => `“${module.name}”`)
    return unreadable(
      `which weeks ${unread.join(', ')} cover${unread.length === 1 ? 's' : ''} cannot be read`,
    )
  }
  const said = covers.flatMap((cover) => cover ?? [])
  const byThemselves = mixed ? weekly.flatMap((module) => weekAloneIn(module.name) ?? []) : []
  const covered = [
    ...byThemselves,
    ...said.flatMap((cover) =>
      weeks
        .filter((week) => week.number >= cover.firstWeek && week.number <= cover.lastWeek)
        .map((week) => week.number),
    ),
  ]
  const twice = covered.filter((number, i) => covered.indexOf(number) !== i)
  const gaps = gapsIn(weeks, covered)
  const tooMany = units.length > part.groupings.max
  if (mixed && mostlyWeekly && (tooMany || twice.length > 0 || gaps.length > 0))
    return { state: 'weekly' }
  if (tooMany)
    return unreadable(`${units.length} units where at most ${part.groupings.max} are accepted`)
  if (twice.length > 0) return unreadable(`week ${twice.join(', ')} stands in two units`)
  if (!mixed && units.length + gaps.length < part.groupings.min) return { state: 'weekly' }
  return {
    state: 'grouped',
    modules: units.map((module) => module.id),
    units: [...said, ...gaps]
      .sort((a, b) => a.firstWeek - b.firstWeek)
      .map((cover, i) => ({ number: i + 1, ...cover })),
  }
}

/**
 * Tells, for each weekly module of a template that accepts units in its place, whether the course has weeks, has units
 * whose ranges can be read and cover no week twice (uneven ones are fine; weeks in none of them are a unit that is
 * missing), or has units that cannot be read.
 */
export const readGroupings = (
  template: Template,
  facts: Facts,
  weeks: readonly Week[],
  course: Course,
): Record<string, GroupingReading> =>
  Object.fromEntries(
    everyPart(template).flatMap((part) =>
      isModule(part) && part.groupings && part.repeat?.per === 'week'
        ? [[part.key, readGrouping({ ...part, groupings: part.groupings }, facts, weeks, course)]]
        : [],
    ),
  )
