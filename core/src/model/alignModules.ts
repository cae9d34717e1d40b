import { assign } from '../pair/assign.ts'
import { likeness, type Seen } from './similarity.ts'

/** One part of a repeated module: for each repetition the item that stands for it, or null. */
export interface Slot {
  items: (Seen | null)[]
}

/** Two items less alike than this are two parts. */
const leastAlike = 0.55

const best = (slot: Slot, seen: Seen): number =>
  Math.max(0, ...slot.items.map((item) => (item ? likeness(item, seen) : 0)))

/** Sum over an optimal assignment of the items of two modules. */
const moduleLikeness = (a: readonly Seen[], b: readonly Seen[]): number => {
  const scores = a.map((one) => b.map((other) => likeness(one, other)))
  return assign(scores, leastAlike).reduce<number>(
    (sum, column, row) => sum + (column === null ? 0 : (scores[row]?.[column] ?? 0)),
    0,
  )
}

/** Share of two modules' items that have a counterpart, 0 to 1. */
export const structureShared = (a: readonly Seen[], b: readonly Seen[]): number => {
  if (a.length === 0 || b.length === 0) return 0
  const scores = a.map((one) => b.map((other) => likeness(one, other)))
  return (
    (2 * assign(scores, leastAlike).filter((column) => column !== null).length) /
    (a.length + b.length)
  )
}

/**
 * Aligns the repetitions of a module into slots: partial tree alignment (Zhai and Liu 2005). The repetition most like
 * all others is the seed; the others are matched against what is known so far, most alike first, by optimal
 * assignment, and what has no counterpart becomes a slot of its own after the item it follows.
 */
export const alignModules = (modules: readonly (readonly Seen[])[]): Slot[] => {
  const totals = modules.map((module, i) =>
    modules.reduce((sum, other, j) => (i === j ? sum : sum + moduleLikeness(module, other)), 0),
  )
  const order = modules
    .map((_, i) => i)
    .sort((a, b) => (totals[b] ?? 0) - (totals[a] ?? 0) || a - b)
  const [seed = 0, ...others] = order
  const empty = (): (Seen | null)[] => modules.map(() => null)
  const slots: Slot[] = (modules[seed] ?? []).map((seen) => {
    const items = empty()
    items[seed] = seen
    return { items }
  })
  for (const index of others) {
    const items = modules[index] ?? []
    const columns = assign(
      items.map((seen) => slots.map((slot) => best(slot, seen))),
      leastAlike,
    )
    let after: Slot | null = null
    const known = [...slots]
    items.forEach((seen, row) => {
      const column = columns[row]
      const slot = column === null || column === undefined ? undefined : known[column]
      if (slot) {
        slot.items[index] = seen
        after = slot
        return
      }
      const fresh: Slot = { items: empty() }
      fresh.items[index] = seen
      slots.splice(after === null ? 0 : slots.indexOf(after) + 1, 0, fresh)
      after = fresh
    })
  }
  return slots
}
