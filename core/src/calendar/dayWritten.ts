import { dateOfMention, datesMentioned } from './dateText.ts'
import { weekdayOfWord } from './dateWords.ts'
import { addDays, isPlainDate, weekdayIndex } from './plainDate.ts'

/** What somebody wrote where a day is asked for. */
export type DayWritten =
  | { state: 'day'; day: string }
  /** Day and month may each be the other. */
  | { state: 'either'; days: readonly [string, string] }
  | { state: 'none' }

const none: DayWritten = { state: 'none' }
const relative: Readonly<Record<string, number>> = { yesterday: -1, today: 0, tomorrow: 1 }
const separated = /^(\d{1,2})\s?([/.-])\s?(\d{1,2})(?:\s?\2\s?(\d{4}|\d{2}))?\.?$/
const yearFirst = /^(\d{4})[-/.]?(\d{1,2})[-/.]?(\d{1,2})$/

const dayOf = (day: number, month: number, year: number | null, near: string): string | null =>
  month < 1 || month > 12 || day < 1 ? null : dateOfMention({ day, month, year }, near)

/** Numbers alone. Between dots the day is first (common practice, no source); else the month may be. */
const ofNumbers = (text: string, near: string): DayWritten => {
  const [, year, month, day] = yearFirst.exec(text) ?? []
  if (year !== undefined) {
    const found = dayOf(Number(day), Number(month), Number(year), near)
    return found === null ? none : { state: 'day', day: found }
  }
  const [, one, separator, other, said] = separated.exec(text) ?? []
  if (one === undefined) return none
  const written = said === undefined ? null : Number(said.length === 2 ? `20${said}` : said)
  const dayFirst = dayOf(Number(one), Number(other), written, near)
  const monthFirst = separator === '.' ? null : dayOf(Number(other), Number(one), written, near)
  if (dayFirst !== null && monthFirst !== null && dayFirst !== monthFirst)
    return { state: 'either', days: [dayFirst, monthFirst] }
  const found = dayFirst ?? monthFirst
  return found === null ? none : { state: 'day', day: found }
}

/** `today`, `tomorrow`, or a weekday: the next one after `near`. */
const ofWord = (word: string, near: string): DayWritten => {
  const days = relative[word]
  if (days !== undefined) return { state: 'day', day: addDays(near, days) }
  const weekday = weekdayOfWord(word)
  if (weekday === null) return none
  return { state: 'day', day: addDays(near, ((weekday - 1 - weekdayIndex(near) + 6) % 7) + 1) }
}

/**
 * The day that somebody wrote, in whatever way: `16 Sep`, `Wed 16 Sep 2026`, `September 16`, `2026-09-16`, `16.9.`, `9/16/2026`,
 * `tomorrow`, `monday`. A weekday beside a date is passed over; without a year it is the nearest such day.
 * @param near `YYYY-MM-DD`; what `today` is, and where a day without a year is looked for
 */
export const dayWritten = (text: string, near: string): DayWritten => {
  const said = text.trim().replace(/\s+/g, ' ')
  if (said === '') return none
  const words = said.toLowerCase()
  const alone = ofWord(words.replace(/[.,]$/, ''), near)
  if (alone.state === 'day') return alone
  const [first = '', ...others] = words.split(/[ ,]+/)
  const rest =
    weekdayOfWord(first.replace(/\.$/, '')) === null || others.length === 0
      ? words
      : others.join(' ')
  const numbers = ofNumbers(rest, near)
  if (numbers.state !== 'none') return numbers
  // A month in small letters may be a word of prose; in a field it is none.
  const capital = rest
    .replace(/^(\d{1,2})\.? ?(?=\p{L})/u, '$1 ')
    .replace(/\p{L}+/gu, (word) => word.charAt(0).toUpperCase() + word.slice(1))
    .replace(/^(\d{1,2}) (St|Nd|Rd|Th|Er)\b/, '$1')
  const [mention] = datesMentioned(capital)
  if (!mention || mention.text.length < capital.replace(/\.$/, '').length) return none
  const day = dateOfMention(mention, near)
  return day !== null && isPlainDate(day) ? { state: 'day', day } : none
}
