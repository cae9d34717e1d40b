import {
  availabilityWindow,
  evenUnits,
  instructionalWeeks,
  localDateOf,
  resolveOffset,
  spanningTerm,
  type Offset,
  type Unit,
  type Week,
} from '../calendar/index.ts'
import type { Facts } from '../course/index.ts'
import { failure, shortHash, success, type Problem, type Result } from '../document/index.ts'
import { formatOf, renderName, type FieldValues } from '../naming/index.ts'
import {
  homePageKey,
  isModule,
  type Exception,
  type Item,
  type Module,
  type Part,
  type Template,
} from '../template/index.ts'
import { fileForCourse } from './fileForCourse.ts'
import {
  exceptionsAt,
  laidOver,
  laidOverModule,
  numberOfTurn,
  type OccurrencePlace,
} from './exceptions.ts'
import { everyExpected, type ExpectedCourse, type ExpectedPart } from './expected.ts'
import {
  applies,
  repeatsAt,
  occurrencesOf,
  weekOccurrence,
  type Occurrence,
  type OccurrenceCalendar,
} from './repetitions.ts'
import { courseValues, occurrenceValues } from './occurrenceValues.ts'
import { writePages } from './writePages.ts'

/** A repetition id that an earlier deployment minted. */
export interface KnownRepetition {
  part: string
  number: number
  id: string
}

export interface Expansion {
  template: Template
  facts: Facts
  /** Ids minted by earlier deployments to this course, carried over by number. */
  repetitions?: readonly KnownRepetition[]
  /** What new repetition ids are minted from; the course's own id where there is one. */
  mintFrom?: string
  /** Units that stand in place of weekly modules, by module key. */
  groupings?: Readonly<Record<string, Unit[]>>
}

export const instanceOf = (key: string, repetition: string | null): string =>
  repetition === null ? key : `${key}@${repetition}`

/** Where in the calendar a part is being worked out. */
interface CalendarPlace {
  occurrence: Occurrence | null
  repetition: string | null
  /** Number by which its repetition is carried over, or null. */
  repetitionNumber: number | null
  values: FieldValues
  parent: string | null
  grouped: boolean
  /** Key of the exception it differs by, or null. */
  exception: string | null
  /** Whether it was put into a break on purpose. */
  inPause: boolean
  /** Exceptions of the module whose weeks a unit takes the place of: they hold week by week in it. */
  weekly: readonly Exception[]
}

/**
 * Works a template version out for one course: conditions applied, modules repeated, names rendered, dates set,
 * links between parts made into references. Deterministic; the same input gives the same output.
 * @returns the expected course, or why the facts do not fit (path in the facts document)
 */
