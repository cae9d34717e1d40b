import {
  dateOfMention,
  dayNumber,
  datesMentioned,
  weekdayIndex,
  weekdayOfWord,
} from '../calendar/index.ts'
import type { DateParts } from './dateMatch.ts'
import {
  definitionOf,
  isDaySpan,
  isNumberSpan,
  type FieldName,
  type FieldValue,
  type FieldValues,
} from './fields.ts'
import { foldName } from './fold.ts'
import { longestName, type NamingFormat } from './format.ts'
import { compile, match, type Capture } from './match.ts'
import { writeField } from './render.ts'

/** One field as it stands in a name. */
export interface FieldReading {
  field: FieldName
  /** `absent` also where the prompt still stands. */
  state: 'right' | 'wrong' | 'absent'
  /** The exact characters of the name. */
  text: string
  /** What is wanted there, when it is known and does not stand there; null otherwise. */
  expected: string | null
  /** Whether the prompt still stands there. */
  isPrompt: boolean
  /** What the words say, for numbers and numbered spans; null otherwise. */
  value: number | { from: number; to: number } | null
}

export interface NameReading {
  /** `exact`, or the same but for what does not change its meaning. */
  follows: 'exact' | 'small-differences'
  /** In the order of the format. */
  readings: FieldReading[]
  /** The name with the small differences set right and everything else as it stands; `differencesBetween` tells them. */
  tidied: string
}

const saysDay = (parts: DateParts, date: string): boolean =>
  (parts.day === null || parts.day === Number(date.slice(8, 10))) &&
  (parts.month === null || parts.month === Number(date.slice(5, 7))) &&
  (parts.year === null || parts.year === Number(date.slice(0, 4)))

const boundOf = (style: string | null): { least: number; most: number } | null => {
  const bound = style === null ? null : /^(\d+)-(\d+) words$/.exec(style)
  return bound ? { least: Number(bound[1]), most: Number(bound[2]) } : null
}

const spanOf = (text: string): { from: number; to: number } => {
  const [from = 0, to = from] = text.split('-').map(Number)
  return { from, to }
}

/** What a date style names besides the day of the month: a weekday that is not the date's own is wrong. */
const saysWeekday = (text: string, date: string): boolean => {
  const words = text.match(/\p{L}+/gu) ?? []
  const weekday = words
    .map((word) => weekdayOfWord(word))
    .find((weekday, i) => weekday !== null && !/^(mar|mars)$/.test(words[i] ?? ''))
  return weekday === undefined || weekday === null || weekday === weekdayIndex(date) + 1
}

const agrees = ({ step, dates }: Capture, folded: string, value: FieldValue): boolean => {
  switch (step.type) {
    case 'integer':
      return Number(folded) === Number(value)
    case 'span': {
      const said = spanOf(folded)
      return isNumberSpan(value) && said.from === value.from && said.to === value.to
    }
    case 'date':
      return (
        dates !== null &&
        typeof value === 'string' &&
        saysDay(dates.first, value) &&
        saysWeekday(folded, value)
      )
    case 'range':
      return (
        dates !== null &&
        isDaySpan(value) &&
        saysDay(dates.first, value.first) &&
        (dates.last === null || saysDay(dates.last, value.last))
      )
    case 'text':
    case 'code':
    case 'term':
    case 'letter':
    case 'choice':
      return definitionOf(step.field).own === true || foldName(String(value)).text === folded
  }
}

/**
 * Reads a name against a format.
 * @param known what the fields should say in this place. Fields of the instructor's own words are right whatever they say,
 * within their bound
 * @returns null when the name does not follow the format, or is longer than 2,000 characters
 */
