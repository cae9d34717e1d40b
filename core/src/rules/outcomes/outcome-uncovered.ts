import { z } from 'zod'
import { outcomeCoverage } from '../../template/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const outcomeUncovered = defineRule({
  id: 'outcome-uncovered',
  group: 'outcomes',
  title: 'Every course outcome is worked towards and assessed',
  why: 'An outcome promised in the catalogue that nothing in the course leads to fails the next review.',
  untold:
    'An outcome whose only work does not apply to this course’s variant: the template is the place to see to it.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 30,
  messages: {
    template: 'The template has nothing that assesses “{outcome}”.',
    course: 'Nothing in this course assesses “{outcome}”: {gone} should, and is not there.',
  },
  *check(context): Generator<Verdict> {
    for (const { outcome, assessedBy } of outcomeCoverage(context.expected.template)) {
      const told = { subject: aboutCourse, discriminator: outcome.key } as const
      const keys = new Set(assessedBy.map((item) => item.key))
      const wanted = context.parts.filter((part) => keys.has(part.key))
      const failed = {
        ...told,
        outcome: 'failed',
        evidence: [{ kind: 'words', text: outcome.text }],
        expected: 'an item that assesses it',
      } as const
      if (assessedBy.length === 0)
        yield { ...failed, message: 'template', values: { outcome: outcome.text } }
      else if (wanted.length === 0) yield { ...told, outcome: 'inapplicable' }
      else if (wanted.some((part) => context.itemFor(part))) yield { ...told, outcome: 'passed' }
      else
        yield {
          ...failed,
          message: 'course',
          values: { outcome: outcome.text, gone: `“${wanted[0]?.name ?? ''}”` },
        }
    }
  },
})
