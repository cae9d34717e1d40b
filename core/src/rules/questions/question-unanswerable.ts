import { z } from 'zod'
import { faultsOf, questionName, type QuestionFault } from '../../template/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

const words: Readonly<Record<QuestionFault, string>> = {
  'no-text': 'asks nothing',
  'no-answer': 'has no right answer',
  'too-few-choices': 'leaves nothing to choose from',
  'empty-choice': 'has an answer that says nothing',
  'same-choice-twice': 'has the same answer twice',
  'several-right': 'has several right answers where one is to be chosen',
  'any-answer': 'takes any answer for right',
}

export const questionUnanswerable = defineRule({
  id: 'question-unanswerable',
  group: 'questions',
  title: 'Every question can be answered rightly',
  why: 'Whatever students answer, it is marked wrong, and they write to their instructor one by one.',
  untold:
    'Whether the answer that is marked as right is right, and questions of kinds that only the platform knows.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { fault: 'In “{item}”, the question {question} {fault}.' },
  *check(context): Generator<Verdict> {
    for (const { item } of context.placedItems) {
      if (!item.questions || item.questions.length === 0) continue
      const subject = aboutFound(context, item)
      let isFaultless = true
      for (const { id, body } of item.questions) {
        if (body.kind === 'other') continue
        const [fault] = faultsOf(body)
        if (!fault) continue
        isFaultless = false
        yield {
          subject,
          discriminator: id,
          outcome: 'failed',
          message: 'fault',
          values: { item: item.name, question: questionName(body), fault: words[fault] },
          evidence: [{ kind: 'words', text: questionName(body) }],
          expected: 'a question with what is asked and what is right',
          itemId: item.id,
        }
      }
      if (isFaultless) yield { subject, outcome: 'passed' }
    }
  },
})
