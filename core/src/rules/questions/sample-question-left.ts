import { z } from 'zod'
import { questionName } from '../../template/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { perAssessment } from './assessments.ts'

export const sampleQuestionLeft = defineRule({
  id: 'sample-question-left',
  group: 'questions',
  title: 'Sample questions have given way to questions of the course',
  why: 'Students are marked on an example that was meant for their instructor.',
  untold: 'Samples that were altered by a word: they count as worded anew.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 5,
  messages: { left: '“{item}” still asks the sample question {question}.' },
  check: (context) =>
    perAssessment(context, function* ({ part, there, fates }): Generator<Verdict> {
      for (const { question, state } of fates) {
        if (question.left !== 'sample') continue
        const told = { subject: aboutPart(part), discriminator: question.key } as const
        if (state !== 'stands') yield { ...told, outcome: 'passed' }
        else if (!context.reached(context.needOf(part)))
          yield { ...told, outcome: 'not-due-yet', dueOn: context.needOf(part) }
        else
          yield {
            ...told,
            outcome: 'failed',
            message: 'left',
            values: { item: there.item.name, question: questionName(question.body) },
            evidence: [{ kind: 'words', text: questionName(question.body) }],
            expected: 'a question of the course’s own in its place',
            itemId: there.item.id,
            together: `${part.key}/${question.key}`,
          }
      }
    }),
})
