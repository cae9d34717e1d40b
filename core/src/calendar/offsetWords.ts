import { failure, success, type Result } from '../document/index.ts'
import type { Offset } from './offset.ts'

/** Why an offset in words could not be read, and what to write instead. */
export interface OffsetProblem {
  code: 'not-understood'
  message: string
}

const plural = (count: number, word: string): string => `${count} ${word}${count === 1 ? '' : 's'}`

/**
 * An offset in words that `parseOffset` reads back: `day 5 of week 3 at 23:59`, `3 weeks after the last day`,
 * `2 days before its week`, `class day 2 of its week at 09:00`, `on Last day to withdraw`.
 */
export const offsetWords = (offset: Offset): string => {
  const { from, week, days, classDay, name } = offset
  const ofWeek = week === undefined ? 'its week' : `week ${week}`
  const time = offset.time === '00:00' ? '' : ` at ${offset.time}`
  const away =
    Math.abs(days) % 7 === 0 && days !== 0
      ? plural(Math.abs(days) / 7, 'week')
      : plural(Math.abs(days), 'day')
  const side = days < 0 ? 'before' : 'after'
  const anchors = {
    'week-start': ofWeek,
    'week-end': `the last day of ${ofWeek}`,
    'class-day': `class day ${classDay ?? 1} of ${ofWeek}`,
    'term-start': 'the first day',
    'term-end': 'the last day',
    'named-date': name ?? '',
  }
  if (from === 'week-start' && days >= 0 && days < 7) return `day ${days + 1} of ${ofWeek}${time}`
  if (days === 0) return `${from === 'named-date' ? 'on ' : ''}${anchors[from]}${time}`
  return `${away} ${side} ${anchors[from]}${time}`
}

const anchorPatterns: readonly [
  RegExp,
  (match: RegExpExecArray) => Partial<Offset> & Pick<Offset, 'from'>,
][] = [
  [
    /^the last day of (?:its week|week (\d{1,2}))$/i,
    (match) => ({ from: 'week-end', ...weekOf(match[1]) }),
  ],
  [
    /^class day (\d) of (?:its week|week (\d{1,2}))$/i,
    (match) => ({ from: 'class-day', classDay: Number(match[1]), ...weekOf(match[2]) }),
  ],
  [/^(?:the )?first day(?: of the term| of term)?$/i, () => ({ from: 'term-start' })],
  [/^(?:the )?last day(?: of the term| of term| of class)?$/i, () => ({ from: 'term-end' })],
  [/^(?:its week|week (\d{1,2}))$/i, (match) => ({ from: 'week-start', ...weekOf(match[1]) })],
]
const weekOf = (number: string | undefined): { week?: number } =>
  number === undefined ? {} : { week: Number(number) }

/**
 * Reads an offset written in words.
 * @returns the offset, or what to write instead. A name that is no anchor of ours is taken for one of the term's named
 * dates only after `on`, or with a count of days before or after it.
 */
export const parseOffset = (words: string): Result<Offset, OffsetProblem> => {
  const told = failure<OffsetProblem>({
    code: 'not-understood',
    message: `“${words.slice(0, 80)}” was not understood; write it like “day 5 of week 3 at 23:59”, “3 weeks after the last day”, “2 days before its week” or “on Last day to withdraw”`,
  })
  const timed = /^(.*?)(?: at ((?:[01]\d|2[0-3]):[0-5]\d))?$/.exec(
    words.trim().replace(/\s+/g, ' ').slice(0, 300),
  )
  const time = timed?.[2] ?? '00:00'
  const rest = timed?.[1] ?? ''
  const day = /^day (\d{1,3}) of (?:its week|week (\d{1,2}))$/i.exec(rest)
  if (day)
    return Number(day[1]) < 1
      ? told
      : success({ from: 'week-start', ...weekOf(day[2]), days: Number(day[1]) - 1, time })
  const away = /^(\d{1,3}) (day|week)s? (before|after) (.+)$/i.exec(rest)
  const days = away
    ? Number(away[1]) *
      (away[2]?.toLowerCase() === 'week' ? 7 : 1) *
      (away[3]?.toLowerCase() === 'before' ? -1 : 1)
    : 0
  if (Math.abs(days) > 366) return told
  const anchor = away?.[4] ?? rest
  for (const [pattern, from] of anchorPatterns) {
    const match = pattern.exec(anchor)
    if (match) return success({ ...from(match), days, time })
  }
  const name = away ? anchor : /^on (.+)$/i.exec(anchor)?.[1]
  return name === undefined ? told : success({ from: 'named-date', name, days, time })
}
