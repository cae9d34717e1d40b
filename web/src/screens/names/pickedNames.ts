import { useState } from 'react'
import type { Judged, ListedName } from './protocol.ts'

/** Names surer than this are picked to begin with; the rest wait for a look. */
const pickedFrom = 0.8
const noIndices: ReadonlySet<number> = new Set()

/**
 * Which mended names are picked: the sure ones, but for those changed by hand.
 * @param flipped indices of names that were picked, or left, by hand
 */
export const pickedNames = (
  names: readonly ListedName[],
  judged: readonly (Judged | undefined)[],
  flipped: ReadonlySet<number>,
): Set<number> =>
  new Set(
    judged.flatMap((name, i) => {
      if (!name || name.mended === null || name.mended === names[i]?.name) return []
      return name.confidence >= pickedFrom !== flipped.has(i) ? [i] : []
    }),
  )

/** What was picked and left by hand in a list; a new verdict keeps it, a new list forgets it. */
export const useFlipped = (names: readonly ListedName[]) => {
  const [byHand, setByHand] = useState({ names, indices: noIndices })
  const flipped = byHand.names === names ? byHand.indices : noIndices
  const flip = (index: number) => {
    const indices = new Set(flipped)
    if (!indices.delete(index)) indices.add(index)
    setByHand({ names, indices })
  }
  return { flipped, flip }
}
