import type { FieldStep } from './mergeCase.ts'

/**
 * Questions in the order the template wants: those it asks change places among themselves, all others keep theirs. Where people put
 * them in an order of their own, it stays.
 * @param present ids in the order in which they stand
 * @param wanted ids of those that the template asks, in its order
 * @param deployed ids of those that were deployed, in the order in which they were
 */
export const inWantedOrder = (
  present: readonly string[],
  wanted: readonly string[],
  deployed: readonly string[],
): string[] => {
  const isWanted = new Set(wanted)
  const wasDeployed = new Set(deployed)
  const stand = present.filter((id) => wasDeployed.has(id))
  const isAsDeployed = deployed.filter((id) => stand.includes(id)).every((id, i) => id === stand[i])
  if (!isAsDeployed) return [...present]
  const next = wanted.filter((id) => wasDeployed.has(id)).values()
  return present.map((id) =>
    isWanted.has(id) && wasDeployed.has(id) ? (next.next().value ?? id) : id,
  )
}

/** What is told of the questions of an assessment as a whole. */
export const questionsStep = (does: FieldStep['does'], reason: string): FieldStep => ({
  field: 'questions',
  does,
  base: null,
  present: null,
  wanted: null,
  result: null,
  decided: null,
  reason,
})

/** What stands, and what is new: each new one after the one that it follows in the template, or before the one that follows it. */
export const withNew = (
  standing: readonly string[],
  sequence: readonly ({ id: string } | { key: string })[],
): ({ id: string } | { key: string })[] => {
  const all: ({ id: string } | { key: string })[] = standing.map((id) => ({ id }))
  const indexOf = (one: { id: string } | { key: string }): number =>
    all.findIndex((other) =>
      'id' in one ? 'id' in other && other.id === one.id : 'key' in other && other.key === one.key,
    )
  sequence.forEach((one, i) => {
    if ('id' in one) return
    const before = sequence[i - 1]
    const after = sequence.slice(i + 1).find((other) => indexOf(other) >= 0)
    const at = before ? indexOf(before) + 1 : after ? indexOf(after) : all.length
    all.splice(at, 0, one)
  })
  return all
}
