import {
  daysBetween,
  evenUnits,
  formatDate,
  instructionalWeeks,
  localDateOf,
  localTimeOf,
  weeksOfUnit,
  type Offset,
  type Unit,
  type Week,
} from '../calendar/index.ts'
import {
  type Course,
  type CourseItem,
  type CourseModule,
  everyCourseItem,
  type Facts,
  isShown,
  itemsIn,
} from '../course/index.ts'
import { courseValues, weekOccurrence, occurrenceValues } from '../expand/index.ts'
import { rangesNamed, type FieldValues } from '../naming/index.ts'
import { alignModules, type Slot } from './alignModules.ts'
import { bestFormat, type ProposedFormat } from './bestFormat.ts'
import { chunksOf, type Chunk } from './chunks.ts'
import { pageShape, type PageStretch, type PageVersion } from './pageShape.ts'
import { presenceRule, type PresenceRule } from './presence.ts'
import {
  comparedName,
  repeatedModules,
  type ModuleGroup,
  type Repetition,
} from './repeatedModules.ts'
import type { Seen } from './similarity.ts'

/** One part of the repeated module, as the model course shows it. */
export interface ReadSlot {
  kind: CourseItem['kind']
  /** By repetition number, the item found there. */
  items: Map<number, CourseItem>
  rule: PresenceRule | null
  format: ProposedFormat
  page: PageStretch[]
  points: number | null
  category: string | null
  due: Offset | null
  hidden: boolean
  /** Whether it comes last in nearly all repetitions. */
  comesLast: boolean
}

/** A model course as it is understood before anybody decided on anything. */
export interface ModelReading {
  course: Course
  facts: Facts
  group: ModuleGroup | null
  moduleFormat: ProposedFormat | null
  slots: ReadSlot[]
  /** Modules that stand once, before, between and after the repeated ones. */
  once: CourseModule[]
  home: CourseItem | null
  /** Numbers of repetitions that lie in a break. */
  pauses: number[]
}

/** The value most of them have, or null where fewer than 60 in a hundred agree. */
const mostOf = <T>(values: readonly T[]): T | null => {
  const counts = new Map<string, { value: T; count: number }>()
  for (const value of values) {
    const key = JSON.stringify(value)
    counts.set(key, { value, count: (counts.get(key)?.count ?? 0) + 1 })
  }
  const [best] = [...counts.values()].sort((a, b) => b.count - a.count)
  return best && best.count >= values.length * 0.6 ? best.value : null
}

const dateStyles = ['EEEE d MMMM', 'EEEE, MMMM d', 'd MMMM', 'MMMM d', 'd MMM', 'MMM d'] as const

/** Words of a repetition that are to be written as fields, longest first. */
const fieldWords = (
  values: FieldValues,
  week: Week | undefined,
  per: ModuleGroup['per'] | null,
): [string, string][] => {
  const words: [string, string][] = []
  const add = (value: unknown, field: string) => {
    if (typeof value === 'string' && value.length > 2) words.push([value, field])
  }
  add(values.code, '{code}')
  add(values.title, '{title}')
  add(values.term, '{term}')
  add(values.instructor, '{instructor}')
  if (per !== null) add(values.topic, '{topic}')
  if (week)
    for (const style of dateStyles)
      words.push(
        [formatDate(week.first, style), `{start, ${style}}`],
        [formatDate(week.last, style), `{end, ${style}}`],
      )
  const number = per === null ? undefined : values[per]
  if (typeof number === 'number')
    for (const label of ['Week', 'week', 'Unit', 'unit', 'Day', 'day', 'Module', 'module'])
      words.push([`${label} ${number}`, `${label} {${per ?? 'week'}}`])
  return words.sort((a, b) => b[0].length - a[0].length)
}

/** The text under which a list made from the module's own items recurs. */
export const workListMark = '⟨work list⟩'
const workListOf = (chunk: Chunk, addresses: ReadonlySet<string>): boolean =>
  (chunk.tag === 'ul' || chunk.tag === 'ol') &&
  chunk.links.length > 0 &&
  chunk.links.filter((link) => addresses.has(link)).length >= Math.max(1, chunk.links.length * 0.6)

/** @param end last day of the week or unit */
const dueOffset = (at: string, end: string, zone: string): Offset => {
  const days = daysBetween(end, localDateOf(at, zone))
  return { from: 'week-end', days: days === 0 ? 0 : days, time: localTimeOf(at, zone) }
}

/** What the units of a model course cover: as its facts or the names of its modules say, or as many weeks each. */
const unitsOf = ({ repetitions }: ModuleGroup, facts: Facts, weeks: readonly Week[]): Unit[] => {
  if (facts.units?.length === repetitions.length) return facts.units
  const even = evenUnits(weeks, repetitions.length)
  return repetitions.flatMap(({ module, number }, i): Unit[] => {
    const said = rangesNamed(module.name, facts.term.firstDay)[0]
    const unit = said ? { firstDay: said.first, lastDay: said.last } : even[i]
    return unit ? [{ ...unit, number }] : []
  })
}

/** How the repeated modules are named. Names that count in roman numerals are read for it, and do not follow it. */
const moduleFormatOf = (
  { repetitions }: ModuleGroup,
  values: ReadonlyMap<number, FieldValues>,
  near: string,
): ProposedFormat => {
  const best = bestFormat(
    repetitions.map(({ module, number }) => ({
      name: comparedName(module.name),
      values: values.get(number) ?? {},
    })),
    near,
  )
  const roman = repetitions.flatMap(({ module: { name } }) =>
    comparedName(name) === name ? [] : [name],
  )
  return { ...best, leftOut: [...new Set([...best.leftOut, ...roman])] }
}

