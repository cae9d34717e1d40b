import { failure, success, type Result } from '../document/index.ts'
import type { Offset } from './offset.ts'
import { weekdays } from './plainDate.ts'
import { timeAtEnd, timeAtStart } from './timeWords.ts'

/** Why an offset in words could not be read, and what to write instead. */
export interface OffsetProblem {
  code: 'not-understood'
  message: string
}

/** The time that is meant where none is written: a day on which something is due or closes is over at its end. */
export const startOfDay = '00:00'
export const endOfDay = '23:59'

/** How dates may be written, as they are shown to whoever asks: each with what it comes to. */
export const offsetExamples: readonly { write: string; means: string }[] = [
  { write: 'Sunday 23:59', means: 'the Sunday of its week; the last day of a week without one' },
  { write: 'Friday of week 3 at 5 pm', means: 'always in that week' },
  { write: 'next Monday', means: 'the Monday of the week after' },
  { write: 'day 5', means: 'the fifth day of its week' },
  { write: 'end of the week', means: 'the last day of its week; of a unit, its last' },
  { write: 'the day before the module closes', means: 'a day before that' },
  { write: 'second class at 9:30', means: 'the second class day of its week' },
  { write: '2 days before its week', means: 'counted from its first day' },
  {
    write: 'two weeks after the last day',
    means: 'of the term, or of the session the course is in',
  },
  { write: 'start of term', means: 'the first day of the first week' },
  { write: 'on Last day to withdraw', means: 'a date that the term names so' },
]

const plural = (count: number, word: string): string => `${count} ${word}${count === 1 ? '' : 's'}`
const titled = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1)

/** A name as it stands among other words: in quotation marks where it would be read as something else. */
const nameWords = (name: string): string =>
  anchorOf(name) !== null || timeAtEnd(name) !== null || /^[“"]|[”"]$/.test(name)
    ? `“${name}”`
    : name

/**
 * An offset in words that `parseOffset` reads back: `day 5 of week 3 at 23:59`, `3 weeks after the last day`,
 * `Sunday of its week at 23:59`, `class day 2 of its week at 09:00`, `on Last day to withdraw`.
 * @param usualTime the time that is meant without one; only the start of the day goes without saying
 */
export const offsetWords = (offset: Offset, usualTime: string = startOfDay): string => {
  const { from, week, weekday, days, classDay, name } = offset
  const ofWeek = week === undefined ? 'its week' : `week ${week}`
  const goesWithoutSaying = offset.time === startOfDay && usualTime === startOfDay
  const time = goesWithoutSaying ? '' : ` at ${offset.time}`
  const away =
    Math.abs(days) % 7 === 0 && days !== 0
      ? plural(Math.abs(days) / 7, 'week')
      : plural(Math.abs(days), 'day')
  const side = days < 0 ? 'before' : 'after'
  const anchors = {
    'week-start': ofWeek,
    'week-end': `the last day of ${ofWeek}`,
    weekday: `${titled(weekday ?? 'monday')} of ${ofWeek}`,
    'class-day': `class day ${classDay ?? 1} of ${ofWeek}`,
    'term-start': 'the first day',
    'term-end': 'the last day',
    'named-date': nameWords(name ?? ''),
  }
  if (from === 'week-start' && days >= 0 && days < 7) return `day ${days + 1} of ${ofWeek}${time}`
  if (days === 0) return `${from === 'named-date' ? 'on ' : ''}${anchors[from]}${time}`
  return `${away} ${side} ${anchors[from]}${time}`
}

type Anchor = Partial<Offset> & Pick<Offset, 'from'>

const numberWords = 'one two three four five six seven eight nine ten eleven twelve'.split(' ')
const ordinals = 'first second third fourth fifth sixth seventh'.split(' ')
/** @returns null for what is no number from 1 on */
const countOf = (word: string): number | null => {
  const said = word.toLowerCase()
  if (/^(?:a|an|the)$/.test(said)) return 1
  const digits = /^(\d{1,3})(?:st|nd|rd|th)?$/.exec(said)
  const count = digits
    ? Number(digits[1])
    : numberWords.indexOf(said) + 1 || ordinals.indexOf(said) + 1
  return count > 0 ? count : null
}

/** A week, or the module or unit that a part stands in; its number where it is another one. */
const stretch = '(?:(?:its|the|this|that|each|every) (?:week|module|unit)|week (\\d{1,2}))'
const whole = '(?:the )?(?:term|course|session|semester|classes|class|teaching)'
const dayNames = weekdays
  .map((day) => `${day.slice(0, 3)}|${day.slice(0, 4)}|${day.slice(0, 5)}|${day}s?`)
  .join('|')
const ofStretch = `(?: (?:of|in) ${stretch})?`

const weekOf = (number: string | undefined): { week?: number } =>
  number === undefined ? {} : { week: Number(number) }
const weekdayOf = (name: string | undefined): { weekday?: Offset['weekday'] } => {
  const begun = (name ?? '').toLowerCase().slice(0, 3)
  const weekday = weekdays.find((day) => day.startsWith(begun))
  return weekday ? { weekday } : {}
}
const pattern = (text: string): RegExp => new RegExp(`^(?:${text})$`, 'i')

