import { z } from 'zod'
import { isShown } from '../../course/index.ts'
import type { CheckContext } from '../context.ts'
import { defineRule, orPassed, type Verdict } from '../rule.ts'
import { twinsIn } from './twins.ts'

export const duplicatePart = defineRule({
  id: 'duplicate-part',
  group: 'structure',
  title: 'Nothing stands twice',
  why: 'Two pages of one name: students read one, the instructor edits the other.',
  untold:
    'Parts that may be doubled, and copies in another module that nobody sees: they are work in hand.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { twice: '“{name}” stands beside “{original}” as a second copy of it.' },
  check: (context) => orPassed(copies(context)),
})

function* copies(context: CheckContext): Generator<Verdict> {
  const twins = new Set(twinsIn(context).map(({ found }) => found.item.id))
  for (const { of, found } of context.pairing.copies) {
    const part = context.partAt(of)
    const placed = context.placed(found)
    const original = part ? context.itemFor(part) : null
    if (!part || !placed || !original || twins.has(found)) continue
    const subject = { about: 'found', id: found, name: placed.item.name } as const
    const elsewhere =
      placed.module !== null && original.module !== null && placed.module.id !== original.module.id
    // A copy taken to another module to be made into something else is work in hand while nobody sees it.
    if (part.definition.may.duplicate || (elsewhere && !isShown(placed.item)))
      yield { subject, outcome: 'inapplicable' }
    else
      yield {
        subject,
        outcome: 'failed',
        message: 'twice',
        values: { name: placed.item.name, original: original.item.name },
        evidence: [{ kind: 'words', text: placed.item.name }],
        expected: 'one of them',
        itemId: found,
        together: `copy/${part.key}`,
      }
  }
}
