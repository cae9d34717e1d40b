import { z } from 'zod'
import type { CourseItem } from '../../course/index.ts'
import { givesAway } from '../../questions/index.ts'
import { questionName } from '../../template/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

/** The day on which an assessment that shows right answers at once is over; null: it has none. */
const endOf = (item: CourseItem, context: CheckContext): string | null => {
  const end = item.closesAt ?? item.dueAt
  return end === null ? null : context.dateOf(end)
}

export const answerShown = defineRule({
  id: 'answer-shown',
  group: 'questions',
  title: 'Right answers are not shown before everybody has answered',
  why: 'The first who opens the quiz passes the answers on to all others.',
  untold:
    'Practice, assessments that are over, and what the template itself sets. Of marks in the words, those that stand in a right answer, or tell it by its letter.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    words: 'In “{item}”, the question {question} tells its answer: “{seen}”.',
    'at-once':
      '“{item}” shows the right answers as soon as somebody has answered, while others have yet to.',
  },
  *check(context): Generator<Verdict> {
    for (const { item } of context.placedItems) {
      if (item.kind !== 'assessment') continue
      const subject = aboutFound(context, item)
      let isShown = false
      for (const { id, body } of item.questions ?? []) {
        const seen = givesAway(body)
        if (seen === null) continue
        isShown = true
        yield {
          subject,
          discriminator: id,
          outcome: 'failed',
          message: 'words',
          values: { item: item.name, question: questionName(body), seen },
          evidence: [{ kind: 'words', text: seen }],
          expected: 'what is asked, and answers with nothing to tell them apart',
          itemId: item.id,
        }
      }
      const set = context.partOf(item.id)?.definition.settings
      const isTemplates = set?.answersShown === 'at-once'
      const end = endOf(item, context)
      if (
        item.work?.answersShown === 'at-once' &&
        item.work.practice !== true &&
        !isTemplates &&
        (end === null || !context.reached(end))
      ) {
        isShown = true
        yield {
          subject,
          discriminator: 'at-once',
          outcome: 'failed',
          message: 'at-once',
          values: { item: item.name },
          evidence: [{ kind: 'value', text: 'right answers are shown at once' }],
          expected: 'shown once it has closed, or never',
          itemId: item.id,
        }
      }
      if (!isShown) yield { subject, outcome: 'passed' }
    }
  },
})
