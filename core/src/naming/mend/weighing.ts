import type { FieldName } from '../fields.ts'
import type { FieldType } from '../fields.ts'
import type { Candidate, How } from './candidates.ts'
import type { Reason } from './reasons.ts'

/** How far each way of recognising something lowers the confidence. Set by hand on the part of the corpus that is not held back. */
export const howFactors: Readonly<Record<How, number>> = {
  plain: 1,
  short: 0.995,
  typed: 0.97,
  bare: 0.93,
  'another-stretch': 0.75,
  'part-of': 0.93,
  'start-only': 0.97,
  copy: 0.98,
  'bare-copy': 0.75,
  'class-section': 0.98,
  'not-asked': 0.97,
}

/** How far everything else does. */
export const factors = {
  unknownMissing: 0.5,
  topicSupplied: 0.9,
  topicMissing: 0.6,
  joined: 0.7,
  fixedMissing: 0.85,
  wordLeft: 0.45,
  rangeLeft: 0.8,
  strayMarks: 0.85,
  rival: 0.4,
  numberAgainstDates: 0.3,
  numberWrong: 0.6,
  placeWrong: 0.97,
  numberWrongPlaceRight: 0.9,
  datesWrong: 0.85,
  datesDaysOff: 0.97,
  valueWrong: 0.9,
  untoldLabelled: 0.75,
  untold: 0.95,
} as const

/** Sure of what is written by a format after everything in a name was recognised just so. */
const begins = 0.98
/** Below this it is a guess, and guesses are not made. */
export const leastConfidence = 0.4

/** Gathers why a name is mended as it is, and how sure that leaves us: the factors are multiplied. */
export class Weighing {
  readonly reasons: Reason[] = []
  #confidence: number = begins

  because(factor: number, reason?: Reason | undefined): void {
    this.#confidence *= factor
    if (reason) this.reasons.push(reason)
  }

  get confidence(): number {
    return Math.round(this.#confidence * 1000) / 1000
  }
}

/** A field that is missing and supplied by the context. `placeRight`: dates or topic say that the name belongs there. */
export const suppliedFactor = (
  field: FieldName,
  type: FieldType,
  told: boolean,
  placeRight: boolean,
): number => {
  if (type === 'integer' && field !== 'minutes' && field !== 'points' && field !== 'year')
    return placeRight ? 0.93 : told ? 0.75 : 0.7
  if (type === 'range' || type === 'date' || type === 'span') return 0.98
  if (field === 'code' || field === 'term') return 0.97
  if (field === 'title') return 0.85
  return type === 'choice' ? 0.8 : 0.9
}

/** What there is to say of how something was recognised; nothing where it stood just so. */
export const howReason = (said: Candidate, field: FieldName | null): Reason | undefined => {
  if (said.how === 'short') return { code: 'shortened', field }
  if (said.how === 'typed') return { code: 'mistyped', field }
  if (field === null) return undefined
  if (said.how === 'bare') return { code: 'unlabelled', field }
  return said.how === 'another-stretch' ? { code: 'another-stretch', field } : undefined
}
