import type { FieldValues } from '../fields.ts'
import type { SmallDifference } from '../fold.ts'
import type { FieldReading } from '../read.ts'
import type { Reason } from './reasons.ts'

/** Where a name may stand, and what is known there. */
export interface NameContext {
  /** What the fields should say at each place in question: one when it is known, else all that it may be. */
  places: readonly FieldValues[]
  /** Whether more than the name says that it stands at its place: what deployment recorded, what it holds. */
  placeSure?: boolean
  /** A date `YYYY-MM-DD` of the term, for dates written without a year. */
  near: string
  classSections: readonly string[]
}

export const nameVerdicts = ['follows', 'small-differences', 'mendable', 'unreadable'] as const
export type NameVerdict = (typeof nameVerdicts)[number]

export interface NameJudgement {
  verdict: NameVerdict
  /** In the order of the format: as they stand in a name that follows it, else as far as they could be recovered. */
  fields: FieldReading[]
  differences: SmallDifference[]
  /** The right name, keeping the instructor's own words; null when it cannot be told. */
  mended: string | null
  /** From 0 to 1 that `mended` is the right name; 0 without one. */
  confidence: number
  reasons: Reason[]
  /** Which of the places it was judged at; null when none could be told. */
  place: number | null
}

/** A name of which nothing is given: it cannot be told, and is not guessed. */
export const unreadable = (
  reasons: Reason[],
  fields: FieldReading[] = [],
  place: number | null = null,
): NameJudgement => ({
  verdict: 'unreadable',
  fields,
  differences: [],
  mended: null,
  confidence: 0,
  reasons,
  place,
})
