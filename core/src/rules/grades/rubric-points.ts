import { z } from 'zod'
import { rubricPoints } from '../../template/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const rubricPointsRule = defineRule({
  id: 'rubric-points',
  group: 'grades',
  title: 'A rubric’s points come to those of its work',
  why: 'Work judged out of 80 by its rubric and out of 100 in the grades cannot be graded honestly.',
  untold: 'Work without points: there is nothing to compare with.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 5,
  messages: { differ: 'The rubric of “{name}” comes to {seen points}; the work carries {wanted}.' },
  *check(context): Generator<Verdict> {
    for (const { item } of context.placedItems) {
      if (!item.rubric) continue
      const subject = aboutFound(context, item)
      const sum = rubricPoints(item.rubric)
      if (item.points === null || sum === item.points)
        yield { subject, outcome: item.points === null ? 'inapplicable' : 'passed' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'differ',
          values: { name: item.name, seen: String(sum), wanted: String(item.points) },
          evidence: [{ kind: 'value', text: `${sum} against ${item.points}` }],
          expected: String(item.points),
          itemId: item.id,
        }
    }
  },
})
