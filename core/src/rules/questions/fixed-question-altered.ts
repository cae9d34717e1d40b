import { z } from 'zod'
import type { Change, QuestionsWritten } from '../../course/index.ts'
import { questionName } from '../../template/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { perAssessment } from './assessments.ts'
import { assessmentsThere } from './questionsThere.ts'

export const fixedQuestionAltered = defineRule({
  id: 'fixed-question-altered',
  group: 'questions',
  title: 'Questions that are the same for everybody stand as they were written',
  why: 'Two class sections are held to another standard, and nobody can compare what they know.',
  untold:
    'Where among the others it stands. What is left to the instructor may be worded as they like.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 2,
  messages: {
    altered: '“{item}” asks {question} otherwise than it was written.',
    missing: '“{item}” no longer asks {question}.',
  },
  check: (context) =>
    perAssessment(context, function* ({ part, there, fates }): Generator<Verdict> {
      for (const { question, state, found } of fates) {
        if (question.left !== null) continue
        const told = { subject: aboutPart(part), discriminator: question.key } as const
        if (state === 'stands') yield { ...told, outcome: 'passed' }
        // That there is none at all is told by a rule of its own.
        else if (there.item.questions?.length === 0) yield { ...told, outcome: 'inapplicable' }
        else
          yield {
            ...told,
            outcome: 'failed',
            message: state,
            values: { item: there.item.name, question: questionName(question.body) },
            evidence: [
              found
                ? { kind: 'words', text: questionName(found.body) }
                : { kind: 'count', text: 'no such question' },
            ],
            expected: questionName(question.body),
            itemId: there.item.id,
            together: `${part.key}/${question.key}`,
          }
      }
    }),
  mend(verdict, context): Change[] {
    const assessment = assessmentsThere(context).find(
      ({ part }) => verdict.subject.about === 'part' && part === verdict.subject.part,
    )
    const fate = assessment?.fates?.find(({ question }) => question.key === verdict.discriminator)
    const item = assessment?.there?.item
    // One that was worded otherwise is somebody’s words; what students were marked on stays, and so does what leads to a part.
    if (!fate || fate.found || !item || item.studentWork) return []
    const { body, key } = fate.question
    if (body.text.includes('href="ref:')) return []
    const order: QuestionsWritten['order'] = [
      ...(item.questions ?? []).map(({ id }) => ({ id })),
      { clientId: `mend-${item.id}-${key}`, body },
    ]
    return [{ change: 'set-item', id: item.id, fields: { questions: { order, remove: [] } } }]
  },
})
