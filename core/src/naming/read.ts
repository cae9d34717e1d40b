import { dateOfMention, dayNumber, datesMentioned, monthNames, splitRangeStyle } from '../calendar/index.ts'
import { definitionOf, type FieldName, type FieldValue, type FieldValues } from './fields.ts'
import { foldName } from './fold.ts'
import { longestName, type FormatNode, type NamingFormat } from './format.ts'
import { promptOf, writeField } from './render.ts'

/** One field as it stands in a name. */
export interface FieldReading {
  field: FieldName
  /** The exact characters of the name. */
  text: string
  /** What was wanted there, when the context knows it and it differs; null when right or not known. */
  expected: string | null
  /** Whether the prompt still stands there. */
  isPrompt: boolean
}

export interface NameReading {
  /** `exact`, or the same but for dashes, spaces, case and compatibility characters. */
  follows: 'exact' | 'small-differences'
  readings: FieldReading[]
}

/** Characters of a compiled format: what must match next, and where it goes on. */
interface Step {
  literal: string
  field: FieldName | null
  style: string | null
}

const digits = /\d+/y
const monthPattern = `(?:${monthNames.map((name) => (name.length > 3 ? `${name.slice(0, 3)}(?:${name.slice(3)})?` : name)).join('|')})`

/** The pattern of a date style, with every letter run replaced by what it can write. */
const datePattern = (style: string): string =>
  style
    .replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
    .replace(/yyyy|yy|MMMM|MMM|MM|M|dd|d|EEEE|EEE/g, (run) =>
      run === 'yyyy' ? '\\d{4}' : run === 'yy' ? '\\d{2}' : run.length >= 3 && run[0] === 'M' ? `${monthPattern}\\.?` : run[0] === 'E' ? '[a-z]+' : '\\d{1,2}',
    )

