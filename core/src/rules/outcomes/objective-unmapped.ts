import { z } from 'zod'
import { everyObjective } from '../../template/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const objectiveUnmapped = defineRule({
  id: 'objective-unmapped',
  group: 'outcomes',
  title: 'Every objective serves a course outcome',
  why: 'Time is spent on what nobody promised, while what was promised goes without.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 10,
  messages: { unmapped: 'The objective “{objective}” serves no course outcome.' },
  *check(context): Generator<Verdict> {
    const { template } = context.expected
    if (template.outcomes.length === 0) return
    const known = new Set(everyObjective(template).map((objective) => objective.key))
    for (const objective of everyObjective(template)) {
      if (objective.of === 'course') continue
      const told = {
        subject: aboutCourse,
        discriminator: `${objective.part}/${objective.key}`,
      } as const
      if (objective.serves.some((key) => known.has(key))) yield { ...told, outcome: 'passed' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'unmapped',
          values: { objective: objective.text },
          evidence: [{ kind: 'words', text: objective.text }],
          expected: 'the outcome it serves',
          together: 'objectives',
        }
    }
  },
})
