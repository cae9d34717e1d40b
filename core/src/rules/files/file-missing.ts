import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { writtenFile } from '../../expand/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { perFile } from './filesThere.ts'

export const fileMissing = defineRule({
  id: 'file-missing',
  group: 'files',
  title: 'What is to hand out a file has one',
  why: 'Students press the syllabus, and nothing comes.',
  untold: 'What the file holds. An address that the item leads to counts as a file.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: {
    none: '“{item}” hands out no file.',
    own: '“{item}” still waits for a file of the instructor’s own.',
  },
  check: (context) =>
    perFile(
      context,
      () => true,
      function* ({ part, wanted, item, shown }): Generator<Verdict> {
        const subject = aboutPart(part)
        if (shown || item.target !== null) yield { subject, outcome: 'passed' }
        else if (!wanted && !context.reached(context.needOf(part)))
          yield { subject, outcome: 'not-due-yet', dueOn: context.needOf(part) }
        else
          yield {
            subject,
            outcome: 'failed',
            message: wanted ? 'none' : 'own',
            values: { item: item.name },
            evidence: [{ kind: 'count', text: 'no file' }],
            expected: wanted?.name ?? 'a file of the instructor’s own',
            itemId: item.id,
          }
      },
    ),
  mend(verdict, context): Change[] {
    const { subject } = verdict
    const part = subject.about === 'part' ? subject.part : null
    const item = part && context.itemFor(part)?.item
    // Only where it is seen to be empty.
    if (!part?.file || item?.file !== null) return []
    return [{ change: 'set-item', id: item.id, fields: { file: writtenFile(part.file) } }]
  },
})
