import { daysBetween } from '../../calendar/index.ts'
import { dateNear, type SaidDates } from './saidDates.ts'
import { isMark, isWord, skipSpace, withBrackets, type Token } from './tokens.ts'

/** Longest stretch, in days, that two numbers are taken for when nothing but their digits says that they are days. */
const longest = 31

/** A day in digits alone, in every way it may be read: 0921, 2109, 20260921, 9.21, 21-9, and 21. before 27.9. */
interface CompactDay {
  readings: readonly { year: number | null; month: number | null; day: number }[]
  to: number
}

const dayAt = (tokens: readonly Token[], at: number): CompactDay | null => {
  const token = tokens[at]
  if (token?.kind !== 'number') return null
  const digits = token.text
  if (digits.length === 8)
    return {
      readings: [
        {
          year: Number(digits.slice(0, 4)),
          month: Number(digits.slice(4, 6)),
          day: Number(digits.slice(6)),
        },
      ],
      to: at + 1,
    }
  const either = (a: number, b: number): CompactDay['readings'] => [
    { year: null, month: a, day: b },
    { year: null, month: b, day: a },
  ]
  if (digits.length === 4)
    return { readings: either(Number(digits.slice(0, 2)), Number(digits.slice(2))), to: at + 1 }
  if (digits.length > 2) return null
  const second = tokens[at + 2]
  if (isMark(tokens[at + 1], '.-') && second?.kind === 'number' && second.text.length <= 2)
    return {
      readings: either(Number(digits), Number(second.text)),
      to: isMark(tokens[at + 3], '.') ? at + 4 : at + 3,
    }
  return isMark(tokens[at + 1], '.')
    ? { readings: [{ year: null, month: null, day: Number(digits) }], to: at + 2 }
    : null
}

const mayBe = ({ month, day }: CompactDay['readings'][number]): boolean =>
  (month === null || (month >= 1 && month <= 12)) && day >= 1 && day <= 31

const joinAt = (tokens: readonly Token[], at: number): number | null => {
  const next = skipSpace(tokens, at)
  return isMark(tokens[next], '-/→') || isWord(tokens[next], 'to', 'au', 'al', 'bis')
    ? skipSpace(tokens, next + 1)
    : null
}

/**
 * Ranges of days written in digits alone: `0921-0927`, `20260921–20260927`, `9.21-9.27`, `9-21 to 9-27`, `21.–27.9.`.
 * Numbers of other things are written so as well; a caller takes one only where it is the range it looks for.
 */
export const compactRangesSaid = (tokens: readonly Token[], near: string): SaidDates[] => {
  const found: SaidDates[] = []
  for (let at = 0; at < tokens.length; at++) {
    const first = dayAt(tokens, at)
    const join = first ? joinAt(tokens, first.to) : null
    const last = join === null ? null : dayAt(tokens, join)
    if (!first || !last) continue
    const readings = first.readings.filter(mayBe).flatMap((from) =>
      last.readings.filter(mayBe).flatMap((until) => {
        const [begins, ends] = [
          dateNear({ ...from, month: from.month ?? until.month }, near),
          dateNear(until, near),
        ]
        return begins && ends && begins <= ends && daysBetween(begins, ends) <= longest
          ? [{ first: begins, last: ends }]
          : []
      }),
    )
    if (readings.length === 0) continue
    found.push({ readings, ...withBrackets(tokens, { from: at, to: last.to }) })
    at = last.to - 1
  }
  return found
}
