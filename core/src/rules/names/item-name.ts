import { z } from 'zod'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { nameMessages, renameItem, tellName } from './nameVerdict.ts'

export const itemName = defineRule({
  id: 'item-name',
  group: 'names',
  title: 'Items are named by their format',
  why: '“Quiz 1.3” in a student’s calendar says nothing about whose quiz it is.',
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
  examples: {
    passes: [
      { title: 'the names that deployment gave', change: () => {} },
      {
        title: 'a part that instructors may rename',
        change: ({ item }) => void (item('quiz', 3).name = 'Deviation drill'),
      },
      {
        title: 'case and spaces are small differences',
        change: ({ item }) => void (item('week-overview', 3).name = 'week 3  Overview'),
      },
    ],
    fails: [
      {
        title: 'a bare name',
        change: ({ item }) => void (item('assignment', 2).name = 'Assignment'),
        evidence: 'Assignment',
      },
      {
        title: 'another course’s code',
        change: ({ item }) =>
          void (item('assignment', 2).name = 'NAV 205 · Assignment 1: Leading marks'),
        evidence: 'NAV 205',
      },
    ],
  },
})
