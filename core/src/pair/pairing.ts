import type { Copy } from './copies.ts'
import type { Join } from './join.ts'
import type { MergedModules, SplitPage } from './rearranged.ts'

/** Which part of the expected course is which part of the snapshot. */
export interface Pair {
  expected: string
  found: string
  /** hand: joined by a person; recorded: what deployment created; evidence: told from name, kind, place and content. */
  by: 'hand' | 'recorded' | 'evidence'
  /** 0 to 1: the share of pairs told with as much evidence and as much margin that are right. */
  confidence: number
  reasons: string[]
  /** Whether it stands outside the module it is expected in. */
  moved: boolean
}

/** A pair below this confidence is shown as doubtful. */
export const doubtfulBelow = 0.75

export interface Pairing {
  pairs: Pair[]
  /** Instances with nothing found for them. */
  missing: string[]
  /** Ids of found modules and items that nothing expects. */
  extra: string[]
  /** Found items that carry the marks of an instance already paired, or its very name in the same module. */
  copies: Copy[]
  /** Modules of the template that stand together in one found module; the first of each is its pair. */
  merged: MergedModules[]
  /** Pages taken apart: the pair first, then the items that hold the rest of its blocks. */
  split: SplitPage[]
  /** Joins by hand of which an end is no longer there. */
  lapsed: Join[]
}
