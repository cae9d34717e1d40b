import { withoutAccents } from '../../calendar/index.ts'
import type { FieldName } from '../fields.ts'
import type { NamingFormat } from '../format.ts'
import { compile, type FieldStep, type Step } from '../match.ts'
import { conceptsOf } from '../words/labels.ts'
import { tokensOf } from './tokens.ts'

/** A field with the words of the format that label it. */
export interface PlannedField {
  field: FieldName
  step: FieldStep
  /** Words that may stand before its number: the format's own, and the field's name where it is one (week, unit, day). */
  before: readonly string[]
  /** The format's own word before it. */
  wordBefore: string | null
  /** Choices of the field right before it: `{kind, Lab|Drill} {number}`. */
  choices: readonly string[]
  /** Words that may stand after it: min, pts. */
  after: readonly string[]
  /** Whether the format writes a word beside it. */
  labelled: boolean
  /** The marks of the format right before and after it; empty for a blank or a word, null at its beginning or end. */
  marks: { before: string | null; after: string | null }
  optional: boolean
}

/** What a format asks for, as mending looks for it. */
export interface FormatPlan {
  fields: readonly PlannedField[]
  /** Words of the format that label no number, in order. */
  fixed: readonly string[]
  /** What the format speaks of: its words and fields. */
  concepts: ReadonlySet<string>
  has: (field: FieldName) => boolean
}

const ownLabels: Partial<Record<FieldName, string>> = {
  week: 'week',
  unit: 'unit',
  day: 'day',
  weeks: 'weeks',
  half: 'week',
}
const afterLabels: Partial<Record<FieldName, readonly string[]>> = {
  minutes: ['minutes', 'm'],
  points: ['points'],
}

const choicesBefore = (steps: readonly Step[], at: number): readonly string[] => {
  const [text, field] = [steps[at - 1], steps[at - 2]]
  return text?.op === 'text' &&
    !/\p{L}/u.test(text.folded) &&
    field?.op === 'field' &&
    field.type === 'choice'
    ? field.choices
    : []
}

/** The mark of the format beside a field, in a direction; null where the format ends there. */
const markBeside = (steps: readonly Step[], at: number, direction: 1 | -1): string | null => {
  let beside = at + direction
  while (steps[beside]?.op === 'optional') beside += direction
  const step = steps[beside]
  if (step === undefined) return null
  const text = step.op === 'text' ? step.folded.trim() : ''
  const mark = direction === 1 ? text.slice(0, 1) : text.slice(-1)
  return /[\p{L}\p{N}]/u.test(mark) ? '' : mark
}

const plans = new WeakMap<NamingFormat, FormatPlan>()

export const planOf = (format: NamingFormat): FormatPlan => {
  const known = plans.get(format)
  if (known) return known
  const steps = compile(format)
  const fields: PlannedField[] = []
  const labelling = new Set<string>()
  const fixed: { word: string; at: number; used: boolean }[] = []
  let optionalUntil = 0
  steps.forEach((step, at) => {
    if (step.op === 'optional') optionalUntil = step.to
    if (step.op === 'text')
      for (const token of tokensOf(step.folded))
        if (token.kind === 'word') fixed.push({ word: token.text, at, used: false })
    if (step.op !== 'field') return
    const counts = step.type === 'integer' || step.type === 'span'
    const previous = steps[at - 1]
    const wordBefore =
      counts && previous?.op === 'text'
        ? /(\p{L}+)[ #.°º]*$/u.exec(withoutAccents(previous.folded))?.[1]
        : undefined
    const next = steps[at + 1]
    const wordAfter =
      counts && afterLabels[step.field] && next?.op === 'text'
        ? /^ *(\p{L}+)/u.exec(withoutAccents(next.folded))?.[1]
        : undefined
    for (const [word, place] of [
      [wordBefore, at - 1],
      [wordAfter, at + 1],
    ] as const)
      if (word) labelling.add(`${place} ${word}`)
    fields.push({
      field: step.field,
      step,
      wordBefore: wordBefore ?? null,
      choices: counts ? choicesBefore(steps, at) : [],
      before: [
        ...(wordBefore ? [wordBefore] : []),
        ...(ownLabels[step.field] ? [ownLabels[step.field] ?? ''] : []),
      ],
      after: [...(wordAfter ? [wordAfter] : []), ...(afterLabels[step.field] ?? [])],
      labelled: wordBefore !== undefined || wordAfter !== undefined,
      marks: { before: markBeside(steps, at, -1), after: markBeside(steps, at, 1) },
      optional: at < optionalUntil,
    })
  })
  const loose = fixed
    .filter(({ word, at }) => !labelling.has(`${at} ${word}`))
    .map(({ word }) => word)
  const words = [
    ...fixed.map(({ word }) => word),
    ...fields.flatMap(({ before, step }) => [...before, ...step.choices]),
  ]
  const plan: FormatPlan = {
    fields,
    fixed: loose,
    concepts: new Set(words.flatMap((word) => [word, ...conceptsOf(word)])),
    has: (field) => fields.some((planned) => planned.field === field),
  }
  plans.set(format, plan)
  return plan
}
