import type { FieldName, FieldValue, FieldValues } from '../fields.ts'
import type { SaidCode } from './courseWords.ts'
import type { FormatPlan } from './formatPlan.ts'
import type { SaidDates } from './saidDates.ts'
import type { Stretch, Token } from './tokens.ts'

/** How a stretch was recognised; each way has its own weight and its own words. */
export type How =
  | 'plain'
  | 'short'
  | 'typed'
  | 'bare'
  | 'another-stretch'
  | 'part-of'
  | 'start-only'
  | 'copy'
  | 'bare-copy'
  | 'class-section'
  | 'not-asked'

/** A stretch of a name that may be the value of a field, a word of the format, or something to leave out. */
export interface Candidate extends Stretch {
  /** What it fills: a field, `fixed:N`, or `out:N` for what the format does not ask for. One of each is taken. */
  slot: string
  field: FieldName | null
  how: How
  value: FieldValue | null
  /** Log-odds that this is what it seems, set by hand: higher for what is hard to write by accident. */
  weight: number
  /** Every way of reading a date. */
  dates: SaidDates['readings'] | null
}

/** What is known of a name before its place is chosen. */
export interface Recognised {
  tokens: readonly Token[]
  candidates: readonly Candidate[]
  otherCode: SaidCode | null
}

export interface Surroundings {
  name: string
  origin: readonly number[]
  plan: FormatPlan
  /** Values that are the same at every place: the course's. */
  common: FieldValues
  near: string
  classSections: readonly string[]
  placeSure: boolean
}

export const mostOfASlot = 4

/** Notes a candidate. A slot of null: a stretch of its own that the format does not ask for. */
export type Add = (
  slot: string | null,
  field: FieldName | null,
  how: How,
  stretch: Stretch,
  value: FieldValue | null,
  weight: number,
  dates?: Candidate['dates'],
) => void
