/** A time of day as people write it: `23:59`, `9.30`, `5 pm`, `11:59 p.m.`, `17h`, `noon`, `midnight`. */
const time =
  '(noon|midday|midnight|\\d{1,2}(?:[:.]\\d{2})? ?[ap]\\.?m\\.?|\\d{1,2}[:.]\\d{2}|\\d{1,2}h(?:\\d{2})?)'
const atEnd = new RegExp(`^(?:(.*?),? )??(?:at |by |@ ?)?${time}$`, 'i')
const atStart = new RegExp(`^(?:at |by )?${time},? (.+)$`, 'i')

const two = (number: number): string => String(number).padStart(2, '0')

/**
 * Reads a time of day. The midnight of a day is its last minute, as whoever is told a day by midnight takes it.
 * @returns `HH:MM`; null where there is no such time
 */
const timeOf = (said: string): string | null => {
  const words = said.toLowerCase().replaceAll('.m', 'm').replace(/m\.$/, 'm')
  if (words === 'noon' || words === 'midday') return '12:00'
  if (words === 'midnight') return '23:59'
  const read = /^(\d{1,2})(?:[:.h](\d{2}))?h? ?([ap]m)?$/.exec(words)
  if (!read) return null
  const hour = Number(read[1])
  const minute = Number(read[2] ?? 0)
  const half = read[3]
  if (minute > 59 || (half ? hour < 1 || hour > 12 : hour > 23)) return null
  return `${two(half ? (hour % 12) + (half === 'pm' ? 12 : 0) : hour)}:${two(minute)}`
}

/** What is written before a time of day, and the time `HH:MM`; null where none ends the words. */
export const timeAtEnd = (words: string): { rest: string; time: string } | null => {
  const match = atEnd.exec(words)
  const time = match ? timeOf(match[2] ?? '') : null
  return time === null ? null : { rest: match?.[1] ?? '', time }
}

/** The same for words that begin with it, as in `5 pm on Friday`. */
export const timeAtStart = (words: string): { rest: string; time: string } | null => {
  const match = atStart.exec(words)
  const time = match ? timeOf(match[1] ?? '') : null
  return time === null ? null : { rest: match?.[2] ?? '', time }
}
