import type { Add, Surroundings } from '../candidates.ts'
import type { PlannedField } from '../formatPlan.ts'
import type { Token } from '../tokens.ts'

/** Finds what may be the value of a field of one type. */
export type Recogniser = (
  planned: PlannedField,
  tokens: readonly Token[],
  around: Surroundings,
  add: Add,
) => void
