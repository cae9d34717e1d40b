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
    const objectives = everyObjective(template)
    const serving = servingOutcomes(objectives)
    for (const objective of objectives) {
      if (objective.of === 'course') continue
      const told = {
        subject: aboutCourse,
        discriminator: `${objective.part}/${objective.key}`,
      } as const
      if (serving.has(objective.key)) yield { ...told, outcome: 'passed' }
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

/** Keys of the objectives that serve a course outcome, directly or through others; some that serve only each other do not. */
const servingOutcomes = (objectives: ReturnType<typeof everyObjective>): ReadonlySet<string> => {
  const serving = new Set(objectives.flatMap(({ of, key }) => (of === 'course' ? [key] : [])))
  for (let before = -1; before !== serving.size;) {
    before = serving.size
    for (const { key, serves } of objectives)
      if (serves.some((other) => serving.has(other))) serving.add(key)
  }
  return serving
}
