import { daysBetween } from '../../calendar/index.ts'
import { isDaySpan, isNumberSpan, type FieldValue, type FieldValues } from '../fields.ts'
import { writeField } from '../render.ts'
import type { Candidate } from './candidates.ts'
import { seasonAndYear } from './courseWords.ts'
import type { SaidDates } from './saidDates.ts'

/** The reading of written dates that fits a place best, and how well: 3 just so, 1 a few days off, −1 elsewhere. */
export const fitDates = (
  readings: SaidDates['readings'],
  wanted: FieldValue | undefined,
): { reading: SaidDates['readings'][number] | null; fit: number } => {
  let best: { reading: SaidDates['readings'][number] | null; fit: number } = {
    reading: readings[0] ?? null,
    fit: wanted === undefined ? 0.5 : -1,
  }
  if (wanted === undefined) return best
  const [first, last] = isDaySpan(wanted) ? [wanted.first, wanted.last] : [String(wanted), null]
  for (const reading of readings) {
    const fit = fitOf(reading, first, last)
    if (fit > best.fit) best = { reading, fit }
  }
  return best
}
const fitOf = (
  reading: SaidDates['readings'][number],
  first: string,
  last: string | null,
): number => {
  if (reading.first === first && (last === null || reading.last === last)) return 3
  if (reading.first === first && reading.last === null) return 1.5
  return near(reading.first, first) &&
    (last === null || reading.last === null || near(reading.last, last))
    ? 1
    : -1
}
const near = (a: string, b: string): boolean => a === b || Math.abs(daysBetween(a, b)) <= 4

/** How much the place speaks for a candidate, beside its own weight. */
export const placeWeight = (candidate: Candidate, place: FieldValues): number => {
  const { field, value, dates, how } = candidate
  if (field === null) return 0
  const wanted = place[field]
  if (dates) {
    const { fit } = fitDates(dates, how === 'not-asked' ? (place.dates ?? place.due) : wanted)
    if (how === 'not-asked') return fit >= 1.5 ? 1 : -9
    return how === 'start-only' && fit < 1.5 ? -9 : fit
  }
  if (how === 'not-asked' && isNumberSpan(value ?? undefined))
    return sameSpan(value, wanted) ? 1 : -9
  if (how === 'not-asked')
    return field === 'code' ||
      (field === 'term'
        ? sameTerm(String(value), place.term)
        : wanted !== undefined && Number(value) === Number(wanted))
      ? 1
      : -9
  if (wanted === undefined || value === null) return 0
  if (field === 'term') return sameTerm(String(value), wanted) ? 1 : 0
  if (isNumberSpan(value)) return sameSpan(value, wanted) ? 2 : -1
  if (typeof value === 'number')
    return value === Number(wanted) ? 3 : how === 'bare' || how === 'another-stretch' ? -4 : -2.5
  return value === wanted ? 2 : -1
}

/** Whether two values are the same span of numbers. */
export const sameSpan = (
  a: FieldValue | null | undefined,
  b: FieldValue | null | undefined,
): boolean =>
  isNumberSpan(a ?? undefined) &&
  isNumberSpan(b ?? undefined) &&
  writeField('weeks', null, a ?? '') === writeField('weeks', null, b ?? '')

export const sameTerm = (said: string, wanted: FieldValue | undefined): boolean => {
  if (typeof wanted !== 'string') return false
  if (said === wanted) return true
  const term = seasonAndYear(wanted)
  return term !== null && said === `${term.season} ${term.year}`
}
