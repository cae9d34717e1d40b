import { z } from 'zod'
import { everyItem, everyObjective, objectivesServing } from '../../template/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const objectiveUnassessed = defineRule({
  id: 'objective-unassessed',
  group: 'outcomes',
  title: 'Every objective is assessed',
  why: 'Students learn what is judged; an objective that nothing assesses is a wish.',
  untold:
    'How well it is assessed. A module’s objective is assessed where an objective that serves it is.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 20,
  messages: { unassessed: 'Nothing in this course assesses the objective “{objective}”.' },
  *check(context): Generator<Verdict> {
    const { template } = context.expected
    if (template.outcomes.length === 0) return
    for (const objective of everyObjective(template)) {
      if (objective.of === 'course') continue
      const told = {
        subject: aboutCourse,
        discriminator: `${objective.part}/${objective.key}`,
      } as const
      const served = new Set([objective.key, ...objectivesServing(template, objective.key)])
      const assessing = new Set(
        everyItem(template)
          .filter((item) => item.assesses.some((key) => served.has(key)))
          .map((item) => item.key),
      )
      if (context.parts.some((part) => assessing.has(part.key) && context.itemFor(part)))
        yield { ...told, outcome: 'passed' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'unassessed',
          values: { objective: objective.text },
          evidence: [{ kind: 'words', text: objective.text }],
          expected: 'an item that assesses it',
          together: 'objectives',
        }
    }
  },
})
