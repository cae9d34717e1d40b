import type { FieldValues, InferredFormat, NameVerdict } from '@wickerframe/core'

/** A name to judge. Without values of its own it is judged at every place of the chosen course. */
export interface ListedName {
  name: string
  values?: FieldValues
  near?: string
  classSections?: readonly string[]
}

/** What the list shows of a judgement. */
export interface Judged {
  verdict: NameVerdict
  mended: string | null
  confidence: number
  reasons: string[]
}

/** Asks of the worker. A later list or job replaces an earlier one. */
export type Ask =
  | { ask: 'list'; list: number; names: readonly ListedName[] }
  | {
      ask: 'judge'
      job: number
      list: number
      format: string
      places: readonly FieldValues[]
      near: string
      classSections: readonly string[]
    }

export type Tell =
  | { tell: 'inferred'; list: number; formats: InferredFormat[] }
  /** Judgements from one index of the list on. */
  | { tell: 'judged'; job: number; from: number; judged: Judged[]; done: boolean }
