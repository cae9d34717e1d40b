import { z } from 'zod'
import { isModule } from '../../template/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { perAssessment } from './assessments.ts'

export const questionsAsked = defineRule({
  id: 'questions-asked',
  group: 'questions',
  title: 'The instructor has written the questions that are asked of them',
  why: 'A quiz about the syllabus that asks nothing about this syllabus tells nobody whether it was read.',
  untold: 'Whether they are about what was asked.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 15,
  messages: {
    fewer:
      '“{item}” has {seen questions} of the instructor’s own; at least {wanted} are asked for{about}.',
  },
  check: (context) =>
    perAssessment(context, function* ({ part, there, own, fates }): Generator<Verdict> {
      const asked = isModule(part.definition) ? undefined : part.definition.questions?.asked
      if (!asked) return
      const subject = aboutPart(part)
      if (own.length >= asked.atLeast) yield { subject, outcome: 'passed' }
      // That there is none at all is told by a rule of its own.
      else if (own.length === 0 && fates.every(({ state }) => state === 'missing'))
        yield { subject, outcome: 'inapplicable' }
      else if (!context.reached(context.needOf(part)))
        yield { subject, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'fewer',
          values: {
            item: there.item.name,
            seen: String(own.length),
            wanted: String(asked.atLeast),
            about: asked.about === '' ? '' : ` about ${asked.about}`,
          },
          evidence: [{ kind: 'count', text: `${own.length} of ${asked.atLeast}` }],
          expected: `at least ${asked.atLeast}${asked.about === '' ? '' : ` about ${asked.about}`}`,
          itemId: there.item.id,
        }
    }),
})
