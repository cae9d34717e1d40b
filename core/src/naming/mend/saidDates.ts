import { isPlainDate, monthOfWord, weekdayOfWord } from '../../calendar/index.ts'
import { isOrdinalSuffix } from '../words/numbers.ts'
import { isMark, isWord, skipSpace, withBrackets, type Stretch, type Token } from './tokens.ts'

/** A day as written: more than one reading where 4/9 may mean either. */
interface SaidDay {
  readings: { month: number | null; day: number; year: number | null }[]
  to: number
}

/** One or two days that a name speaks of, as dates `YYYY-MM-DD`; every way of reading them. */
export interface SaidDates extends Stretch {
  readings: { first: string; last: string | null }[]
}

const dayNumberAt = (tokens: readonly Token[], at: number): { day: number; to: number } | null => {
  const token = tokens[at]
  if (token?.kind !== 'number' || token.text.length > 2) return null
  const day = Number(token.text)
  if (day < 1 || day > 31) return null
  const suffix = tokens[at + 1]
  return {
    day,
    to:
      suffix?.kind === 'word' && isOrdinalSuffix(suffix.text) && suffix.text.length <= 3
        ? at + 2
        : at + 1,
  }
}

/** A year after a date: `, 2026`, `/26`, ` de 2026`. */
const yearAt = (tokens: readonly Token[], at: number): { year: number | null; to: number } => {
  let next = skipSpace(tokens, isMark(tokens[at], ',') ? at + 1 : at)
  if (isWord(tokens[next], 'de', 'del')) next = skipSpace(tokens, next + 1)
  const token = tokens[next]
  return token?.kind === 'number' && token.text.length === 4 && /^(19|20)/.test(token.text)
    ? { year: Number(token.text), to: next + 1 }
    : { year: null, to: at }
}

const monthAt = (tokens: readonly Token[], at: number): { month: number; to: number } | null => {
  const token = tokens[at]
  const month = token?.kind === 'word' ? monthOfWord(token.text) : null
  if (month === null) return null
  return { month, to: isMark(tokens[at + 1], '.') ? at + 2 : at + 1 }
}

/** A weekday before a date, with what stands between them. */
const afterWeekday = (tokens: readonly Token[], at: number): number => {
  const token = tokens[at]
  if (token?.kind !== 'word' || weekdayOfWord(token.text) === null) return at
  const next = isMark(tokens[at + 1], '.,') ? at + 2 : at + 1
  const after = skipSpace(tokens, next)
  return tokens[after]?.kind === 'number' || monthAt(tokens, after) ? after : at
}

const dayAt = (tokens: readonly Token[], start: number): SaidDay | null => {
  const at = afterWeekday(tokens, start)
  const token = tokens[at]
  if (token === undefined) return null
  const month = monthAt(tokens, at)
  if (month) {
    const day = dayNumberAt(tokens, skipSpace(tokens, month.to))
    if (!day) return null
    const { year, to } = yearAt(tokens, day.to)
    return { readings: [{ month: month.month, day: day.day, year }], to }
  }
  if (token.kind !== 'number') return null
  const part = (offset: number, mark: string) =>
    isMark(tokens[at + offset - 1], mark) && tokens[at + offset]?.kind === 'number'
      ? (tokens[at + offset]?.text ?? '')
      : null
  if (token.text.length === 4) {
    const [isoMonth, isoDay] = [part(2, '-'), part(4, '-')]
    return isoMonth?.length === 2 && isoDay?.length === 2
      ? {
          readings: [{ month: Number(isoMonth), day: Number(isoDay), year: Number(token.text) }],
          to: at + 5,
        }
      : null
  }
  for (const mark of '/.') {
    const second = part(2, mark)
    if (second === null || second.length > 2 || token.text.length > 2) continue
    const third = part(4, mark)
    const year =
      third === null || (third.length !== 2 && third.length !== 4)
        ? null
        : Number(third) + (third.length === 2 ? 2000 : 0)
    let to = year === null ? at + 3 : at + 5
    if (mark === '.') {
      // 5.4. and 5.4.2027 are dates; 5.4 alone is a number of its own.
      if (year === null && !isMark(tokens[to], '.')) continue
      if (isMark(tokens[to], '.')) to += 1
    }
    const [a, b] = [Number(token.text), Number(second)]
    const readings = [
      ...(mark === '/' ? [{ month: a, day: b, year }] : []),
      { month: b, day: a, year },
    ]
    return {
      readings: readings.filter(
        (reading) =>
          reading.month >= 1 && reading.month <= 12 && reading.day >= 1 && reading.day <= 31,
      ),
      to,
    }
  }
  const day = dayNumberAt(tokens, at)
  if (!day) return null
  let next = skipSpace(tokens, day.to)
  if (isWord(tokens[next], 'of', 'de')) next = skipSpace(tokens, next + 1)
  const word = monthAt(tokens, next)
  if (!word) return null
  const { year, to } = yearAt(tokens, word.to)
  return { readings: [{ month: word.month, day: day.day, year }], to }
}

/** What joins the two days of a range; the index after it, or null. */
const joinAt = (tokens: readonly Token[], at: number): number | null => {
  let next = skipSpace(tokens, at)
  const token = tokens[next]
  if (isMark(token, '-→>~/')) next += isMark(tokens[next + 1], '->') ? 2 : 1
  else if (isMark(token, '.') && isMark(tokens[next + 1], '.'))
    next += isMark(tokens[next + 2], '.') ? 3 : 2
  else if (isWord(token, 'to', 'through', 'thru', 'until', 'till', 'au', 'a', 'al', 'hasta'))
    next += 1
  else return null
  return skipSpace(tokens, next)
}

