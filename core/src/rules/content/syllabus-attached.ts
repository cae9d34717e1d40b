import { z } from 'zod'
import { foldedName } from '../../naming/index.ts'
import { countWords } from '../../page/index.ts'
import { defineRule, aboutPart, type Verdict } from '../rule.ts'

const attached = /\.(?:pdf|docx?|odt|rtf|html?)(?:[?#]|$)/i

/** What may be a syllabus: a quiz or a discussion about it is none. */
const readable: ReadonlySet<string> = new Set(['page', 'file', 'web-link', 'tool-link'])

export const syllabusAttached = defineRule({
  id: 'syllabus-attached',
  group: 'page content',
  title: 'The syllabus is there to read',
  why: 'The syllabus is the agreement with the student; a page of that name without one is none.',
  untold:
    'What the syllabus says, and work about it, such as a quiz. A page of twenty words is told, as is one that only announces a file without linking it; from sixty words on, or whatever the template sets, a page is taken for the syllabus itself.',
  strength: 'must',
  parameters: z.strictObject({
    word: z
      .string()
      .min(3)
      .max(60)
      .default('syllabus')
      .describe('How the item is told from others, by its name'),
    leastWords: z
      .number()
      .int()
      .min(1)
      .max(20_000)
      .default(60)
      .describe('Words with which the page itself is the syllabus'),
  }),
  mender: 'instructor',
  onlyInCourse: true,
  effortMinutes: 10,
  messages: { none: '“{item}” has neither a file nor {wanted words} of its own: {seen words}.' },
  *check(context, { word, leastWords }): Generator<Verdict> {
    const folded = foldedName(word)
    for (const part of context.parts) {
      if (!readable.has(part.kind) || !foldedName(part.name).includes(folded)) continue
      const subject = aboutPart(part)
      const there = context.itemFor(part)
      if (!there) {
        yield { subject, outcome: 'absent' }
        continue
      }
      const page = context.pageOf(there.item)
      const file =
        (there.item.kind === 'file' && there.item.file !== null) ||
        attached.test(there.item.target ?? '') ||
        (page?.links ?? []).some(
          (link) => attached.test(link.href) || context.leadsTo(link.href).leads === 'file',
        )
      const count = page ? page.paragraphs.reduce((sum, { text }) => sum + countWords(text), 0) : 0
      if (file || count >= leastWords) yield { subject, outcome: 'passed' }
      else if (!context.reached(context.needOf(part)))
        yield { subject, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'none',
          values: { item: there.item.name, wanted: String(leastWords), seen: String(count) },
          evidence: [{ kind: 'count', text: `${count} words, no file` }],
          expected: 'a file, or the syllabus itself',
          itemId: there.item.id,
        }
    }
  },
})
