import { z } from 'zod'
import { defineRule, aboutPart, type Verdict } from '../rule.ts'

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
  *check(context): Generator<Verdict> {
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
  },
  examples: {
    passes: [
      { title: 'one of each', change: () => {} },
      {
        title: 'a second copy, but none is missing',
        change: ({ module, item }) =>
          void module('week', 3).items.push({
            ...item('week-overview', 3),
            id: 'twin',
            recordedAs: undefined,
          }),
      },
    ],
    fails: [
      {
        title: 'week 3’s overview stands in week 4 as well',
        change: ({ module, item }) => {
          module('week', 4).items.splice(
            module('week', 4).items.indexOf(item('week-overview', 4)),
            1,
          )
          module('week', 4).items.unshift({
            ...item('week-overview', 3),
            id: 'twin',
            recordedAs: undefined,
          })
        },
        evidence: 'Week 3 overview',
      },
      {
        title: 'two checklists in week 2, none in week 6',
        change: ({ module, item }) => {
          module('week', 6).items.splice(module('week', 6).items.indexOf(item('checklist', 6)), 1)
          module('week', 2).items.push({
            ...item('checklist', 2),
            id: 'twin',
            recordedAs: undefined,
          })
        },
        evidence: 'Week 2 checklist',
      },
    ],
  },
})
