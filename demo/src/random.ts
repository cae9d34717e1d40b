/** A seeded source of numbers in [0, 1): mulberry32 (Tommy Ettinger, public domain; from memory). */
export const seededRandom = (seed: number): (() => number) => {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

export const pick = <T>(random: () => number, from: readonly T[]): T => {
  const picked = from[Math.floor(random() * from.length)]
  if (picked === undefined) throw new RangeError('nothing to pick from')
  return picked
}
