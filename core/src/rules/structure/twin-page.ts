import { z } from 'zod'
import type { CheckContext } from '../context.ts'
import { aboutPart, defineRule, orPassed, type Verdict } from '../rule.ts'

export const twinPage = defineRule({
  id: 'twin-page',
  group: 'structure',
  title: 'No repetition was taken for another',
  why: 'Two overviews of week 3 and none of week 4: the wrong copy was edited, and week 4 reads week 3’s text.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 10,
  messages: {
    twin: 'There are two copies of “{original}”, one of them “{copy}”, and “{missing}” is missing: it seems that the wrong copy was edited.',
  },
  check: (context) => orPassed(twins(context)),
})

function* twins(context: CheckContext): Generator<Verdict> {
  for (const { of, found } of context.pairing.copies) {
    const part = context.partAt(of)
    const placed = context.placed(found)
    if (!part || !placed || part.repetition === null) continue
    const module = placed.module ? context.partOf(placed.module.id) : null
    const missing = context.parts.find(
      (other) =>
        other.key === part.key &&
        other.instance !== part.instance &&
        !context.itemFor(other) &&
        !other.inBreak &&
        other.strength !== 'may' &&
        !other.definition.may.remove &&
        (module === null || module.instance === part.parent || other.parent === module.instance),
    )
    if (!missing) continue
    yield {
      subject: aboutPart(missing),
      outcome: 'failed',
      message: 'twin',
      values: {
        original: context.itemFor(part)?.item.name ?? part.name,
        copy: placed.item.name,
        missing: missing.name,
      },
      evidence: [{ kind: 'words', text: placed.item.name }],
      expected: missing.name,
      itemId: found,
    }
  }
}