const typedPatterns = new Map<string, RegExp>()
/** A sticky pattern for a field whose extent is given by its type, or null when it may hold any text. */
const typedPattern = (step: Step): RegExp | null => {
  if (step.field === null) return null
  const definition = definitionOf(step.field)
  if (definition.type === 'integer') return digits
  if (definition.type === 'text') return null
  const style = step.style ?? definition.style ?? ''
  const key = `${definition.type} ${style}`
  const known = typedPatterns.get(key)
  if (known) return known
  const range = splitRangeStyle(style)
  const source =
    definition.type === 'choice'
      ? style.split('|').map((choice) => choice.trim().replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|')
      : definition.type === 'range' && range.closing !== null
        ? `${datePattern(range.opening)} ?(?:-|to) ?${datePattern(range.closing)}`
        : datePattern(style)
  const pattern = new RegExp(source.toLowerCase().replaceAll('\\s', '\\s'), 'y')
  typedPatterns.set(key, pattern)
  return pattern
}

/** Every way of leaving optional stretches in or out would be exponential; they are branches of the walk instead. */
type Program = { kind: 'step'; step: Step } | { kind: 'skip'; to: number }

const compiled = new WeakMap<NamingFormat, Program[]>()
const compile = (format: NamingFormat): Program[] => {
  const known = compiled.get(format)
  if (known) return known
  const program: Program[] = []
  const add = (nodes: FormatNode[]) => {
    for (const node of nodes) {
      if (node.node === 'text') program.push({ kind: 'step', step: { literal: foldLiteral(node.text), field: null, style: null } })
      else if (node.node === 'field') program.push({ kind: 'step', step: { literal: '', field: node.field, style: node.style } })
      else {
        const skip: Program = { kind: 'skip', to: 0 }
        program.push(skip)
        add(node.nodes)
        skip.to = program.length
      }
    }
  }
  add(format.nodes)
  compiled.set(format, program)
  return program
}

/** Like foldName, but keeps one space at the ends: inside a format they separate fields. */
const foldLiteral = (text: string): string => {
  const folded = foldName(`x${text}x`).text
  return folded.slice(1, -1)
}

interface Capture {
  field: FieldName
  style: string | null
  from: number
  to: number
}

/**
 * Walks program and text together. A state is (instruction, offset, whether inside a free field); each fails at most
 * once, so the work is at most proportional to instructions × characters.
 */
const walk = (program: Program[], text: string, known: FieldValues): Capture[] | null => {
  const width = text.length + 1
  const failed = new Uint8Array(program.length * width * 2)
  const attempt = (at: number, offset: number): Capture[] | null => {
    const instruction = program[at]
    if (!instruction) return offset === text.length ? [] : null
    const state = (at * width + offset) * 2
    if (failed[state] === 1) return null
    let result: Capture[] | null = null
    if (instruction.kind === 'skip') result = attempt(at + 1, offset) ?? attempt(instruction.to, offset)
    else if (instruction.step.field === null) {
      // A space that the fold dropped at either end of the text is no difference.
      const literal = offset === 0 ? instruction.step.literal.trimStart() : instruction.step.literal
      if (text.startsWith(literal, offset)) result = attempt(at + 1, offset + literal.length)
      else if (at === program.length - 1 && text.slice(offset) === literal.trimEnd()) result = []
    } else result = attemptField(at, offset, instruction.step, instruction.step.field)
    if (result === null) failed[state] = 1
    return result
  }
  const attemptField = (at: number, offset: number, step: Step, field: FieldName): Capture[] | null => {
    const capture = (to: number): Capture => ({ field, style: step.style, from: offset, to })
    // The prompt, or the very value that is wanted here, is taken whole: a free field may hold spaces and separators.
    const value = known[field]
    const wholes = [promptOf(field).toLowerCase(), ...(typeof value === 'string' && value !== '' ? [foldName(value).text] : [])]
    for (const whole of wholes) {
      if (!text.startsWith(whole, offset)) continue
      const rest = attempt(at + 1, offset + whole.length)
      if (rest) return [capture(offset + whole.length), ...rest]
    }
    const pattern = typedPattern(step)
    if (pattern) {
      pattern.lastIndex = offset
      const match = pattern.exec(text)
      if (!match) return null
      const rest = attempt(at + 1, offset + match[0].length)
      return rest ? [capture(offset + match[0].length), ...rest] : null
    }
    for (let end = offset + 1; end <= text.length; end++) {
      const inside = (at * width + end) * 2 + 1
      if (failed[inside] === 1) return null
      failed[inside] = 1
      const rest = attempt(at + 1, end)
      if (rest) return [capture(end), ...rest]
    }
    return null
  }
  return attempt(0, 0)
}

const sameDay = (a: { month: number; day: number } | undefined, date: string): boolean =>
  a !== undefined && a.month === Number(date.slice(5, 7)) && a.day === Number(date.slice(8, 10))

/** Whether the words of a field say the value that the context knows. */
const agrees = (field: FieldName, style: string | null, text: string, value: FieldValue): boolean => {
  const definition = definitionOf(field)
  if (definition.type === 'integer') return Number(text) === Number(value)
  if (foldName(text).text === foldName(writeField(field, style, value)).text) return true
  if (definition.type === 'range' && typeof value === 'object') {
    const said = datesMentioned(text)
    return said.length === 2 && sameDay(said[0], value.first) && sameDay(said[1], value.last)
  }
  return definition.type === 'date' && typeof value === 'string' && sameDay(datesMentioned(text)[0], value)
}

/**
 * Reads a name against a format.
 * @param known what the fields should say in this place; fields that an instructor fills are left out
 * @returns null when the name does not follow the format, or is longer than 2,000 characters
 */
export const readName = (format: NamingFormat, name: string, known: FieldValues): NameReading | null => {
  if (name.length > longestName) return null
  const folded = foldName(name)
  const captures = walk(compile(format), folded.text, known)
  if (!captures) return null
  const readings = captures.map(({ field, style, from, to }): FieldReading => {
    const text = name.slice(folded.origin[from], folded.origin[to]).trim()
    const value = known[field]
    const right = value === undefined || value === '' || agrees(field, style, text, value)
    return { field, text, expected: right || value === undefined ? null : writeField(field, style, value), isPrompt: text.toLowerCase() === promptOf(field).toLowerCase() }
  })
  return { follows: rewrite(format, readings) === name ? 'exact' : 'small-differences', readings }
}

/** The name as the format would write it with the words that were read. */
const rewrite = (format: NamingFormat, readings: FieldReading[]): string => {
  let next = 0
  const write = (nodes: FormatNode[]): string =>
    nodes
      .map((node) => {
        if (node.node === 'text') return node.text
        if (node.node === 'field') return readings[next++]?.text ?? ''
        const first = node.nodes.find((inner) => inner.node === 'field')
        const stands = first?.node === 'field' && readings[next]?.field === first.field
        return stands ? write(node.nodes) : ''
      })
      .join('')
  return write(format.nodes)
}

/** The date range a name's words say, if they say exactly one or two dates; years are taken nearest to `near`. */
export const rangeSaid = (text: string, near: string): { first: string; last: string } | null => {
  const dates = datesMentioned(text).map((said) => dateOfMention(said, near))
  const [first, last] = dates
  if (!first || dates.length > 2) return null
  return { first, last: last ?? first }
}

/** Whether two ranges differ by at most that many days at each end. */
export const rangesAgree = (a: { first: string; last: string }, b: { first: string; last: string }, days: number): boolean =>
  Math.abs(dayNumber(a.first) - dayNumber(b.first)) <= days && Math.abs(dayNumber(a.last) - dayNumber(b.last)) <= days