export const readName = (
  format: NamingFormat,
  name: string,
  known: FieldValues,
): NameReading | null => {
  if (name.length > longestName) return null
  const folded = foldName(name)
  const captures = match(format, folded.text, known)
  if (!captures) return null
  const readings: FieldReading[] = []
  const steps = compile(format)
  let tidied = ''
  let next = 0
  for (let at = 0; at < steps.length; at++) {
    const step = steps[at]
    const capture = captures[next]
    if (step === undefined) continue
    if (step.op === 'text') tidied += step.text
    else if (step.op === 'optional') {
      const inside = steps.slice(at + 1, step.to)
      const fieldsInside = inside.filter((step) => step.op === 'field')
      // A stretch of text alone leaves no trace in the captures: it stands where the name holds its text.
      const stands =
        fieldsInside.length > 0
          ? capture !== undefined && capture.at < step.to
          : folded.text.includes(
              inside
                .map((step) => (step.op === 'text' ? step.folded : ''))
                .join('')
                .trim(),
            )
      if (stands) continue
      for (const { field, style } of fieldsInside) readings.push(absent(field, style, known))
      at = step.to - 1
    } else if (capture) {
      next++
      const said = folded.text.slice(capture.from, capture.to)
      const text = name.slice(folded.origin[capture.from], folded.origin[capture.to]).trimEnd()
      const reading = readingOf(capture, said, text, known)
      readings.push(reading)
      tidied += capture.isPrompt
        ? text
        : canonical(capture, said, text, reading.state === 'right' ? known[step.field] : undefined)
    }
  }
  return { follows: tidied === name ? 'exact' : 'small-differences', readings, tidied }
}

const absent = (field: FieldName, style: string | null, known: FieldValues): FieldReading => {
  const value = known[field]
  return {
    field,
    state: 'absent',
    text: '',
    expected: value === undefined || value === '' ? null : writeField(field, style, value),
    isPrompt: false,
    value: null,
  }
}

/** How the format would write what stands in a typed field. */
const canonical = (
  { step, dates }: Capture,
  folded: string,
  text: string,
  known: FieldValue | undefined,
): string => {
  if (typeof known === 'string' && known !== '' && !dates)
    return definitionOf(step.field).own ? text : known
  if (dates) return dates.written
  if (step.type === 'integer') return String(Number(folded)).padStart(step.style?.length ?? 1, '0')
  if (step.type === 'letter') return text.toUpperCase()
  if (step.type === 'choice')
    return (
      (step.style ?? '')
        .split('|')
        .map((choice) => choice.trim())
        .find((choice) => foldName(choice).text === folded) ?? text
    )
  if (step.type === 'span') {
    const { from, to } = spanOf(folded)
    return writeField(step.field, null, { from, to })
  }
  return text
}

const readingOf = (
  capture: Capture,
  folded: string,
  text: string,
  known: FieldValues,
): FieldReading => {
  const { step } = capture
  const { field, style } = step
  const value = known[field]
  if (capture.isPrompt)
    return { ...absent(field, style, definitionOf(field).own ? {} : known), text, isPrompt: true }
  const said =
    step.type === 'integer' ? Number(folded) : step.type === 'span' ? spanOf(folded) : null
  const bound = step.type === 'text' ? boundOf(style) : null
  if (bound) {
    const count = text.split(/\s+/).length
    if (count < bound.least || count > bound.most)
      return {
        field,
        state: 'wrong',
        text,
        expected: `${bound.least} to ${bound.most} words`,
        isPrompt: false,
        value: null,
      }
  }
  const right = value === undefined || value === '' || agrees(capture, folded, value)
  return {
    field,
    state: right ? 'right' : 'wrong',
    text,
    expected: right ? null : writeField(field, style, value),
    isPrompt: false,
    value: said,
  }
}

/** The date range a name's words say, if they say exactly one or two dates; years are taken nearest to `near`. */
export const rangeSaid = (text: string, near: string): { first: string; last: string } | null => {
  const dates = datesMentioned(text).map((said) => dateOfMention(said, near))
  const [first, last] = dates
  if (!first || dates.length > 2) return null
  return { first, last: last ?? first }
}

/** Whether two ranges differ by at most that many days at each end. */
export const rangesAgree = (
  a: { first: string; last: string },
  b: { first: string; last: string },
  days: number,
): boolean =>
  Math.abs(dayNumber(a.first) - dayNumber(b.first)) <= days &&
  Math.abs(dayNumber(a.last) - dayNumber(b.last)) <= days
