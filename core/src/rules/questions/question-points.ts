import { z } from 'zod'
import { isModule, pointsOf } from '../../template/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const questionPoints = defineRule({
  id: 'question-points',
  group: 'questions',
  title: 'Points of questions come to those of their assessment',
  why: 'A quiz that is worth 20 in the grades and 18 in its questions marks everybody down.',
  untold:
    'Assessments without points or without questions, and those whose instructor has yet to write what is asked of them.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: {
    differ: 'The questions of “{name}” come to {seen points}; the assessment carries {wanted}.',
  },
  *check(context): Generator<Verdict> {
    for (const { item } of context.placedItems) {
      if (!item.questions || item.questions.length === 0 || item.points === null) continue
      const subject = aboutFound(context, item)
      const sum = pointsOf(item.questions.map(({ body }) => body))
      const part = context.partOf(item.id)
      const awaits =
        part !== null &&
        !isModule(part.definition) &&
        (part.definition.questions?.asked !== undefined ||
          part.questions.some(({ left }) => left === 'sample'))
      if (sum === item.points) yield { subject, outcome: 'passed' }
      else if (awaits && !context.reached(context.needOf(part)))
        yield { subject, outcome: 'not-due-yet', dueOn: context.needOf(part) }
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
