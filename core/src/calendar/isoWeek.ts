import { addDays, daysBetween, weekdayIndex } from './plainDate.ts'

/** The ISO 8601 week of a date: weeks begin on Monday, and week 1 is the one with the year's first Thursday. */
export const isoWeekOf = (date: string): { year: number; week: number } => {
  const thursday = addDays(date, 3 - weekdayIndex(date))
  const year = Number(thursday.slice(0, 4))
  return { year, week: 1 + Math.floor(daysBetween(`${thursday.slice(0, 4)}-01-01`, thursday) / 7) }
}
