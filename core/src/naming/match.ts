import { rememberOf } from '../remember/index.ts'
import { datePatternOf, matchDate, matched, type DateParts, type DatePattern } from './dateMatch.ts'
import { definitionOf, type FieldName, type FieldType, type FieldValues } from './fields.ts'
import { foldLiteral, foldedName } from './fold.ts'
import type { FormatNode, NamingFormat } from './format.ts'
import { promptOf } from './render.ts'
import { seasonOf } from './words/seasons.ts'

/** A field of a compiled format. */
export interface FieldStep {
  op: 'field'
  field: FieldName
  type: FieldType
  style: string | null
  /** Folded prompt, which may stand for the value. */
  prompt: string
  dates: DatePattern | null
  choices: readonly string[]
}
/** `to`: where the walk goes on when the optional stretch is left out. */
export type Step =
  | FieldStep
  | { op: 'text'; text: string; folded: string }
  | { op: 'optional'; to: number }

/** A format as the steps of a matcher, in order. */
export const compile = rememberOf((format: NamingFormat): readonly Step[] => {
  const steps: Step[] = []
  const add = (nodes: FormatNode[]) => {
    for (const node of nodes) {
      if (node.node === 'text')
        steps.push({ op: 'text', text: node.text, folded: foldLiteral(node.text) })
      else if (node.node === 'optional') {
        const optional = { op: 'optional' as const, to: 0 }
        steps.push(optional)
        add(node.nodes)
        optional.to = steps.length
      } else {
        const { type, style: usual } = definitionOf(node.field)
        const style = node.style ?? usual ?? ''
        steps.push({
          op: 'field',
          field: node.field,
          type,
          style: node.style,
          prompt: foldedName(promptOf(node.field)),
          dates: type === 'date' || type === 'range' ? datePatternOf(style) : null,
          choices:
            type === 'choice'
              ? style
                  .split('|')
                  .map((choice) => foldedName(choice))
                  .sort((a, b) => b.length - a.length)
              : [],
        })
      }
    }
  }
  add(format.nodes)
  return steps
})

/** The texts that every name of a format holds: those outside its optional stretches, folded. */
const textsOf = rememberOf((format: NamingFormat): readonly string[] =>
  format.nodes.flatMap((node) => {
    const text = node.node === 'text' ? foldLiteral(node.text).trim() : ''
    return text === '' ? [] : [text]
  }),
)

/** Where a field stands in the folded text. */
export interface Capture {
  step: FieldStep
  /** Place of the step in the compiled format. */
  at: number
  from: number
  to: number
  /** Whether the prompt stands there instead of a value. */
  isPrompt: boolean
  /** What a date or range says, and how the style writes it. */
  dates: { first: DateParts; last: DateParts | null; written: string } | null
}

const isDigit = (unit: number): boolean => unit >= 48 && unit <= 57
const codeShape = /[\p{L}]{2,6}[ -]?\d{2,4}[a-z]?(?![\p{L}\d])/uy
const termShape =
  /(?:([\p{L}]{2,10})(?: [\p{L}]{2,12})? \d{4}|\d{4} ([\p{L}]{2,10}))(?![\p{L}\d])/uy

/** States (step, offset) that failed, stamped with the number of the walk, so that nothing has to be cleared. */
let failed = new Int32Array(4096)
let walkNumber = 0

/**
 * Walks steps and folded text together, in time proportional to steps × characters: a state fails at most once, a free
 * field tries each end at most once, and where the text after it begins is looked up once for each stretch.
 */
class Walk {
  readonly captures: Capture[] = []
  readonly #steps: readonly Step[]
  readonly #text: string
  readonly #known: FieldValues
  readonly #width: number
  readonly #number: number
  /** For each free field: from where the text after it was last looked for, and where it was found (-1: nowhere). */
  readonly #lookedFrom: number[] = []
  readonly #foundAt: number[] = []

  constructor(steps: readonly Step[], text: string, known: FieldValues) {
    this.#steps = steps
    this.#text = text
    this.#known = known
    this.#width = text.length + 1
    const states = steps.length * this.#width * 2
    if (failed.length < states) failed = new Int32Array(states * 2)
    if (walkNumber === 0x7fffffff) {
      failed.fill(0)
      walkNumber = 0
    }
    this.#number = ++walkNumber
  }

  attempt(at: number, offset: number): boolean {
    const step = this.#steps[at]
    if (step === undefined) return offset === this.#text.length
    const state = (at * this.#width + offset) * 2
    if (failed[state] === this.#number) return false
    const done =
      step.op === 'text'
        ? this.#literal(step.folded, at, offset)
        : step.op === 'optional'
          ? this.#optional(step.to, at, offset)
          : this.#field(step, at, offset)
    if (!done) failed[state] = this.#number
    return done
  }

  #literal(folded: string, at: number, offset: number): boolean {
    // A space that the fold dropped at either end of the text is no difference.
    const literal = offset === 0 && folded.startsWith(' ') ? folded.slice(1) : folded
    if (this.#text.startsWith(literal, offset) && this.attempt(at + 1, offset + literal.length))
      return true
    return (
      literal.endsWith(' ') &&
      offset + literal.length - 1 === this.#text.length &&
      this.#text.startsWith(literal.slice(0, -1), offset) &&
      this.#restIsEmpty(at + 1)
    )
  }

  /** Whether nothing but optional stretches is left of the format. */
  #restIsEmpty(at: number): boolean {
    const step = this.#steps[at]
    return step === undefined || (step.op === 'optional' && this.#restIsEmpty(step.to))
  }

  #optional(to: number, at: number, offset: number): boolean {
    const mark = this.captures.length
    if (this.attempt(at + 1, offset)) return true
    this.captures.length = mark
    return this.attempt(to, offset)
  }

  #take(
    step: FieldStep,
    at: number,
    from: number,
    to: number,
    isPrompt = false,
    dates: Capture['dates'] = null,
  ): boolean {
    const mark = this.captures.length
    this.captures.push({ step, at, from, to, isPrompt, dates })
    if (this.attempt(at + 1, to)) return true
    this.captures.length = mark
    return false
  }

