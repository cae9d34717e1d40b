import { dayNames, monthNames, splitRangeStyle } from '../calendar/index.ts'
import { remember } from '../remember/index.ts'

/** A date as far as a name tells it. */
export interface DateParts {
  year: number | null
  month: number | null
  day: number | null
}

type Element = { letters: string } | { text: string; folded: string }

/** A date style taken apart, ready to be matched against folded text. */
export interface DatePattern {
  /** One date, or the two of a range with what stands between. */
  opening: Element[]
  separator: Element[]
  closing: Element[] | null
}

const letterRun = /yyyy|yy|MMMM|MMM|MM|M|dd|d|EEEE|EEE/g

const elementsOf = (style: string): Element[] => {
  const elements: Element[] = []
  let at = 0
  const text = (end: number) => {
    if (end > at)
      elements.push({
        text: style.slice(at, end),
        folded: style
          .slice(at, end)
          .replace(/[‐‑‒–—―−]/g, '-')
          .replace(/\s+/g, ' ')
          .toLowerCase(),
      })
  }
  for (const run of style.matchAll(letterRun)) {
    text(run.index)
    elements.push({ letters: run[0] })
    at = run.index + run[0].length
  }
  text(style.length)
  return elements
}

export const datePatternOf = remember(2000, (style: string): DatePattern => {
  const range = splitRangeStyle(style)
  return {
    opening: elementsOf(range.opening),
    separator: elementsOf(range.separator),
    closing: range.closing === null ? null : elementsOf(range.closing),
  }
})

const byBeginning = (names: readonly string[]) =>
  new Map(
    names.map(
      (name, i) =>
        [
          name.slice(0, 3).toLowerCase(),
          { number: i + 1, name, folded: name.toLowerCase() },
        ] as const,
    ),
  )
const months = byBeginning(monthNames)
const weekdays = byBeginning(dayNames)
const isLetter = (unit: number): boolean => (unit >= 97 && unit <= 122) || unit > 191
const isDigit = (unit: number): boolean => unit >= 48 && unit <= 57

/** What a match found: filled by the last successful one, so that matching makes no garbage. */
export const matched = {
  written: '',
  first: { year: null, month: null, day: null } as DateParts,
  last: null as DateParts | null,
}

const matchElements = (
  elements: readonly Element[],
  text: string,
  from: number,
  parts: DateParts,
): number => {
  let at = from
  for (const element of elements) {
    if ('text' in element) {
      if (!text.startsWith(element.folded, at)) return -1
      matched.written += element.text
      at += element.folded.length
      continue
    }
    const { letters } = element
    if (letters === 'MMM' || letters === 'MMMM' || letters[0] === 'E') {
      const isMonth = letters[0] === 'M'
      const found = (isMonth ? months : weekdays).get(text.slice(at, at + 3))
      if (found === undefined) return -1
      const length = letters.length === 3 ? 3 : found.name.length
      if (
        isLetter(text.charCodeAt(at + length)) ||
        (length > 3 && !text.startsWith(found.folded, at))
      )
        return -1
      if (isMonth) parts.month = found.number
      matched.written += length === 3 ? found.name.slice(0, 3) : found.name
      at += length
      continue
    }
    let end = at
    while (end < text.length && end - at < 4 && isDigit(text.charCodeAt(end))) end++
    const digits = end - at
    const wanted =
      letters === 'yyyy'
        ? digits === 4
        : letters === 'yy'
          ? digits === 2
          : digits === 1 || digits === 2
    if (!wanted || isDigit(text.charCodeAt(end))) return -1
    const number = Number(text.slice(at, end))
    if (letters[0] === 'y') parts.year = letters === 'yyyy' ? number : 2000 + number
    else if (letters[0] === 'M') {
      if (number < 1 || number > 12) return -1
      parts.month = number
    } else {
      if (number < 1 || number > 31) return -1
      parts.day = number
    }
    matched.written +=
      letters.length === 1 ? String(number) : text.slice(at, end).padStart(letters.length, '0')
    at = end
  }
  return at
}

const blank = (): DateParts => ({ year: null, month: null, day: null })

/**
 * Matches a date or range at an offset of folded text, exactly in its style but for case, dashes and leading zeros.
 * @returns the end, or -1; `matched` then says what stood there and how the style writes it
 */
export const matchDate = (pattern: DatePattern, text: string, from: number): number => {
  const { opening, closing } = pattern
  if (closing === null) return matchEnds(pattern, opening, null, text, from)
  // A style that names the month once names it twice where the range crosses into another month.
  if (hasMonth(opening) !== hasMonth(closing)) {
    const full = hasMonth(opening) ? opening : closing
    const both = matchEnds(pattern, full, full, text, from)
    if (both >= 0) return both
  }
  const end = matchEnds(pattern, opening, closing, text, from)
  if (end >= 0 && matched.last) {
    matched.last.month ??= matched.first.month
    matched.first.month ??= matched.last.month
  }
  return end
}
const matchEnds = (
  pattern: DatePattern,
  first: Element[],
  last: Element[] | null,
  text: string,
  from: number,
): number => {
  matched.written = ''
  matched.first = blank()
  matched.last = null
  let at = matchElements(first, text, from, matched.first)
  if (at < 0 || last === null) return at
  at = matchElements(pattern.separator, text, at, matched.first)
  if (at < 0) return -1
  matched.last = blank()
  return matchElements(last, text, at, matched.last)
}
const hasMonth = (elements: readonly Element[]): boolean =>
  elements.some((element) => 'letters' in element && element.letters[0] === 'M')
