import { readDocument } from '@wickerframe/core'
import { RolloutOrder, type RolloutRequest } from '@wickerframe/contract'

/** What a rollout was asked to do, as it is kept with its run. */
export interface StoredOrder {
  order: RolloutOrder
  rule: RolloutRequest['rule']
  standing: boolean
}

/** Reads a stored order; null where a run has none. */
export const orderOf = (text: string | null): StoredOrder | null => {
  if (text === null) return null
  const stored = JSON.parse(text) as StoredOrder
  const read = readDocument(RolloutOrder, stored.order)
  if (!read.ok)
    throw new Error(`a rollout's order cannot be read: ${JSON.stringify(read.problems[0])}`)
  return { ...stored, order: read.value }
}