  #digitsEnd(from: number): number {
    let end = from
    while (isDigit(this.#text.charCodeAt(end))) end++
    return end
  }

  #field(step: FieldStep, at: number, offset: number): boolean {
    const text = this.#text
    if (
      text.charCodeAt(offset) === step.prompt.charCodeAt(0) &&
      text.startsWith(step.prompt, offset) &&
      this.#take(step, at, offset, offset + step.prompt.length, true)
    )
      return true
    switch (step.type) {
      case 'integer': {
        const end = this.#digitsEnd(offset)
        return end > offset && end - offset <= 6 && this.#take(step, at, offset, end)
      }
      case 'span': {
        let end = this.#digitsEnd(offset)
        if (end === offset) return false
        if (text[end] === '-' && isDigit(text.charCodeAt(end + 1))) end = this.#digitsEnd(end + 1)
        return end - offset <= 9 && this.#take(step, at, offset, end)
      }
      case 'letter': {
        const unit = text.charCodeAt(offset)
        return unit >= 97 && unit <= 122 && this.#take(step, at, offset, offset + 1)
      }
      case 'date':
      case 'range': {
        const end = step.dates ? matchDate(step.dates, text, offset) : -1
        return (
          end >= 0 &&
          this.#take(step, at, offset, end, false, {
            first: matched.first,
            last: matched.last,
            written: matched.written,
          })
        )
      }
      case 'choice':
        return step.choices.some(
          (choice) =>
            text.startsWith(choice, offset) && this.#take(step, at, offset, offset + choice.length),
        )
      case 'text':
      case 'code':
      case 'term':
        return this.#words(step, at, offset)
    }
  }

  #words(step: FieldStep, at: number, offset: number): boolean {
    const value = this.#known[step.field]
    if (typeof value === 'string' && value !== '') {
      const whole = foldedName(value)
      if (
        this.#text.startsWith(whole, offset) &&
        this.#take(step, at, offset, offset + whole.length)
      )
        return true
    }
    if (step.type !== 'text') {
      const shape = step.type === 'code' ? codeShape : termShape
      shape.lastIndex = offset
      const shaped = shape.exec(this.#text)
      if (
        shaped &&
        (step.type === 'code' || seasonOf(shaped[1] ?? shaped[2] ?? '') !== null) &&
        this.#take(step, at, offset, offset + shaped[0].length)
      )
        return true
    }
    return this.#free(step, at, offset)
  }

  #free(step: FieldStep, at: number, offset: number): boolean {
    const text = this.#text
    const next = this.#steps[at + 1]
    if (next === undefined) return offset < text.length && this.#take(step, at, offset, text.length)
    const literal = next.op === 'text' ? next.folded : ''
    for (let end = offset + 1; end <= text.length; end++) {
      if (literal !== '') {
        const ahead = this.#ahead(literal, at, end)
        // Nowhere ahead; only a literal that lost its last space at the end of the text may still fit there.
        if (ahead < 0 && !literal.endsWith(' ')) return false
        end = ahead >= 0 ? ahead : Math.max(end, text.length - literal.length + 1)
        if (end > text.length) return false
      }
      const inside = (at * this.#width + end) * 2 + 1
      if (failed[inside] === this.#number) return false
      failed[inside] = this.#number
      if (this.#take(step, at, offset, end)) return true
    }
    return false
  }

  /** Where the text after a free field next begins, from an offset on; -1 for nowhere. */
  #ahead(literal: string, at: number, from: number): number {
    const looked = this.#lookedFrom[at]
    const found = this.#foundAt[at] ?? -1
    if (looked === undefined || from < looked || (found >= 0 && from > found)) {
      this.#lookedFrom[at] = from
      this.#foundAt[at] = this.#text.indexOf(literal, from)
    }
    return this.#foundAt[at] ?? -1
  }
}

/**
 * Matches a folded name against a format.
 * @param known values that are taken whole where they stand, as they may hold spaces and separators
 * @returns where the fields stand, in the order of the format; those of an optional stretch that is left out are missing
 */
export const match = (format: NamingFormat, text: string, known: FieldValues): Capture[] | null => {
  // Most names that do not follow a format are told by a word of it that they do not have.
  for (const needed of textsOf(format)) if (!text.includes(needed)) return null
  const walk = new Walk(compile(format), text, known)
  return walk.attempt(0, 0) ? walk.captures : null
}
