/**
 * Dates in names and prose are written from these tables and never by the platform's own library, whose output
 * differs by version (thin spaces, other month forms).
 */
import { everyMonthWord, monthOfWord, withoutAccents } from './dateWords.ts'
import { dayNumber, isPlainDate, weekdayIndex } from './plainDate.ts'

export const monthNames = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const
export const dayNames = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const

const letters: Record<string, (date: string) => string> = {
  yyyy: (date) => date.slice(0, 4),
  yy: (date) => date.slice(2, 4),
  MMMM: (date) => monthNames[Number(date.slice(5, 7)) - 1] ?? '',
  MMM: (date) => (monthNames[Number(date.slice(5, 7)) - 1] ?? '').slice(0, 3),
  MM: (date) => date.slice(5, 7),
  M: (date) => String(Number(date.slice(5, 7))),
  dd: (date) => date.slice(8, 10),
  d: (date) => String(Number(date.slice(8, 10))),
  EEEE: (date) => dayNames[weekdayIndex(date)] ?? '',
  EEE: (date) => (dayNames[weekdayIndex(date)] ?? '').slice(0, 3),
}
const letterRun = /yyyy|yy|MMMM|MMM|MM|M|dd|d|EEEE|EEE/g

/** Whether a style is made of the UTS #35 letters we know (year, month, day, weekday) and punctuation only. */
export const isDateStyle = (style: string): boolean =>
  /[yMdE]/.test(style) &&
  !/[A-Za-z]/.test(style.replace(/ to (?=[yMdE])/, ' ').replace(letterRun, ''))

/** A date written in a UTS #35 pattern of year, month, day and weekday letters. */
export const formatDate = (date: string, style: string): string =>
  style.replace(letterRun, (run) => letters[run]?.(date) ?? run)

/** A range written in a style that holds two dates, e.g. `MMM d – MMM d`; a style of one date writes the first day. */
export const formatDateRange = (first: string, last: string, style: string): string => {
  const { opening, separator, closing } = splitRangeStyle(style)
  if (closing === null) return formatDate(first, opening)
  // `MMM d–d` names the month once; where the range crosses into another, both are named.
  const crosses = first.slice(0, 7) !== last.slice(0, 7)
  const full = opening.includes('M') ? opening : closing
  return (
    formatDate(first, crosses && !opening.includes('M') ? full : opening) +
    separator +
    formatDate(last, crosses && !closing.includes('M') ? full : closing)
  )
}

/** Splits a range style at the dash between its two dates. */
export const splitRangeStyle = (
  style: string,
): { opening: string; separator: string; closing: string | null } => {
  const dash = /^(.*[yMdE])(\s*[–—-]\s*|\s+to\s+)((?=[yMdE]).*)$/.exec(style)
  if (!dash || style === 'yyyy-MM-dd' || !/d/.test(dash[1] ?? ''))
    return { opening: style, separator: '', closing: null }
  return { opening: dash[1] ?? '', separator: dash[2] ?? '', closing: dash[3] ?? '' }
}

/** A date someone wrote. `year` is null where none was written. */
export interface DateMention {
  text: string
  /** Character offset in the text. */
  at: number
  month: number
  day: number
  year: number | null
}

const monthWord = `(?:${everyMonthWord.join('|')})`
const suffix = '(?:st|nd|rd|th|er|a|o)?'
/** Over text in lower case without accents, where \\b and the plain classes do. */
const mention = new RegExp(
  `\\b(?:(${monthWord})\\.? (\\d{1,2})${suffix}|(\\d{1,2})${suffix} (?:of |de )?(${monthWord})\\b\\.?)(?!\\w)(?:,?(?: de)? (\\d{4})\\b)?|\\b(\\d{4})-(\\d{2})-(\\d{2})\\b`,
  'g',
)

/** How a date must at least look: most paragraphs are told to hold none at this first glance. */
const mayHoldDate =
  /jan|f[eé]v|feb|mar|a[pvb]r|ma[iy]|ju[nli]|ene|ao[uû]|aug|ago|sep|set|oct|nov|d[eé]c|dic|\d{4}-\d|[^\x20-\x7e]/i

/** The dates written in a text as `Sep 14`, `14 September 2026`, `September 14, 2026`, `14 septembre` or `2026-09-14`, in order. */
export const datesMentioned = (text: string): DateMention[] => {
  if (!/\d/.test(text) || !mayHoldDate.test(text)) return []
  const found: DateMention[] = []
  const composed = text.normalize('NFC')
  const plain = withoutAccents(composed).toLowerCase()
  // Few letters change their length with their case; where one did, places are found in the text as it stands.
  const searched = plain.length === composed.length ? plain : composed
  for (const match of searched.matchAll(mention)) {
    const [whole, wordFirst, dayAfter, dayBefore, wordAfter, year, isoYear, isoMonth, isoDay] =
      match
    const month = isoMonth ? Number(isoMonth) : (monthOfWord(wordFirst ?? wordAfter ?? '') ?? 0)
    const day = Number(isoDay ?? dayAfter ?? dayBefore)
    const written = isoYear ?? year
    const said = composed.slice(match.index, match.index + whole.length)
    // “may 2” is what one may do; “May 2” is a day.
    if (
      month < 1 ||
      month > 12 ||
      day < 1 ||
      day > 31 ||
      /(?<![A-Za-z])(?:may|mar)(?![A-Za-z])/.test(said)
    )
      continue
    found.push({ text: said, at: match.index, month, day, year: written ? Number(written) : null })
  }
  return found
}

/** A mention as a date `YYYY-MM-DD`; without a written year, the year in which it lies nearest to `near`. Null if there is none. */
export const dateOfMention = (
  said: Pick<DateMention, 'month' | 'day' | 'year'>,
  near: string,
): string | null => {
  const inYear = (year: number) =>
    `${year}-${String(said.month).padStart(2, '0')}-${String(said.day).padStart(2, '0')}`
  if (said.year !== null) return isPlainDate(inYear(said.year)) ? inYear(said.year) : null
  const around = Number(near.slice(0, 4))
  let nearest: string | null = null
  let least = Infinity
  for (let year = around - 1; year <= around + 1; year++) {
    const date = inYear(year)
    const distance = isPlainDate(date) ? Math.abs(dayNumber(date) - dayNumber(near)) : Infinity
    if (distance < least) {
      least = distance
      nearest = date
    }
  }
  return nearest
}
