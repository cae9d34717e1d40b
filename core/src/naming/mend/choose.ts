import type { FieldValues } from '../fields.ts'
import { mostOfASlot, type Candidate, type Recognised } from './candidates.ts'
import { placeWeight } from './placeWeight.ts'
import { overlap } from './tokens.ts'

/** Candidates that stand together without overlapping, one for each slot at most, and how much speaks for them. */
export interface Choice {
  weight: number
  chosen: readonly Candidate[]
}

const beamWidth = 10
/** Left out of account: what a slot is better without. */
const least = 0.2

/**
 * The heaviest candidates that do not overlap, for one place: slot by slot, keeping the best partial choices (beam
 * search), so that the work is bounded by slots × candidates whatever the name holds.
 */
export const chooseFor = ({ candidates }: Recognised, place: FieldValues): Choice => {
  const slots = new Map<string, { candidate: Candidate; weight: number }[]>()
  for (const candidate of candidates) {
    // Of two equal ones the earlier stands where names begin.
    const weight = candidate.weight + placeWeight(candidate, place) - candidate.from * 0.001
    if (weight < least) continue
    const slot = slots.get(candidate.slot)
    if (slot) slot.push({ candidate, weight })
    else slots.set(candidate.slot, [{ candidate, weight }])
  }
  const ordered = [...slots.values()]
    .map((slot) => slot.sort((a, b) => b.weight - a.weight).slice(0, mostOfASlot))
    .sort((a, b) => (b[0]?.weight ?? 0) - (a[0]?.weight ?? 0))
  let beam: Choice[] = [{ weight: 0, chosen: [] }]
  for (const slot of ordered) {
    const next: Choice[] = [...beam]
    for (const partial of beam)
      for (const { candidate, weight } of slot)
        if (!partial.chosen.some((taken) => overlap(taken, candidate)))
          next.push({ weight: partial.weight + weight, chosen: [...partial.chosen, candidate] })
    beam = next.sort((a, b) => b.weight - a.weight).slice(0, beamWidth)
  }
  return beam[0] ?? { weight: 0, chosen: [] }
}
