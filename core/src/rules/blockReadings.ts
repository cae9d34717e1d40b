import type { ExpectedBlock, ExpectedPart } from '../expand/index.ts'
import type { BlockReading } from '../page/index.ts'
import type { CheckContext, PairedItem } from './context.ts'
import { aboutPart, type Subject } from './rule.ts'

/** A block the template asks for, and how it stands where its page was found. */
export interface PlacedBlock {
  part: ExpectedPart
  block: ExpectedBlock
  told: { subject: Subject; discriminator: string; strength: ExpectedBlock['strength'] }
  /** null where its page is not there, or cannot be read. */
  stands: { there: PairedItem; reading: BlockReading; all: readonly BlockReading[] } | null
}

/** Every block of every page the template asks for, in order. */
export function* blockReadings(context: CheckContext): Generator<PlacedBlock> {
  for (const part of context.pageParts()) {
    const there = context.itemFor(part)
    const all = there ? context.readingsOf(there) : null
    for (const [i, block] of part.blocks.entries()) {
      const reading = all?.[i]
      yield { part, block, told: { subject: aboutPart(part), discriminator: block.key, strength: block.strength }, stands: there && all && reading ? { there, reading, all } : null }
    }
  }
}
