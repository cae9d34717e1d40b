import { z } from 'zod'
import { remember } from '../remember/index.ts'

const millisecondsPerDay = 86_400_000

/** A term has some hundred days, and a check asks for them thousands of times. */
const mostDays = 20_000

/** Days since 1970-01-01 of a date `YYYY-MM-DD` (proleptic Gregorian). */
export const dayNumber = remember(mostDays, (date: string): number =>
  Math.round(
    Date.UTC(Number(date.slice(0, 4)), Number(date.slice(5, 7)) - 1, Number(date.slice(8, 10))) /
      millisecondsPerDay,
  ),
)

/** The date `YYYY-MM-DD` that many days since 1970-01-01. */
export const dateOfDayNumber = remember(mostDays, (day: number): string =>
  new Date(day * millisecondsPerDay).toISOString().slice(0, 10),
)

export const addDays = (date: string, days: number): string =>
  dateOfDayNumber(dayNumber(date) + days)

/** The same day so many months later; the last of that month, where it has no such day. */
export const addMonths = (date: string, months: number): string => {
  const month = Number(date.slice(0, 4)) * 12 + Number(date.slice(5, 7)) - 1 + months
  const first = (at: number): string =>
    `${String(Math.floor(at / 12)).padStart(4, '0')}-${String((at % 12) + 1).padStart(2, '0')}-01`
  const sameDay = addDays(first(month), Number(date.slice(8)) - 1)
  const last = addDays(first(month + 1), -1)
  return sameDay < last ? sameDay : last
}

/** Whole days from `from` to `to`; negative when `to` is earlier. */
export const daysBetween = (from: string, to: string): number => dayNumber(to) - dayNumber(from)

export const weekdays = [
  'monday',
  'tuesday',
  'wednesday',
  'thursday',
  'friday',
  'saturday',
  'sunday',
] as const
export type Weekday = (typeof weekdays)[number]

/** Weekday index of a date, Monday 0 to Sunday 6 (the order of ISO 8601). */
export const weekdayIndex = (date: string): number => (((dayNumber(date) + 3) % 7) + 7) % 7

/** Whether a string is a real calendar date written `YYYY-MM-DD` (ISO 8601 extended). */
export const isPlainDate = remember(
  mostDays,
  (text: string): boolean =>
    /^\d{4}-\d{2}-\d{2}$/.test(text) && dateOfDayNumber(dayNumber(text)) === text,
)

export const PlainDate = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/, 'a date written YYYY-MM-DD')
  .refine(isPlainDate, 'a date that exists, written YYYY-MM-DD')
  .describe('A calendar date, YYYY-MM-DD, read in the time zone of the term')