/**
 * Reads a course as a model for a template: which modules repeat, which items recur in them and in which repetitions,
 * how they are named, what of their pages recurs word for word and what differs.
 * @param facts of the course, whose calendar tells numbers, dates and pauses
 */
export const readModel = (course: Course, facts: Facts): ModelReading => {
  const near = facts.term.firstDay
  const weeks = instructionalWeeks({
    term: facts.term,
    nextTerm: facts.nextTerm,
    session: facts.session,
    count: facts.weeks,
  })
  const weekOf = (number: number) => weeks.find((week) => week.number === number)
  const modules = course.modules
  const group = repeatedModules(modules, near, facts.weeks)
  const home = everyCourseItem(course).find(({ item }) => item.id === course.homePage)?.item ?? null
  if (!group)
    return {
      course,
      facts,
      group: null,
      moduleFormat: null,
      slots: [],
      once: modules,
      home,
      pauses: [],
    }

  const units = group.per === 'unit' ? unitsOf(group, facts, weeks) : []
  const valuesOf = (repetition: Repetition): FieldValues => {
    const week = group.per === 'week' ? weekOf(repetition.number) : undefined
    const unit = units.find(({ number }) => number === repetition.number)
    const values: FieldValues = week
      ? occurrenceValues(facts, weekOccurrence(week))
      : unit
        ? occurrenceValues(facts, {
            number: unit.number,
            ordinal: unit.number,
            weeks: weeksOfUnit(unit, weeks),
            unit,
            day: null,
            half: null,
          })
        : { ...courseValues(facts), [group.per]: repetition.number }
    return {
      ...values,
      number: repetition.number,
      ...(repetition.topic !== '' ? { topic: repetition.topic } : {}),
    }
  }
  const values = new Map(
    group.repetitions.map((repetition) => [repetition.number, valuesOf(repetition)]),
  )
  const pauses =
    group.per === 'week'
      ? group.repetitions
          .map((repetition) => repetition.number)
          .filter((number) => weekOf(number)?.breakName)
      : []
  const regular = group.repetitions.filter((repetition) => !pauses.includes(repetition.number))
  const numbers = regular.map(({ number }) => number)

  const readSlot = (slot: Slot): ReadSlot => {
    const placed = slot.items.flatMap((seen, i) =>
      seen && regular[i] ? [{ seen, repetition: regular[i] }] : [],
    )
    const rule = presenceRule(new Set(placed.map(({ repetition }) => repetition.number)), numbers)
    const ordinal = (number: number) => (rule?.wanted.indexOf(number) ?? -1) + 1
    const format = bestFormat(
      placed.map(({ seen, repetition }) => ({
        name: seen.item.name,
        values: {
          ...values.get(repetition.number),
          number: ordinal(repetition.number) || repetition.number,
          ...(seen.item.points === null ? {} : { points: seen.item.points }),
        },
      })),
      near,
    )
    const versions = placed
      .filter(({ seen }) => seen.chunks.length > 0)
      .map(({ seen, repetition }): PageVersion => {
        const addresses = new Set(
          itemsIn(repetition.module).flatMap((item) => (item.url === null ? [] : [item.url])),
        )
        return {
          chunks: seen.chunks.map((chunk) =>
            workListOf(chunk, addresses)
              ? { ...chunk, text: workListMark, html: workListMark }
              : chunk,
          ),
          fields: fieldWords(
            { ...values.get(repetition.number) },
            group.per === 'week' ? weekOf(repetition.number) : undefined,
            group.per,
          ),
        }
      })
    const items = placed.map(({ seen }) => seen.item)
    const kinds = mostOf(items.map((item) => item.kind)) ?? items[0]?.kind ?? 'page'
    return {
      kind: kinds,
      items: new Map(placed.map(({ seen, repetition }) => [repetition.number, seen.item])),
      rule,
      format,
      page: versions.length >= 2 ? pageShape(versions) : [],
      points: mostOf(items.map((item) => item.points)),
      category: mostOf(items.map((item) => item.category)),
      due: mostOf(
        placed.map(({ seen, repetition }) => {
          const { end } = values.get(repetition.number) ?? {}
          return seen.item.dueAt !== null && typeof end === 'string'
            ? dueOffset(seen.item.dueAt, end, facts.term.timeZone)
            : null
        }),
      ),
      hidden: mostOf(items.map(isShown)) === false,
      comesLast:
        placed.filter(({ seen, repetition }) => itemsIn(repetition.module).at(-1) === seen.item)
          .length >=
        placed.length * 0.8,
    }
  }
  const slots = alignModules(regular.map((repetition): readonly Seen[] => repetition.seen)).map(
    readSlot,
  )
  return {
    course,
    facts,
    group,
    moduleFormat: moduleFormatOf(group, values, near),
    slots,
    once: modules.filter(
      (module) => !group.repetitions.some((repetition) => repetition.module === module),
    ),
    home,
    pauses,
  }
}

/** Pieces of a page that stands once, with what is the course's own written as fields. */
export const onceChunks = (item: CourseItem, facts: Facts): Chunk[] => {
  const fields = fieldWords(courseValues(facts), undefined, null)
  const put = (text: string) =>
    fields.reduce((now, [words, field]) => now.replaceAll(words, field), text)
  return (item.html === null ? [] : chunksOf(item.html)).map((chunk) => ({
    ...chunk,
    html: put(chunk.html),
    text: put(chunk.text),
  }))
}