/** What days are counted from; where something begins, it is its very beginning that is meant. */
const anchorPatterns: readonly [RegExp, (match: RegExpExecArray) => Anchor | null][] = [
  [pattern(stretch), ([, week]) => ({ from: 'week-start', ...weekOf(week) })],
  [
    pattern(`(?:the )?(?:end|close|last day|final day) of ${stretch}`),
    ([, week]) => ({ from: 'week-end', ...weekOf(week) }),
  ],
  [
    pattern(`(?:when )?${stretch} (?:ends?|closes|is over)`),
    ([, week]) => ({ from: 'week-end', ...weekOf(week) }),
  ],
  [
    pattern(`(?:the )?(?:start|beginning|first day) of ${stretch}`),
    ([, week]) => ({ from: 'week-start', ...weekOf(week), time: startOfDay }),
  ],
  [
    pattern(`(?:when )?${stretch} (?:starts?|begins|opens)`),
    ([, week]) => ({ from: 'week-start', ...weekOf(week), time: startOfDay }),
  ],
  [
    pattern(`(?:on |each |every |the )?(${dayNames})${ofStretch}`),
    ([, day, week]) => ({ from: 'weekday', ...weekdayOf(day), ...weekOf(week) }),
  ],
  [
    pattern(`week (\\d{1,2}),? (${dayNames})`),
    ([, week, day]) => ({ from: 'weekday', ...weekdayOf(day), ...weekOf(week) }),
  ],
  [
    pattern(`(?:the )?(?:next|following) (${dayNames})`),
    ([, day]) => ({ from: 'weekday', ...weekdayOf(day), days: 7 }),
  ],
  [
    pattern(`class day (\\d)${ofStretch}`),
    ([, day, week]) => ({ from: 'class-day', classDay: Number(day), ...weekOf(week) }),
  ],
  [
    pattern(`(?:the )?(\\w+) (?:class day|class|meeting)${ofStretch}`),
    ([, day, week]) => {
      const classDay = countOf(day ?? '')
      return classDay === null || /^the$/i.test(day ?? '')
        ? null
        : { from: 'class-day', classDay, ...weekOf(week) }
    },
  ],
  [pattern(`(?:the )?first day(?: of ${whole})?`), () => ({ from: 'term-start' })],
  [pattern(`(?:the )?last day(?: of ${whole})?`), () => ({ from: 'term-end' })],
  [
    pattern(`(?:the )?(?:start|beginning) of ${whole}`),
    () => ({ from: 'term-start', time: startOfDay }),
  ],
  [pattern(`(?:the )?end of ${whole}`), () => ({ from: 'term-end' })],
  [
    pattern(`(?:when )?${whole} (?:starts?|begins?|opens)`),
    () => ({ from: 'term-start', time: startOfDay }),
  ],
  [pattern(`(?:when )?${whole} (?:ends?|closes|is over)`), () => ({ from: 'term-end' })],
]

const anchorOf = (words: string): Anchor | null => {
  for (const [pattern, read] of anchorPatterns) {
    const match = pattern.exec(words)
    if (match) return read(match)
  }
  return null
}

const mostDays = 366
const mostClassDays = 7
const longestWords = 300

/**
 * Reads an offset written in words, as `offsetWords` writes it and as people do: `Sunday 23:59`, `end of the week`, `the day
 * before the module closes`, `two weeks after the last day`.
 * @param usualTime the time that is meant without one
 * @returns the offset, or what to write instead. A name that is no anchor of ours is taken for one of the term's named
 * dates only after `on`, or with a count of days before or after it.
 */
export const parseOffset = (
  words: string,
  usualTime: string = startOfDay,
): Result<Offset, OffsetProblem> => {
  const told = failure<OffsetProblem>({
    code: 'not-understood',
    message: `“${words.slice(0, 80)}” was not understood; write it like “Sunday 23:59”, “day 5 of week 3 at 23:59”, “3 weeks after the last day”, “2 days before its week” or “on Last day to withdraw”`,
  })
  const said = words.trim().replace(/\s+/g, ' ').slice(0, longestWords)
  const timed = timeAtEnd(said) ?? timeAtStart(said)
  const time = timed?.time ?? usualTime
  const rest = (timed?.rest ?? said).replace(/^(?:due |by |until )+/i, '')
  const day = pattern(`(?:on )?day (\\d{1,3})${ofStretch}`).exec(rest)
  if (day)
    return Number(day[1]) < 1 || Number(day[1]) > mostDays + 1
      ? told
      : success({ from: 'week-start', ...weekOf(day[2]), days: Number(day[1]) - 1, time })
  const away = /^(\w+) (day|week|fortnight)s? (before|after) (.+)$/i.exec(rest)
  const count = away ? countOf(away[1] ?? '') : null
  if (away && (count === null || /^(?:first|last)$/i.test(away[1] ?? ''))) return told
  const each = { day: 1, week: 7, fortnight: 14 }[away?.[2]?.toLowerCase() ?? 'day'] ?? 1
  const days = (count ?? 0) * each * (away?.[3]?.toLowerCase() === 'before' ? -1 : 1)
  const anchor = anchorOf(away?.[4] ?? rest)
  const all = days + (anchor?.days ?? 0)
  if (Math.abs(all) > mostDays || (anchor?.classDay ?? 1) > mostClassDays) return told
  if (anchor) return success({ ...anchor, days: all, time: timed?.time ?? anchor.time ?? time })
  const named = away ? away[4] : /^on (.+)$/i.exec(rest)?.[1]
  if (named === undefined) return told
  const name = /^[“"](.+)[”"]$/.exec(named)?.[1] ?? named
  return success({ from: 'named-date', name, days, time })
}
