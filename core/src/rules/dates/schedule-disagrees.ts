import { z } from 'zod'
import { dateOfMention } from '../../calendar/index.ts'
import { isHeld } from '../../template/index.ts'
import { foldedName } from '../../naming/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const scheduleDisagrees = defineRule({
  id: 'schedule-disagrees',
  group: 'dates',
  title: 'The written schedule agrees with the settings',
  why: 'A syllabus that says Friday and a calendar that says Sunday make half the class late, and the other half angry.',
  untold:
    'Lines that name several dates or several pieces of work. Where the due date itself is told as wrong, by a rule that asks for no less, the schedule is not told beside it.',
  strength: 'must',
  parameters: z.strictObject({
    leastNameLength: z
      .number()
      .int()
      .min(3)
      .max(60)
      .default(6)
      .describe('Names shorter than this are not looked for in prose'),
  }),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    disagrees: '“{page}” says {seen} for “{item}”, which is set to be due {due}.',
    held: '“{page}” says {seen} for “{item}”, which is set to be held {due}.',
  },
  *check(context, { leastNameLength }): Generator<Verdict> {
    const dated = context.placedItems.flatMap(({ item }) =>
      item.dueAt === null || item.name.length < leastNameLength
        ? []
        : [{ item, due: context.dateOf(item.dueAt), folded: foldedName(item.name) }],
    )
    if (dated.length === 0) return
    for (const { item: pageItem } of context.placedItems) {
      const page = pageItem.html === null ? null : context.pageOf(pageItem)
      if (!page || page.dates.length === 0) continue
      const byParagraph = new Map<number, string[]>()
      for (const { mention, paragraph } of page.dates)
        byParagraph.set(paragraph, [...(byParagraph.get(paragraph) ?? []), mention.text])
      for (const [paragraph, mentions] of byParagraph) {
        const text = foldedName(page.paragraphs[paragraph]?.text ?? '')
        const named = dated.filter(
          ({ item, folded }) => item.id !== pageItem.id && text.includes(folded),
        )
        const [one] = named
        const date = page.dates.find((said) => said.paragraph === paragraph)?.mention
        // Several names or dates in one line may belong together in any way: that cannot be told.
        if (!one || named.length > 1 || mentions.length > 1 || !date) continue
        const said = dateOfMention(date, one.due)
        const subject = aboutFound(context, one.item)
        const told = { subject, discriminator: pageItem.id }
        if (said === null || said === one.due) yield { ...told, outcome: 'passed' }
        else
          yield {
            ...told,
            outcome: 'failed',
            message: isHeld(one.item) ? 'held' : 'disagrees',
            values: { page: pageItem.name, seen: date.text, item: one.item.name, due: one.due },
            evidence: [{ kind: 'date', text: date.text }],
            expected: one.due,
            itemId: pageItem.id,
          }
      }
    }
  },
})
