import { z } from 'zod'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { nameMessages, renameItem, tellName } from './nameVerdict.ts'

export const itemName = defineRule({
  id: 'item-name',
  group: 'names',
  title: 'Items are named by their format',
  why: '“Quiz 1.3” in a student’s calendar says nothing about whose quiz it is.',
  untold:
    'Parts that may be renamed, small differences unless the template counts them, and wrong dates, which have a rule of their own. A name that is not sure enough to propose is told with what it would be, and mended by a person.',
  strength: 'should',
  parameters: z.strictObject({ acceptSmallDifferences: z.boolean().default(true) }),
  mender: 'designer',
  effortMinutes: 1,
  messages: nameMessages,
  *check(context, { acceptSmallDifferences }): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.kind === 'module') continue
      const subject = aboutPart(part)
      const there = context.itemFor(part)
      if (!there) {
        yield { subject, outcome: 'absent' }
        continue
      }
      if (part.definition.may.rename === true) {
        yield { subject, outcome: 'inapplicable' }
        continue
      }
      yield tellName(context, part, there.item, acceptSmallDifferences)
    }
  },
  mend: (verdict, context) =>
    verdict.subject.about === 'part' ? renameItem(context, verdict.subject.part) : [],
})
