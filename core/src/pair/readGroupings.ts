import { daysBetween, weeksOfUnit, type Unit, type Week } from '../calendar/index.ts'
import { everyModule, type Course, type CourseModule, type Facts } from '../course/index.ts'
import { foldedName, formatOf, rangeSaid, readName } from '../naming/index.ts'
import { everyPart, isModule, type Module, type Template } from '../template/index.ts'

/** What a course made of a module that is to repeat each week. */
export type GroupingReading =
  | { state: 'weekly' }
  /** Units whose ranges cover every instructional week exactly once. */
  | { state: 'grouped'; units: Unit[]; modules: string[] }
  /** Modules that look like units, but what they cover cannot be read or does not add up. */
  | { state: 'unreadable'; modules: string[]; why: string }

/** Fewer units beside weeks are told as weeks that were folded together. */
const fewestMixed = 2
/** Edges of a unit may lie this many days off the week's own. */
const edgeDays = 2

const weeksSaid = /\b(?:weeks?|wks?)\s*(\d{1,2})\s*(?:-|to|through|and|&)\s*(\d{1,2})\b/
const oneWeekSaid = /\b(?:week|wk)\s*(\d{1,2})\b/
const unitWord = /\b(?:unit|part|block|theme)\s*(\d{1,2}|[ivx]+)\b/

/** The weeks a module's name says it covers, or null. */
const coverOf = (
  module: CourseModule,
  part: Module,
  weeks: readonly Week[],
  near: string,
): { firstWeek: number; lastWeek: number } | null => {
  const name = foldedName(module.name)
  const said = weeksSaid.exec(name)
  if (said) return { firstWeek: Number(said[1]), lastWeek: Number(said[2]) }
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

const coverOfUnit = (
  unit: Unit,
  weeks: readonly Week[],
): { firstWeek: number; lastWeek: number } | null => {
  const covered = weeksOfUnit(unit, weeks)
  const [first, last] = [covered[0], covered.at(-1)]
  return first && last ? { firstWeek: first.number, lastWeek: last.number } : null
}

/**
 * Tells, for each weekly module of a template that accepts units in its place, whether the course has weeks, has units
 * that cover every instructional week exactly once (uneven ones are fine), or has units that cannot be read.
 */
export const readGroupings = (
  template: Template,
  facts: Facts,
  weeks: readonly Week[],
  course: Course,
): Record<string, GroupingReading> => {
  const near = weeks[0]?.first ?? facts.term.firstDay
  const readings: Record<string, GroupingReading> = {}
  for (const part of everyPart(template)) {
    if (!isModule(part) || !part.groupings || part.repeat?.per !== 'week') continue
    const candidates = everyModule(course.modules).filter(
      (module) => module.recordedAs === undefined || module.recordedAs.part === part.key,
    )
    const weekly = candidates.filter(
      (module) =>
        readName(formatOf(part.name), module.name, {}) !== null ||
        (oneWeekSaid.test(foldedName(module.name)) && !weeksSaid.test(foldedName(module.name))),
    )
    const units = candidates.filter(
      (module) =>
        !weekly.includes(module) &&
        (unitWord.test(foldedName(module.name)) || weeksSaid.test(foldedName(module.name))),
    )
    // Some weeks may stand by themselves beside units; a single fold of two weeks is no grouping yet.
    const mixed =
      weekly.length > 0 &&
      units.length >= fewestMixed &&
      units.every(
        (module) =>
          weeksSaid.test(foldedName(module.name)) || rangeSaid(module.name, near) !== null,
      )
    if (!mixed && (units.length < part.groupings.min || weekly.length > weeks.length / 2)) {
      readings[part.key] = { state: 'weekly' }
      continue
    }
    const modules = units.map((module) => module.id)
    const fromFacts =
      facts.units?.length === units.length
        ? facts.units.map((unit) => coverOfUnit(unit, weeks))
        : null
    const covers = units.map(
      (module, i) => coverOf(module, part, weeks, near) ?? fromFacts?.[i] ?? null,
    )
    if (covers.some((cover) => cover === null)) {
      const unread = units.filter((_, i) => covers[i] === null).map((module) => `“${module.name}”`)
      readings[part.key] = {
        state: 'unreadable',
        modules,
        why: `which weeks ${unread.join(', ')} cover${unread.length === 1 ? 's' : ''} cannot be read`,
      }
      continue
    }
    const sorted = covers.flatMap((cover) => cover ?? []).sort((a, b) => a.firstWeek - b.firstWeek)
    const byThemselves = mixed
      ? weekly.flatMap((module) =>
          Number(oneWeekSaid.exec(foldedName(module.name))?.[1] ?? Number.NaN),
        )
      : []
    const covered = [
      ...byThemselves,
      ...sorted.flatMap((cover) =>
        weeks
          .filter((week) => week.number >= cover.firstWeek && week.number <= cover.lastWeek)
          .map((week) => week.number),
      ),
    ]
    const wanted = weeks.filter((week) => week.breakName === null).map((week) => week.number)
    const twice = covered.filter((number, i) => covered.indexOf(number) !== i)
    const never = wanted.filter((number) => !covered.includes(number))
    const tooMany = units.length > part.groupings.max
    if (
      mixed &&
      weekly.length > weeks.length / 2 &&
      (tooMany || twice.length > 0 || never.length > 0)
    ) {
      readings[part.key] = { state: 'weekly' }
      continue
    }
    readings[part.key] =
      twice.length > 0 || never.length > 0 || tooMany
        ? {
            state: 'unreadable',
            modules,
            why: tooMany
              ? `${units.length} units where at most ${part.groupings.max} are accepted`
              : twice.length > 0
                ? `week ${twice.join(', ')} stands in two units`
                : `week ${never.join(', ')} stands in no unit`,
          }
        : {
            state: 'grouped',
            modules,
            units: sorted.map((cover, i) => ({
              number: i + 1,
              firstWeek: cover.firstWeek,
              lastWeek: cover.lastWeek,
            })),
          }
  }
  return readings
}
