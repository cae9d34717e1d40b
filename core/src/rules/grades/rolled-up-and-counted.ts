import { z } from 'zod'
import { foldedName } from '../../naming/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

const totalWord = /\b(?:total|subtotal|overall|average|sum|final score|grade so far)\b/

export const rolledUpAndCounted = defineRule({
  id: 'rolled-up-and-counted',
  group: 'grades',
  title: 'Nothing counts twice',
  why: 'A total column beside the columns it adds up counts every point twice.',
  untold:
    'Totals that differ from the sum of what they roll up, and items that the template itself expects.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 5,
  messages: {
    twice:
      '“{name}” carries {points} points, just what {others} items of its category come to: it seems to be their total, and counts beside them.',
  },
  *check(context): Generator<Verdict> {
    const graded = context.placedItems.filter(({ item }) => (item.points ?? 0) > 0)
    const category = new Map(graded.map(({ item }) => [item, foldedName(item.category ?? '')]))
    for (const { item } of graded) {
      const subject = aboutFound(context, item)
      const part = context.partOf(item.id)
      const others = part
        ? []
        : graded.filter(
            (other) => other.item !== item && category.get(other.item) === category.get(item),
          )
      const sum = others.reduce((all, other) => all + (other.item.points ?? 0), 0)
      if (
        !part &&
        others.length > 1 &&
        sum === item.points &&
        totalWord.test(foldedName(item.name))
      )
        yield {
          subject,
          outcome: 'failed',
          message: 'twice',
          values: { name: item.name, points: String(item.points), others: String(others.length) },
          evidence: [{ kind: 'words', text: item.name }],
          expected: 'a total that does not count',
          itemId: item.id,
        }
      else if (part) yield { subject, outcome: 'passed' }
    }
  },
})
