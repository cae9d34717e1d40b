import { z } from 'zod'
import { withoutQuery } from '../../document/index.ts'
import { foldedName } from '../../naming/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

const blank = /\b(?:template|blank|form|starter|empty|to fill in)\b/
/** What has none of these words, joined however they are, is no blank form. */
const maybeBlank = /template|blank|form|starter|empty|to.{1,3}fill.{1,3}in/i

export const starterFileLeft = defineRule({
  id: 'starter-file-left',
  group: 'structure',
  title: 'No blank form stands for the real thing',
  why: 'Students download the syllabus and get the empty form it was to be written in.',
  untold: 'Files whose names do not speak of a blank or a template, and pages for staff.',
  strength: 'must',
  parameters: z.strictObject({
    words: z
      .array(z.string().min(3).max(60))
      .min(1)
      .max(30)
      .default(['syllabus', 'schedule', 'course outline'])
      .describe('What forms are for'),
  }),
  mender: 'instructor',
  onlyInCourse: true,
  effortMinutes: 10,
  messages: { left: '“{where}” still gives students the blank form “{name}”.' },
  *check(context, { words }): Generator<Verdict> {
    const wanted = words.map((word) => foldedName(word))
    const isForm = (name: string): boolean => {
      if (!maybeBlank.test(name)) return false
      const folded = foldedName(name.replace(/[_-]/g, ' '))
      return wanted.some((word) => folded.includes(word)) && blank.test(folded)
    }
    const lastOf = (address: string) => decoded(withoutQuery(address).split('/').at(-1) ?? '')
    let any = false
    for (const placed of context.placedItems) {
      const { item } = placed
      const links = (context.pageOf(item)?.links ?? []).filter(
        (link) => maybeBlank.test(link.text) || maybeBlank.test(link.href),
      )
      if (links.length === 0 && item.kind !== 'file') continue
      const part = context.partOf(item.id)
      if (part?.audience === 'staff') continue
      // Whether a form that was given out is filled in is told by what it says, not by its name; what shows no file gives none.
      if (part?.file?.left === 'theirs' && item.file) continue
      if (item.file === null && item.target === null && links.length === 0) continue
      const names = [
        ...(item.kind === 'file'
          ? [item.name, lastOf(item.target ?? ''), item.file?.name ?? '']
          : []),
        ...links
          .filter(
            (link) =>
              /\.\w{2,5}(?:[?#]|$)/.test(link.href) || context.leadsTo(link.href).leads === 'file',
          )
          .flatMap((link) => [link.text, lastOf(link.href)]),
      ]
      const name = names.find(isForm)
      if (name === undefined || !context.studentsReach(placed)) continue
      any = true
      yield {
        subject: part ? { about: 'part', part } : { about: 'found', id: item.id, name: item.name },
        outcome: 'failed',
        message: 'left',
        values: { where: item.name, name },
        evidence: [{ kind: 'words', text: name }],
        expected: 'the form filled in',
        itemId: item.id,
      }
    }
    if (!any) yield { subject: aboutCourse, outcome: 'passed' }
  },
})

const decoded = (text: string): string => {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}
