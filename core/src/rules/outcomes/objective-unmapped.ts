import { z } from 'zod'
import { everyObjective, outcomeCoverage, type Template } from '../../template/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const objectiveUnmapped = defineRule({
  id: 'objective-unmapped',
  group: 'outcomes',
  title: 'Every objective serves a course outcome',
  why: 'Time is spent on what nobody promised, while what was promised goes without.',
  untold: 'Templates without course outcomes.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 10,
  messages: { unmapped: 'The objective “{objective}” serves no course outcome.' },
  *check(context): Generator<Verdict> {
    const { template } = context.expected
    if (template.outcomes.length === 0) return
    const objectives = everyObjective(template)
    const serving = servingOutcomes(template)
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

/** Keys of the outcomes, and of the objectives that serve them at any remove; some that serve only each other do not. */
const servingOutcomes = (template: Template): ReadonlySet<string> =>
  new Set(
    outcomeCoverage(template).flatMap(({ outcome, objectives }) => [
      outcome.key,
      ...objectives.map(({ key }) => key),
    ]),
  )
