import { z } from 'zod'
import { oncePerPage, wholeText } from '../../page/index.ts'
import { rememberOf } from '../../remember/index.ts'
import { defineRule, type Verdict } from '../rule.ts'
import type { Subject } from '../subject.ts'

export const fillerText = defineRule({
  id: 'filler-text',
  group: 'page content',
  title: 'No filler text is left',
  why: 'Filler and “to be added” on a page that students read tell them that the course was not finished.',
  untold:
    'Filler in other words than the listed ones, and pages for staff before students can reach them.',
  strength: 'should',
  parameters: z.strictObject({
    phrases: z
      .array(z.string().min(3))
      .default([
        'lorem ipsum',
        'insert text here',
        'your text here',
        'text goes here',
        'to be added',
        'placeholder',
        'xxxx',
        'tbd',
        'tba',
      ]),
  }),
  mender: 'instructor',
  effortMinutes: 3,
  messages: { filler: '“{item}” still says “{text}”.' },
  *check(context, { phrases }): Generator<Verdict> {
    const fillerIn = fillerWith(phrases)
    for (const placed of context.placedItems) {
      const page = placed.item.html === null ? null : context.pageOf(placed.item)
      if (!page) continue
      const part = context.partOf(placed.item.id)
      const subject: Subject = part
        ? { about: 'part', part }
        : { about: 'found', id: placed.item.id, name: placed.item.name }
      const hit = fillerIn(page)
      if (!hit) {
        if (part) yield { subject, outcome: 'passed' }
        continue
      }
      const need = part ? context.needOf(part) : context.openingDay
      if (!context.studentsReach(placed) && !context.reached(need))
        yield { subject, outcome: 'not-due-yet', dueOn: need }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'filler',
          values: { item: placed.item.name, text: hit.text.slice(0, 120) },
          evidence: [{ kind: 'words', text: hit.text.slice(0, 300) }],
          expected: 'the real text',
          itemId: placed.item.id,
        }
    }
  },
})

/** Looks for the first paragraph of a page with one of the phrases as whole words. */
const fillerWith = rememberOf((phrases: readonly string[]) => {
  const any = phrases.map((phrase) => phrase.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|')
  const pattern = new RegExp(`(?<![\\p{L}\\p{N}])(?:${any || '(?!)'})(?![\\p{L}\\p{N}])`, 'iu')
  // Whether the words stand by themselves is looked at only where they stand at all.
  const anywhere = new RegExp(any || '(?!)', 'iu')
  return oncePerPage((page) =>
    anywhere.test(wholeText(page))
      ? (page.paragraphs.find(({ text }) => pattern.test(text)) ?? null)
      : null,
  )
})