export const expandCourse = (input: Expansion): Result<ExpectedCourse, Problem[]> => {
  const { template, facts } = input
  const weeks = instructionalWeeks({
    term: facts.term,
    nextTerm: facts.nextTerm,
    session: facts.session,
    count: facts.weeks,
  })
  const available = weeks.filter((week) => week.number > 0).length
  if (available < facts.weeks)
    return failure([
      {
        code: 'too-few-weeks',
        path: '/weeks',
        found: String(facts.weeks),
        expected: `at most ${available}, the weeks of ${facts.session ? `session ${facts.session}` : facts.term.title}`,
      },
    ])
  const mintFrom =
    input.mintFrom ?? `${facts.code}/${facts.term.code}/${facts.classSections.join('+')}`
  const minted = new Map(
    (input.repetitions ?? []).map((known) => [`${known.part}/${known.number}`, known.id]),
  )
  const repetitionOf = (key: string, number: number): string => {
    const place = `${key}/${number}`
    let id = minted.get(place)
    if (id === undefined)
      minted.set(place, (id = `r-${shortHash(`${mintFrom}/${place}`).slice(0, 12)}`))
    return id
  }

  const common = courseValues(facts)
  const units = facts.units ?? (template.units ? evenUnits(weeks, template.units) : [])
  const occurrences = new Map<string, number>()
  const term = spanningTerm(facts.term, facts.nextTerm)
  const calendar: OccurrenceCalendar = { weeks, units, term, meetingDays: facts.meetingDays ?? [] }
  const top: CalendarPlace = {
    occurrence: null,
    repetition: null,
    repetitionNumber: null,
    values: common,
    parent: null,
    grouped: false,
    exception: null,
    inPause: false,
    weekly: [],
  }

  /** Stands a part into one of its occurrences. Turns that are merely counted stay in the stretch they are nested in. */
  const inOccurrence = (
    key: string,
    occurrence: Occurrence,
    standing: CalendarPlace,
  ): CalendarPlace => {
    const outer = occurrence.weeks.length === 0 ? standing.occurrence : null
    const ordinal = outer ? outer.ordinal * 1000 + occurrence.ordinal : occurrence.ordinal
    return {
      ...standing,
      occurrence: outer ? { ...outer, number: occurrence.number, ordinal } : occurrence,
      repetition: repetitionOf(key, ordinal),
      repetitionNumber: ordinal,
      values: outer
        ? { ...standing.values, number: occurrence.number }
        : occurrenceValues(facts, occurrence, common),
    }
  }

  const build = (part: Part, standing: CalendarPlace, format = part.name): ExpectedPart => {
    const occurrence = standing.occurrence
    const week: Week | null = occurrence?.weeks[0] ?? null
    const instance = instanceOf(part.key, standing.repetition)
    const inBreak =
      !standing.inPause &&
      occurrence !== null &&
      occurrence.weeks.length > 0 &&
      occurrence.weeks.every((week) => week.breakName !== null)
    const place =
      week && occurrence ? { ...week, last: occurrence.weeks.at(-1)?.last ?? week.last } : null
    const at = (offset: Offset | undefined) =>
      offset ? resolveOffset(offset, place, weeks, term, facts.meetingDays) : null
    const dueAt = at(part.settings.due)
    const values: FieldValues = {
      ...standing.values,
      ...(part.settings.points === undefined ? {} : { points: part.settings.points }),
      ...(dueAt ? { due: localDateOf(dueAt, facts.term.timeZone) } : {}),
    }
    const name = renderName(formatOf(format), values)
    return {
      instance,
      key: part.key,
      repetition: standing.repetition,
      repetitionNumber: standing.repetitionNumber,
      definition: part,
      kind: part.kind,
      name: name.text,
      unfilledFields: name.unfilled,
      values,
      strength: part.strength,
      audience: part.audience,
      week,
      weeks: occurrence?.weeks ?? [],
      exception: standing.exception,
      inBreak,
      opensAt: at(part.settings.opens),
      dueAt,
      closesAt: at(part.settings.closes),
      blocks: [],
      questions: [],
      file: isModule(part) ? null : fileForCourse(part, template, values),
      items: [],
      parent: standing.parent,
    }
  }

  /** What stands in a occurrence of a module after its exceptions: parts left out, fields laid over, parts added. */
  const inner = (
    module: Module,
    standing: CalendarPlace,
    parent: string,
    place: OccurrencePlace | null,
  ): ExpectedPart[] => {
    const within = { ...standing, parent, exception: null }
    const found = place ? exceptionsAt(module.exceptions, place, units) : []
    const left = found.some(({ leaveOut }) => leaveOut === 'all') ? [] : module.items
    const own = left.flatMap((part) => {
      const over = laidOver(part, found)
      return over
        ? expandPart(
            over.part,
            over.exception === null ? within : { ...within, exception: over.exception },
          )
        : []
    })
    const added = found.flatMap((exception) => {
      const number = numberOfTurn(exception, nextOccurrence(exception.key), place, units)
      const there: CalendarPlace = {
        ...within,
        repetition: repetitionOf(exception.key, number),
        repetitionNumber: number,
        exception: exception.key,
        inPause: exception.anchor.at === 'pause',
      }
      return exception.add.flatMap((part) => expandPart(part, there))
    })
    return [...own, ...added]
  }
  const nextOccurrence = (key: string): number => {
    const next = (occurrences.get(key) ?? 0) + 1
    occurrences.set(key, next)
    return next
  }

  const buildModule = (
    module: Module,
    standing: CalendarPlace,
    format = module.name,
    place: OccurrencePlace | null = null,
  ): ExpectedPart => {
    const expected = build(module, standing, format)
    const parts =
      standing.grouped && standing.occurrence
        ? [
            ...inner(module, standing, expected.instance, null),
            ...standing.occurrence.weeks.flatMap((week) =>
              groupedAdditions(module, week, standing, expected.instance),
            ),
          ]
        : inner(module, standing, expected.instance, place)
    expected.items = standing.grouped ? arrangeByWeek(parts, expected.weeks) : arrange(parts)
    return expected
  }
  /** Where units stand in place of weeks: the place a week has among all of them, and in its unit. */
  const placeInUnit = (week: Week, { occurrence }: CalendarPlace): OccurrencePlace => ({
    occurrence: weekOccurrence(week),
    first: week === weeks.find((week) => week.number > 0),
    last: week === weeks.at(-1),
    unit: { number: occurrence?.number ?? 0, endsHere: week === occurrence?.weeks.at(-1) },
  })
  /** What an exception adds to a week stands in the unit that covers it. */
  const groupedAdditions = (
    module: Module,
    week: Week,
    standing: CalendarPlace,
    parent: string,
  ): ExpectedPart[] =>
    inner(
      { ...module, items: [] },
      {
        ...standing,
        occurrence: weekOccurrence(week),
        values: occurrenceValues(facts, weekOccurrence(week), common),
      },
      parent,
      placeInUnit(week, standing),
    )

  const expandItem = (item: Item, standing: CalendarPlace): ExpectedPart[] => {
    const occurrence = standing.occurrence
    const filter = item.repeat
    const insideWeeks = filter?.per === 'week' && occurrence !== null && occurrence.weeks.length > 0
    if (insideWeeks && standing.grouped && item.inGroup === 'per-week')
      return occurrence.weeks
        .filter((week) => repeatsAt(filter, week.number))
        .flatMap((week) => weeklyItem(item, week, standing))
    if (insideWeeks && !occurrence.weeks.some((week) => repeatsAt(filter, week.number))) return []
    if (standing.grouped && item.inGroup === 'per-week' && occurrence)
      return occurrence.weeks.flatMap((week) => weeklyItem(item, week, standing))
    if (filter && !insideWeeks)
      return occurrencesOf(filter, calendar, occurrence?.weeks).map((occurrence) =>
        numbered(item, inOccurrence(item.key, occurrence, standing)),
      )
    return [numbered(item, standing)]
  }
  const weeklyItem = (item: Item, week: Week, standing: CalendarPlace): ExpectedPart[] => {
    const over = laidOver(item, exceptionsAt(standing.weekly, placeInUnit(week, standing), units))
    if (!over || isModule(over.part)) return []
    return [
      numbered(over.part, {
        ...inOccurrence(item.key, weekOccurrence(week), standing),
        exception: over.exception,
      }),
    ]
  }
  /** Items are counted among their kind, so that `{number}` runs 1, 2, 3 even when a part skips weeks. */
  const numbered = (item: Item, standing: CalendarPlace): ExpectedPart => {
    return build(item, {
      ...standing,
      values: { ...standing.values, number: nextOccurrence(item.key) },
    })
  }

  const expandPart = (part: Part, standing: CalendarPlace): ExpectedPart[] => {
    if (!applies(part.when, facts)) return []
    if (!isModule(part)) return expandItem(part, standing)
    const all = part.repeat
      ? occurrencesOf(part.repeat, calendar, standing.occurrence?.weeks)
      : null
    if (!all) return [buildModule(part, standing)]
    const grouped = input.groupings?.[part.key]
    return grouped && part.groupings
      ? groupedModules(part, part.groupings.name, grouped, all, standing)
      : all.flatMap((occurrence) => occurrenceOfModule(part, occurrence, all, standing))
  }

  /**
   * Units in place of weeks, and weeks beside them: what no unit covers keeps a module of its own. In the order of the
   * calendar, so that what is counted in them is counted as students meet it.
   */
  const groupedModules = (
    part: Module,
    format: string,
    grouped: readonly Unit[],
    all: readonly Occurrence[],
    standing: CalendarPlace,
  ): ExpectedPart[] => {
    const ofUnits = occurrencesOf(
      { per: 'unit', every: 1, except: [] },
      { ...calendar, units: grouped },
    )
    const covered = new Set(ofUnits.flatMap(({ weeks }) => weeks.map((week) => week.number)))
    const alone = all.filter(({ weeks }) =>
      weeks.some((week) => !covered.has(week.number) && week.breakName === null),
    )
    const firstDay = ({ weeks }: Occurrence): string => weeks[0]?.first ?? ''
    return [...ofUnits, ...alone]
      .sort((a, b) => (firstDay(a) < firstDay(b) ? -1 : 1))
      .flatMap((occurrence) =>
        occurrence.unit === null
          ? occurrenceOfModule(part, occurrence, all, standing)
          : buildModule(
              part,
              {
                ...inOccurrence(`${part.key}-unit`, occurrence, standing),
                grouped: true,
                weekly: part.exceptions,
              },
              format,
            ),
      )
  }

  /** A module in one of its occurrences, with the exceptions that hold there laid over it. */
  const occurrenceOfModule = (
    part: Module,
    occurrence: Occurrence,
    all: readonly Occurrence[],
    standing: CalendarPlace,
  ): ExpectedPart[] => {
    const isLast = occurrence === all.at(-1)
    const place: OccurrencePlace = {
      occurrence,
      first: occurrence === all[0],
      last: isLast,
      unit: standing.occurrence?.unit
        ? { number: standing.occurrence.unit.number, endsHere: isLast }
        : null,
    }
    const found = exceptionsAt(part.exceptions, place, units)
    const over = laidOverModule(part, found)
    if (over === null) return []
    return [
      buildModule(
        over,
        {
          ...inOccurrence(part.key, occurrence, standing),
          grouped: false,
          exception: found.at(-1)?.key ?? standing.exception,
        },
        over.name,
        place,
      ),
    ]
  }

  const parts = arrange(template.parts.flatMap((part) => expandPart(part, top)))
  const homePart: Item = {
    kind: 'page',
    key: homePageKey,
    name: template.home.name,
    strength: template.home.strength,
    basis: template.home.basis,
    audience: 'students',
    position: 'in-order',
    span: 'course',
    may: {},
    settings: {},
    blocks: template.home.blocks,
    acceptsInstead: [],
    inGroup: 'per-unit',
    assesses: [],
  }
  const home = build(homePart, top)
  writePages([home, ...everyExpected(parts)], template, facts, weeks)
  return success({
    template,
    facts,
    name: renderName(formatOf(template.naming.courseName), common).text,
    label: renderName(formatOf(template.naming.courseLabel), common).text,
    weeks,
    window: template.availability
      ? availabilityWindow(weeks, facts.term.timeZone, template.availability)
      : null,
    home,
    parts,
    groupings: { ...input.groupings },
  })
}

/** Siblings in the order they are wanted: those pinned first, the rest in order (newest first where so), those pinned last. */
const arrange = (parts: ExpectedPart[]): ExpectedPart[] => {
  const at = (position: Part['position']) =>
    parts.filter((part) => part.definition.position === position)
  const newest = at('newest-first').reverse()
  const middle = parts
    .filter((part) => part.definition.position !== 'first' && part.definition.position !== 'last')
    .map((part) => (part.definition.position === 'newest-first' ? (newest.shift() ?? part) : part))
  return [...at('first'), ...middle, ...at('last')]
}

/** In a unit that stands in place of weeks: what is wanted weekly week by week, then what is wanted once. */
const arrangeByWeek = (parts: ExpectedPart[], weeks: readonly Week[]): ExpectedPart[] => {
  const weekly = (part: ExpectedPart) =>
    part.exception !== null ||
    (part.definition.kind !== 'module' && part.definition.inGroup === 'per-week')
  return [
    ...weeks.flatMap((week) =>
      arrange(parts.filter((part) => weekly(part) && part.week?.number === week.number)),
    ),
    ...arrange(parts.filter((part) => !weekly(part))),
  ]
}
