import { z } from 'zod'
import { Availability, availabilityWindow } from '../../calendar/index.ts'
import type { Change } from '../../course/index.ts'
import { isHeld } from '../../template/index.ts'
import { aboutCourse, aboutFound, defineRule, type Verdict } from '../rule.ts'

export const availabilityWindowRule = defineRule({
  id: 'availability-window',
  group: 'dates',
  title: 'Course and work are open for as long as they are needed',
  why: 'A course that shuts on the last day of class shuts out whoever has an extension; work that opens after it is due cannot be done.',
  untold: 'A course without dates of its own: it is open as soon as it is published, and stays so.',
  strength: 'must',
  parameters: Availability.extend({
    atLeastDaysAfter: z
      .number()
      .int()
      .min(0)
      .max(1000)
      .default(0)
      .describe('Days after the last day of class for which the course must stay open'),
  }),
  mender: 'designer',
  effortMinutes: 1,
  messages: {
    'opens-late': 'The course opens to students on {seen}, after its first day, {expected}.',
    'closes-early': 'The course shuts on {seen}; it should stay open until {expected}.',
    'opens-after-due': '“{name}” opens on {opens} and is due {due} already.',
    'shuts-before-due': '“{name}” shuts on {closes} and is due only on {due}.',
    'opens-after-held': '“{name}” opens on {opens} and is held {due} already.',
    'shuts-before-held': '“{name}” shuts on {closes} and is held only on {due}.',
    'shuts-before-open': '“{name}” shuts on {closes}, before it opens on {opens}.',
  },
  *check(context, { atLeastDaysAfter, ...rest }): Generator<Verdict> {
    const policy = context.expected.template.availability ?? rest
    const { course, expected, timeZone } = context
    const least = availabilityWindow(expected.weeks, timeZone, {
      opensDaysBefore: 0,
      closesDaysAfter: atLeastDaysAfter,
    })
    const wanted = availabilityWindow(expected.weeks, timeZone, policy)
    if (least && wanted) {
      const opening = { subject: aboutCourse, discriminator: 'opens' } as const
      if (course.opensAt !== null && context.dateOf(course.opensAt) > context.dateOf(least.opensAt))
        yield {
          ...opening,
          outcome: 'failed',
          message: 'opens-late',
          values: { seen: context.dateOf(course.opensAt), expected: context.dateOf(least.opensAt) },
          evidence: [{ kind: 'date', text: context.dateOf(course.opensAt) }],
          expected: wanted.opensAt,
        }
      else yield { ...opening, outcome: 'passed' }
      const closing = { subject: aboutCourse, discriminator: 'closes' } as const
      if (
        course.closesAt !== null &&
        context.dateOf(course.closesAt) < context.dateOf(least.closesAt)
      )
        yield {
          ...closing,
          outcome: 'failed',
          message: 'closes-early',
          values: {
            seen: context.dateOf(course.closesAt),
            expected: context.dateOf(least.closesAt),
          },
          evidence: [{ kind: 'date', text: context.dateOf(course.closesAt) }],
          expected: wanted.closesAt,
        }
      else yield { ...closing, outcome: 'passed' }
    }
    for (const { item } of context.placedItems) {
      const { opensAt, dueAt, closesAt } = item
      if (opensAt === null && closesAt === null) continue
      const part = context.partOf(item.id)
      const subject = aboutFound(context, item)
      const message = orderBroken(opensAt, dueAt, closesAt)
      const date = (instant: string | null) => (instant === null ? '' : context.dateOf(instant))
      const values = {
        name: item.name,
        opens: date(opensAt),
        due: date(dueAt),
        closes: date(closesAt),
      }
      if (message)
        yield {
          subject,
          outcome: 'failed',
          message: isHeld(item) ? (ofEvents[message] ?? message) : message,
          values,
          evidence: [
            {
              kind: 'date',
              text: [values.opens, values.due, values.closes].filter(Boolean).join(', '),
            },
          ],
          expected: 'it opens first, is due then, and shuts last',
          itemId: item.id,
        }
      else if (part) yield { subject, outcome: 'passed' }
    }
  },
  mend(verdict, context): Change[] {
    if (verdict.message === 'opens-late')
      return [{ change: 'set-course', opensAt: verdict.expected }]
    if (verdict.message === 'closes-early')
      return [{ change: 'set-course', closesAt: verdict.expected }]
    const there = verdict.subject.about === 'part' ? context.itemFor(verdict.subject.part) : null
    return there
      ? [
          {
            change: 'set-item',
            id: there.item.id,
            fields: {
              opensAt: there.part.opensAt,
              closesAt: there.part.closesAt,
              ...(there.part.dueAt ? { dueAt: there.part.dueAt } : {}),
            },
          },
        ]
      : []
  },
})

const ofEvents: Readonly<Record<string, 'opens-after-held' | 'shuts-before-held'>> = {
  'opens-after-due': 'opens-after-held',
  'shuts-before-due': 'shuts-before-held',
}

/** Which of the three instants (ISO 8601) stands before one it should follow; null when they are in order. */
const orderBroken = (
  opensAt: string | null,
  dueAt: string | null,
  closesAt: string | null,
): 'opens-after-due' | 'shuts-before-due' | 'shuts-before-open' | null => {
  const at = (instant: string | null): number => (instant === null ? NaN : Date.parse(instant))
  const [opens, due, closes] = [at(opensAt), at(dueAt), at(closesAt)]
  if (opens >= due) return 'opens-after-due'
  if (closes < due) return 'shuts-before-due'
  return closes <= opens ? 'shuts-before-open' : null
}
