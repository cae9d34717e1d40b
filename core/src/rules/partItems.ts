import type { ExpectedPart } from '../expand/index.ts'
import type { CheckContext, PairedItem } from './context.ts'
import { aboutPart, type SeenEvidence, type Verdict } from './rule.ts'

/** What a rule finds wrong with one item. */
export interface ItemFault {
  message: string
  values: Readonly<Record<string, string>>
  seen: string
  evidence?: SeenEvidence['kind']
  expected: string
}

/**
 * One requirement for every item of the template the rule speaks of: absent with its item, otherwise as judged. A text
 * is the reason why it cannot be told; null means that it is as it should be.
 */
export function* partItems(
  context: CheckContext,
  speaksOf: (part: ExpectedPart) => boolean,
  judge: (there: PairedItem) => ItemFault | string | null,
): Generator<Verdict> {
  for (const part of context.parts) {
    if (part.kind === 'module' || !speaksOf(part)) continue
    const subject = aboutPart(part)
    const there = context.itemFor(part)
    if (!there) {
      yield { subject, outcome: 'absent' }
      continue
    }
    const fault = judge(there)
    if (fault === null) yield { subject, outcome: 'passed' }
    else if (typeof fault === 'string')
      yield { subject, outcome: 'cannot-tell', reason: fault, itemId: there.item.id }
    else
      yield {
        subject,
        outcome: 'failed',
        message: fault.message,
        values: { item: there.item.name, ...fault.values },
        evidence: [{ kind: fault.evidence ?? 'value', text: fault.seen.slice(0, 300) }],
        expected: fault.expected,
        itemId: there.item.id,
      }
  }
}
