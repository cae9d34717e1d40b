import { z } from 'zod'
import { isModule, isTakenHere } from '../../template/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { untold } from './questionsThere.ts'

export const noQuestions = defineRule({
  id: 'no-questions',
  group: 'questions',
  title: 'An assessment that students open asks something',
  why: 'Students open the quiz in the evening on which it is due, and it is empty.',
  untold:
    'Assessments of the instructor’s own, and those that are not taken on the platform: neither a time limit nor attempts are set, and the template has no questions for them.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 20,
  messages: { none: '“{item}” asks nothing: it has no questions.' },
  *check(context): Generator<Verdict> {
    for (const part of context.parts) {
      const { definition } = part
      if (isModule(definition) || definition.kind !== 'assessment') continue
      const subject = aboutPart(part)
      const there = context.itemFor(part)
      if (!there) {
        yield { subject, outcome: 'absent' }
        continue
      }
      const isAsked = part.questions.length > 0 || definition.questions?.asked !== undefined
      const { item } = there
      if (item.kind !== 'assessment' || !(isAsked || isTakenHere(item.work)))
        yield { subject, outcome: 'inapplicable' }
      else if (item.questions === undefined)
        yield { subject, outcome: 'cannot-tell', reason: untold, itemId: item.id }
      else if (item.questions.length > 0) yield { subject, outcome: 'passed' }
      else if (!context.reached(context.needOf(part)))
        yield { subject, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'none',
          values: { item: item.name },
          evidence: [{ kind: 'count', text: 'no questions' }],
          expected: 'at least one question',
          itemId: item.id,
        }
    }
  },
})