const intro = new Set(['from', 'du', 'del', 'de', 'el', 'le', 'on', 'by'])
/** Takes in the words that lead up to dates: `from`, `week of`, `du`, `del`. */
const withIntro = (tokens: readonly Token[], from: number): number => {
  let start = from
  for (;;) {
    const space = tokens[start - 1]?.kind === 'space'
    const before = tokens[start - (space ? 2 : 1)]
    if (!space || before?.kind !== 'word') return start
    if (intro.has(before.text) || weekdayOfWord(before.text) !== null) start -= 2
    else if (before.text === 'of' && isWord(tokens[start - 4], 'week', 'wk', 'semaine', 'semana'))
      start -= 4
    else return start
  }
}

const daysRead = (
  readings: SaidDay['readings'],
  near: string,
  month: number | null = null,
): string[] =>
  readings.flatMap(
    (reading) =>
      dateNear({ month: reading.month ?? month, day: reading.day, year: reading.year }, near) ?? [],
  )

/** A day as a date; without a year the one nearest to `near`. Null for a day that does not exist. */
export const dateNear = (
  { month, day, year }: SaidDay['readings'][number],
  near: string,
): string | null => {
  if (month === null) return null
  const monthsAhead = month - Number(near.slice(5, 7))
  const nearest = Number(near.slice(0, 4)) + (monthsAhead > 6 ? -1 : monthsAhead <= -6 ? 1 : 0)
  const date = `${year ?? nearest}-${month < 10 ? '0' : ''}${month}-${day < 10 ? '0' : ''}${day}`
  return day <= 28 || isPlainDate(date) ? date : null
}

const spanAt = (tokens: readonly Token[], at: number, near: string): SaidDates | null => {
  const first = dayAt(tokens, at)
  if (first) {
    const join = joinAt(tokens, first.to)
    const last = join === null ? null : dayAt(tokens, join)
    if (last) {
      const firsts = daysRead(first.readings, near)
      const lasts = daysRead(last.readings, near)
      // Both days are written in the same order.
      const pairs =
        first.readings.length === last.readings.length
          ? firsts.flatMap((first, i) =>
              lasts[i] === undefined ? [] : [{ first: first, last: lasts[i] }],
            )
          : firsts.flatMap((first) => lasts.map((other) => ({ first: first, last: other })))
      const sound = pairs.filter((pair) => pair.first <= pair.last)
      if (sound.length > 0) return { readings: sound, from: at, to: last.to }
    }
    // `Sep 14-20`, `9/14-20`: the month is said once, before.
    const day = join === null ? null : dayNumberAt(tokens, join)
    if (day && !isMark(tokens[day.to], '/')) {
      const month = monthAt(tokens, skipSpace(tokens, day.to))
      const { year, to } = yearAt(tokens, day.to)
      const pairs = first.readings.flatMap((reading) => {
        const [from, until] = [
          dateNear({ month: reading.month, day: reading.day, year: reading.year ?? year }, near),
          dateNear({ month: reading.month, day: day.day, year: reading.year ?? year }, near),
        ]
        return from && until && from <= until ? [{ first: from, last: until }] : []
      })
      if (!month && pairs.length > 0) return { readings: pairs, from: at, to }
    }
    const alone = daysRead(first.readings, near)
    return alone.length > 0
      ? { readings: alone.map((date) => ({ first: date, last: null })), from: at, to: first.to }
      : null
  }
  // `14-20 September`, `1er au 7 février`: the month is said once, after.
  const start = afterWeekday(tokens, at)
  const day = dayNumberAt(tokens, start)
  const join = day ? joinAt(tokens, day.to) : null
  const last = join === null ? null : dayAt(tokens, join)
  if (!day || !last) return null
  const pairs = last.readings.flatMap((reading) => {
    const [from, until] = [
      dateNear({ month: reading.month, day: day.day, year: reading.year }, near),
      dateNear(reading, near),
    ]
    return from && until && from <= until ? [{ first: from, last: until }] : []
  })
  return pairs.length > 0 ? { readings: pairs, from: at, to: last.to } : null
}

/**
 * The dates and ranges a name speaks of, in order, however they are written: 9/14, 14/09, 14 Sept, Sept. 14th–20th,
 * 5–11 Oct, 2026-09-14, du 14 au 20 septembre.
 */
export const datesSaid = (tokens: readonly Token[], near: string): SaidDates[] => {
  const found: SaidDates[] = []
  for (let at = 0; at < tokens.length; at++) {
    const token = tokens[at]
    if (token?.kind !== 'number' && token?.kind !== 'word') continue
    if (
      token.kind === 'word' &&
      monthOfWord(token.text) === null &&
      weekdayOfWord(token.text) === null
    )
      continue
    const said = spanAt(tokens, at, near)
    if (!said) continue
    const { from, to } = withBrackets(tokens, { from: withIntro(tokens, said.from), to: said.to })
    found.push({ readings: said.readings, from, to })
    // A number at its beginning may be a week's (`Week 3 - Sep 14`, `Week 11 Mar 29`): what follows is read on its own as well.
    if (token.kind === 'word' || isMark(tokens[at + 1], '/-')) at = said.to - 1
  }
  return found
}
