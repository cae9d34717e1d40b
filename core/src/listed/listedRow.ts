import type { ItemKind } from '../template/index.ts'

/** What a column of a table may say of a part. Each is written as in the outline; empty where nothing is said. */
export const saidFields = ['strength', 'audience', 'repeats', 'due', 'points', 'may'] as const
export type SaidField = (typeof saidFields)[number]

/** A row of the outline as it was read from a list or a table, so that somebody can look at it before it is taken. */
export interface ListedRow extends Record<SaidField, string> {
  /** How deep it stands, from 0; under a row that stands less deep, which then is a module. */
  depth: number
  kind: ItemKind | 'module'
  /** A naming format. */
  name: string
  /** Address of a web link; empty without one. */
  url: string
}

export const nothingSaid: Record<SaidField, string> = {
  strength: '',
  audience: '',
  repeats: '',
  due: '',
  points: '',
  may: '',
}
