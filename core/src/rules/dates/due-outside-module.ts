import { z } from 'zod'
import { addDays } from '../../calendar/index.ts'
import type { ExpectedPart } from '../../expand/index.ts'
import { isHeld } from '../../template/index.ts'
import type { CheckContext, PairedItem } from '../context.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { dueAsWanted } from './dueMend.ts'

/** The module part that an item stands in, where that is not the one that it is expected in. */
const standingIn = (context: CheckContext, { pair, module }: PairedItem): ExpectedPart | null =>
  pair.moved && module ? context.partOf(module.id) : null

const isWithin = (part: ExpectedPart | null, day: string, graceDays: number): boolean => {
  const [first, last] = [part?.weeks[0], part?.weeks.at(-1)]
  return (
    first !== undefined &&
    last !== undefined &&
    day >= first.first &&
    day <= addDays(last.last, graceDays)
  )
}

export const dueOutsideModule = defineRule({
  id: 'due-outside-module',
  group: 'dates',
  title: 'Work is due in the week it stands in',
  why: 'Students work through a week and take it as done; work of week 3 that is due in week 9 is forgotten.',
  untold:
    'Parts that belong to the whole course, and one day of grace. A part that was moved may be due in the weeks of either module.',
  strength: 'should',
  parameters: z.strictObject({ graceDays: z.number().int().min(0).max(60).default(1) }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: {
    week: '“{name}” stands in {module} and is due {due}; that week ends {last}.',
    held: '“{name}” stands in {module} and is held {due}; that week ends {last}.',
  },
  *check(context, { graceDays }): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.kind === 'module') continue
      const there = context.itemFor(part)
      const subject = aboutPart(part)
      if (!there) {
        if (part.dueAt !== null) yield { subject, outcome: 'absent' }
        continue
      }
      if (there.item.dueAt === null) continue
      const due = context.dateOf(there.item.dueAt)
      const failed = {
        subject,
        outcome: 'failed',
        evidence: [{ kind: 'date', text: due }],
        itemId: there.item.id,
      } as const
      const values = { name: there.item.name, due }
      const last = part.weeks.at(-1)
      // Outside the weeks, work is judged against the term alone, by the rule for that.
      if (part.definition.span === 'course' || !part.week || !last)
        yield { subject, outcome: 'inapplicable' }
      else if ([part, standingIn(context, there)].some((place) => isWithin(place, due, graceDays)))
        yield { subject, outcome: 'passed' }
      else
        yield {
          ...failed,
          message: isHeld(there.item) ? 'held' : 'week',
          values: { ...values, module: `“${there.module?.name ?? 'no module'}”`, last: last.last },
          expected: `${part.week.first} to ${last.last}`,
        }
    }
  },
  mend: (verdict, context) => dueAsWanted(verdict.subject, context),
})
