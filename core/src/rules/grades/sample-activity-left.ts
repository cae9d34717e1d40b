import { z } from 'zod'
import { isShown } from '../../course/index.ts'
import { foldedName } from '../../naming/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const sampleActivityLeft = defineRule({
  id: 'sample-activity-left',
  group: 'grades',
  title: 'No sample activity sits in the grades',
  why: 'A placeholder quiz that nobody can take gives every student a zero.',
  untold: 'Samples without points, and names in which the template itself uses the word.',
  strength: 'must',
  parameters: z.strictObject({
    words: z
      .array(z.string().min(3).max(60))
      .max(60)
      .default(['sample', 'example', 'placeholder', 'template', 'your title', 'untitled', 'demo']),
  }),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { sample: '“{name}” looks like a sample and carries {points} points.' },
  *check(context, { words }): Generator<Verdict> {
    const pattern = new RegExp(
      `(?<![\\p{L}\\p{N}])(?:${words.map((word) => foldedName(word).replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|')})(?![\\p{L}\\p{N}])`,
      'u',
    )
    for (const placed of context.placedItems) {
      const { item } = placed
      if ((item.points ?? 0) <= 0) continue
      const part = context.partOf(item.id)
      const subject = aboutFound(context, item)
      const folded = foldedName(item.name)
      const sample = pattern.test(folded) && !(part && pattern.test(foldedName(part.name)))
      if (!sample) {
        if (part) yield { subject, outcome: 'passed' }
      } else if (
        !isShown(item) &&
        !context.reached(part ? context.needOf(part) : context.openingDay)
      )
        yield {
          subject,
          outcome: 'not-due-yet',
          dueOn: part ? context.needOf(part) : context.openingDay,
        }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'sample',
          values: { name: item.name, points: String(item.points) },
          evidence: [{ kind: 'words', text: item.name }],
          expected: 'real work, or none',
          itemId: item.id,
        }
    }
  },
})
