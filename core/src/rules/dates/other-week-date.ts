import { z } from 'zod'
import { dateOfMention, type Week } from '../../calendar/index.ts'
import type { ExpectedBlock, ExpectedPart } from '../../expand/index.ts'
import { rangesAgree, rangesNamed } from '../../naming/index.ts'
import { oncePerPage } from '../../page/index.ts'
import { remember } from '../../remember/index.ts'
import { blockKind } from '../../template/index.ts'
import type { CheckContext, PairedItem } from '../context.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const otherWeekDate = defineRule({
  id: 'other-week-date',
  group: 'dates',
  title: 'A week’s page does not speak of another week’s dates',
  why: 'A page copied from week 8 into week 9 sends students to days that are over.',
  untold:
    'A single date of another week, and dates that are still to come: they are deadlines as a rule.',
  strength: 'should',
  parameters: z.strictObject({
    leastDates: z
      .number()
      .int()
      .min(1)
      .max(20)
      .default(2)
      .describe('How many single dates, all of one earlier week, make it a left-over'),
  }),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    range: '“{item}” is of {own} and says {seen}, which is {other}.',
    dates: '“{item}” is of {own}, and every date in it ({seen}) lies in {other}.',
  },
  *check(context, { leastDates }): Generator<Verdict> {
    const { weeks } = context.expected
    for (const part of context.parts) {
      if (part.kind === 'module' || part.weeks.length === 0 || part.definition.span === 'course')
        continue
      const there = context.itemFor(part)
      const page = there ? context.pageOf(there.item) : null
      if (!there || !page) continue
      const subject = aboutPart(part)
      const first = part.weeks[0]?.first ?? ''
      const isOwn = (week: Week) => part.weeks.some(({ number }) => number === week.number)
      const failed = (message: 'range' | 'dates', seen: string, week: Week): Verdict => ({
        subject,
        outcome: 'failed',
        message,
        values: {
          item: there.item.name,
          own: weekWords(part.weeks),
          seen,
          other: `week ${week.number}`,
        },
        evidence: [{ kind: 'date', text: seen }],
        expected: `dates of ${weekWords(part.weeks)}`,
        itemId: there.item.id,
      })
      const made = madeParagraphs(part, there, context)
      const strange = rangesNear(first)(page).flatMap(({ range, paragraph }) => {
        if (made.has(paragraph)) return []
        const week = weeks.find((week) => !isOwn(week) && rangesAgree(range, week, 1))
        return week && !part.weeks.some((week) => rangesAgree(range, week, 1))
          ? [{ range, week }]
          : []
      })[0]
      if (strange) {
        yield failed('range', strange.range.text, strange.week)
        continue
      }
      const dates = page.dates.flatMap(({ mention, paragraph }) => {
        if (made.has(paragraph)) return []
        const date = dateOfMention(mention, first)
        return date === null ? [] : [{ date, text: mention.text }]
      })
      const inWeeks = dates.map(
        ({ date }) => weeks.find((week) => date >= week.first && date <= week.last) ?? null,
      )
      const [week] = inWeeks
      // Dates ahead are deadlines as a rule; dates that are over are left-overs.
      const leftOver =
        dates.length >= leastDates &&
        week &&
        week.last < first &&
        inWeeks.every((one) => one?.number === week.number)
      if (leftOver) yield failed('dates', dates.map(({ text }) => text).join(', '), week)
      else yield { subject, outcome: 'passed' }
    }
  },
})

const none: ReadonlySet<number> = new Set()
/** Places of the paragraphs of what is made from the course, which speaks of every week: a schedule, what serves which outcome. */
const madeParagraphs = (
  part: ExpectedPart,
  there: PairedItem,
  context: CheckContext,
): ReadonlySet<number> => {
  const isMade = ({ kind }: ExpectedBlock): boolean => blockKind(kind).group === 'made'
  if (!part.blocks.some(isMade)) return none
  return new Set(
    (context.readingsOf(there) ?? []).flatMap(({ block, paragraphs }) =>
      isMade(block) ? paragraphs : [],
    ),
  )
}

/** The ranges of days a page speaks of, each with the place of its paragraph, read near a day. */
const rangesNear = remember(200, (near: string) =>
  oncePerPage((page) => {
    const dated = new Set(page.dates.map((date) => date.paragraph))
    return page.paragraphs.flatMap((paragraph, i) =>
      dated.has(i) || /\d\/\d/.test(paragraph.text)
        ? rangesNamed(paragraph.text.slice(0, 2000), near).map((range) => ({ range, paragraph: i }))
        : [],
    )
  }),
)

const weekWords = (weeks: readonly Week[]): string =>
  weeks.length === 1
    ? `week ${weeks[0]?.number}`
    : `weeks ${weeks[0]?.number} to ${weeks.at(-1)?.number}`
