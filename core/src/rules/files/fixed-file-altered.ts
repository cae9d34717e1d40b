import { z } from 'zod'
import { newWords } from '../../files/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { fileSeen, perFile, wordsShown } from './filesThere.ts'

export const fixedFileAltered = defineRule({
  id: 'fixed-file-altered',
  group: 'files',
  title: 'Files that are the same for everybody are the ones that were given out',
  why: 'One class section works from last year’s timetable, and nobody sees it.',
  untold:
    'What the file is called. A document with fields is compared by its words, as every course has another one; where its text cannot be read, that is said. Of what is for staff, no text is read.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 3,
  messages: { altered: '“{item}” hands out {seen}, which is not the file of the template.' },
  check: (context) =>
    perFile(
      context,
      // What is for staff is not read.
      ({ file, audience }) =>
        file !== null && file.left === null && !(file.fields && audience === 'staff'),
      function* ({ part, wanted, item, shown }): Generator<Verdict> {
        const subject = aboutPart(part)
        if (!wanted || !shown) {
          yield { subject, outcome: 'inapplicable' }
          return
        }
        const words = wanted.fields ? wordsShown(context, shown.content) : null
        const same = wanted.fields
          ? words !== null &&
            wanted.words !== null &&
            newWords(wanted.words, words) + newWords(words, wanted.words) === 0
          : shown.content === wanted.content
        if (same) yield { subject, outcome: 'passed' }
        else if (wanted.fields && (words === null || wanted.words === null))
          yield {
            subject,
            outcome: 'cannot-tell',
            reason: 'the text of the file could not be read',
            itemId: item.id,
          }
        else
          yield {
            subject,
            outcome: 'failed',
            message: 'altered',
            values: { item: item.name, seen: fileSeen(context, shown) },
            evidence: [{ kind: 'words', text: fileSeen(context, shown) }],
            expected: wanted.name,
            itemId: item.id,
          }
      },
    ),
})
