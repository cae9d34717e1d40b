import { z } from 'zod'
import { evenUnits, instructionalWeeks, PlainDate, spanningTerm } from '../calendar/index.ts'
import { Facts } from '../course/index.ts'
import { failure, success, type Problem, type Result } from '../document/index.ts'
import type { FieldName, FieldValues, NameContext, NamingFormat } from '../naming/index.ts'
import { occurrencesOf, type Occurrence } from './repetitions.ts'
import { courseValues, occurrenceValues } from './occurrenceValues.ts'

/** Where a name stands, as far as it is known; nothing of it means anywhere in the course. */
export const NamePlace = z.strictObject({
  week: z.number().int().min(0).max(120).optional().describe('Number of the instructional week'),
  half: z.enum(['A', 'B']).optional().describe('Half of that week, in a class that meets twice'),
  unit: z.number().int().min(1).max(60).optional(),
  day: z
    .number()
    .int()
    .min(1)
    .max(400)
    .optional()
    .describe('Number of the class day in the course'),
  number: z.number().int().min(0).max(999).optional().describe('Number among its kind: quiz 3'),
  kind: z.string().min(1).max(200).optional().describe('Which of the choices of {kind, …}'),
  topic: z
    .string()
    .min(1)
    .max(300)
    .optional()
    .describe('The topic, where it is known; else that of the facts'),
  minutes: z.number().int().min(0).max(100_000).optional(),
  points: z.number().int().min(0).max(100_000).optional(),
  due: PlainDate.optional().describe('Due date, YYYY-MM-DD'),
})
export type NamePlace = z.output<typeof NamePlace>

/** What a name is judged in: a course's facts with their term, and where the name stands. */
export const NameContextDocument = z.strictObject({
  schema: z.literal('wickerframe.name-context/1'),
  facts: Facts,
  place: NamePlace.default({}),
})
export type NameContextDocument = z.output<typeof NameContextDocument>

const mentioned = (format: NamingFormat): ReadonlySet<FieldName> =>
  new Set(
    format.nodes
      .flatMap((node) => (node.node === 'optional' ? node.nodes : [node]))
      .flatMap((node) => (node.node === 'field' ? [node.field] : [])),
  )

/** In which occurrences a name of this format may stand, when nothing narrower is known. */
const repeatedPer = (fields: ReadonlySet<FieldName>): 'unit' | 'half' | 'day' | 'week' | null => {
  if (fields.has('half')) return 'half'
  if (fields.has('unit') || fields.has('weeks')) return 'unit'
  if (fields.has('day')) return 'day'
  return fields.has('week') || fields.has('dates') || fields.has('start') || fields.has('end')
    ? 'week'
    : null
}

/**
 * Works out what the fields of a format should say at the place a name stands, or at every place it may stand in the
 * course where that is not known.
 * @returns the places, or which part of the place is not in the course's calendar
 */
export const nameContext = (
  { facts, place }: Pick<NameContextDocument, 'facts' | 'place'>,
  format: NamingFormat,
): Result<NameContext> => {
  const weeks = instructionalWeeks({
    term: facts.term,
    nextTerm: facts.nextTerm,
    session: facts.session,
    count: facts.weeks,
  })
  const units = facts.units ?? evenUnits(weeks, 4)
  const calendar = {
    weeks,
    units,
    term: spanningTerm(facts.term, facts.nextTerm),
    meetingDays: facts.meetingDays ?? [],
  }
  const occurrences = (per: 'unit' | 'half' | 'day' | 'week') =>
    occurrencesOf({ per, every: 1, except: [] }, calendar)
  const { week, half, unit, day, ...item } = place

  const missing = (path: string, found: unknown, expected: string): Result<NameContext> =>
    failure<Problem[]>([
      { code: 'not-allowed', path: `/place/${path}`, found: String(found), expected },
    ])
  let standing: (Occurrence | null)[]
  if (unit !== undefined) {
    standing = occurrences('unit').filter((occurrence) => occurrence.number === unit)
    if (standing.length === 0)
      return missing(
        'unit',
        unit,
        `a unit of the course: ${units.map((unit) => unit.number).join(', ')}`,
      )
  } else if (half !== undefined) {
    standing = occurrences('half').filter(
      (occurrence) =>
        occurrence.half?.half === half && (week === undefined || occurrence.number === week),
    )
    if (standing.length === 0)
      return missing('half', half, 'a half of a week; the facts must name two meetingDays')
  } else if (day !== undefined) {
    standing = occurrences('day').filter((occurrence) => occurrence.number === day)
    if (standing.length === 0)
      return missing('day', day, `a class day of the course, 1 to ${occurrences('day').length}`)
  } else if (week !== undefined) {
    standing = occurrences('week').filter((occurrence) => occurrence.number === week)
    if (standing.length === 0)
      return missing(
        'week',
        week,
        `a week of the course, ${weeks[0]?.number ?? 1} to ${weeks.at(-1)?.number ?? 0}`,
      )
  } else {
    const per = repeatedPer(mentioned(format))
    standing = per === null ? [null] : occurrences(per)
    if (standing.length === 0) standing = [null]
  }
  const places = standing.map((occurrence): FieldValues => {
    const values: FieldValues = occurrence
      ? occurrenceValues(facts, occurrence)
      : courseValues(facts)
    // The occurrence's own number is not the number among a kind of item.
    if (
      occurrence &&
      item.number === undefined &&
      mentioned(format).has('number') &&
      repeatedPer(mentioned(format)) !== null
    )
      delete values.number
    return {
      ...values,
      ...(week !== undefined && occurrence?.unit ? { week } : {}),
      ...(day !== undefined ? { day } : {}),
      ...definedOf(item),
    }
  })
  return success({
    places,
    near: weeks[0]?.first ?? facts.term.firstDay,
    classSections: facts.classSections,
  })
}

const definedOf = (item: Omit<NamePlace, 'week' | 'half' | 'unit' | 'day'>): FieldValues =>
  Object.fromEntries(Object.entries(item).filter(([, value]) => value !== undefined))
