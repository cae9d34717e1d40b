import { z } from 'zod'
import { addDays } from '../../calendar/index.ts'
import { isHeld } from '../../template/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const otherTermDate = defineRule({
  id: 'other-term-date',
  group: 'dates',
  title: 'No date of another term is left',
  why: 'A due date or policy date of last year makes students miss this year’s.',
  untold:
    'Dates without a year, dates within a hundred and twenty days of the term, and old dates beside words such as “revised” or “adopted”.',
  strength: 'must',
  parameters: z.strictObject({
    daysAround: z
      .number()
      .int()
      .min(0)
      .max(366)
      .default(120)
      .describe('How far outside the term a written year may still be meant'),
    exemptWords: z
      .array(z.string())
      .default([
        'revised',
        'updated',
        'edition',
        'published',
        'copyright',
        '©',
        'adopted',
        'approved',
      ])
      .describe('Beside one of these a date may be old'),
  }),
  mender: 'instructor',
  effortMinutes: 3,
  messages: {
    prose: '“{item}” speaks of {date}, which is not in {term}.',
    setting: '“{item}” is {what} {date}, which is not in {term}.',
  },
  *check(context, { daysAround, exemptWords }): Generator<Verdict> {
    const { term } = context
    const earliest = addDays(term.firstDay, -daysAround)
    const latest = addDays(term.lastDay, daysAround)
    const outside = (date: string) => date < earliest || date > latest
    for (const placed of context.placedItems) {
      const { item } = placed
      const part = context.partOf(item.id)
      const subject = aboutFound(context, item)
      const failed = {
        subject,
        outcome: 'failed' as const,
        expected: `dates of ${term.title}`,
        itemId: item.id,
      }
      let told = false
      for (const [what, instant] of [
        [isHeld(item) ? 'held' : 'due', item.dueAt],
        ['opened', item.opensAt],
      ] as const) {
        if (instant === null || !outside(context.dateOf(instant))) continue
        told = true
        yield {
          ...failed,
          discriminator: what,
          message: 'setting',
          values: { item: item.name, what, date: context.dateOf(instant), term: term.title },
          evidence: [{ kind: 'date' as const, text: context.dateOf(instant) }],
        }
      }
      const page = item.html === null ? null : context.pageOf(item)
      const seen = new Set<string>()
      for (const { mention, paragraph } of page?.dates ?? []) {
        if (mention.year === null || seen.has(mention.text)) continue
        const date = `${mention.year}-${String(mention.month).padStart(2, '0')}-${String(mention.day).padStart(2, '0')}`
        const around = page?.paragraphs[paragraph]?.text.toLowerCase() ?? ''
        if (!outside(date) || exemptWords.some((word) => around.includes(word))) continue
        seen.add(mention.text)
        told = true
        yield {
          ...failed,
          discriminator: mention.text,
          message: 'prose',
          values: { item: item.name, date: mention.text, term: term.title },
          evidence: [{ kind: 'date' as const, text: mention.text }],
        }
      }
      if (!told && part) yield { subject, outcome: 'passed' }
    }
  },
})
