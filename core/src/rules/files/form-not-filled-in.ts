import { z } from 'zod'
import { newWords } from '../../files/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { fileSeen, perFile, wordsShown } from './filesThere.ts'

export const formNotFilledIn = defineRule({
  id: 'form-not-filled-in',
  group: 'files',
  title: 'A form that was given out is filled in',
  why: 'Students open the syllabus and read the questions that their instructor was to answer.',
  untold:
    'Whether the answers are good. A file whose text cannot be read, such as a picture of a page, cannot be judged, and that is said. Forms for staff are not read.',
  strength: 'must',
  parameters: z.strictObject({
    fewestNewWords: z
      .number()
      .int()
      .min(1)
      .max(2000)
      .default(10)
      .describe('How many words beside those of the form make it filled in'),
  }),
  mender: 'instructor',
  onlyInCourse: true,
  effortMinutes: 20,
  messages: {
    delivered: '“{item}” still hands out the blank form {seen}, as it was given out.',
    again: '“{item}” hands out {seen}, which has {new words} beside those of the blank form.',
  },
  check: (context, { fewestNewWords }) =>
    perFile(
      context,
      ({ file, audience }) => file?.left === 'theirs' && audience !== 'staff',
      function* ({ part, wanted, item, shown }): Generator<Verdict> {
        const subject = aboutPart(part)
        if (!wanted || !shown) {
          yield { subject, outcome: 'inapplicable' }
          return
        }
        const words = wordsShown(context, shown.content)
        const fresh = wanted.words === null || words === null ? null : newWords(wanted.words, words)
        const delivered = shown.content === wanted.content || fresh === 0
        if (!delivered && fresh === null)
          yield {
            subject,
            outcome: 'cannot-tell',
            reason: 'the text of the file could not be read',
            itemId: item.id,
          }
        else if (!delivered && (fresh ?? 0) >= fewestNewWords) yield { subject, outcome: 'passed' }
        else if (!context.reached(context.needOf(part)))
          yield { subject, outcome: 'not-due-yet', dueOn: context.needOf(part) }
        else
          yield {
            subject,
            outcome: 'failed',
            message: delivered ? 'delivered' : 'again',
            values: { item: item.name, seen: fileSeen(context, shown), new: String(fresh ?? 0) },
            evidence: [{ kind: 'words', text: fileSeen(context, shown) }],
            expected: 'the form filled in',
            itemId: item.id,
          }
      },
    ),
})
