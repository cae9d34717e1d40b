import { z } from 'zod'
import { daysBetween } from '../../calendar/index.ts'
import { isDaySpan, rangesAgree } from '../../naming/index.ts'
import type { CheckContext } from '../context.ts'
import { defineRule, type Verdict } from '../rule.ts'
import { rangedModules, type RangedModule } from './namedRanges.ts'

const byFirstDay = (a: RangedModule, b: RangedModule): number =>
  a.range.first < b.range.first ? -1 : a.range.first > b.range.first ? 1 : 0

export const rangeOverlapOrGap = defineRule({
  id: 'range-overlap-or-gap',
  group: 'dates',
  title: 'The dates of modules do not overlap',
  why: 'Where two modules claim the same days, students do not know which of them they are to work in.',
  untold:
    'Weeks that no module covers: they are told as missing modules. Units that cannot be read are asked about once, as a whole. Of two that overlap, the one that has its own dates is not blamed.',
  strength: 'should',
  parameters: z.strictObject({
    toleranceDays: z
      .number()
      .int()
      .min(0)
      .max(6)
      .default(1)
      .describe('How many days two ranges may share'),
  }),
  mender: 'instructor',
  effortMinutes: 3,
  messages: {
    overlap: '“{name}” says {seen}, and “{before}” reaches to {last} already.',
    into: '“{name}” says {seen}, and “{after}” begins on {first} already.',
  },
  *check(context, { toleranceDays }): Generator<Verdict> {
    // Units that do not add up are asked about as a whole; a week without a module is told as missing.
    const asked = new Set(
      Object.values(context.groupings).flatMap((grouping) =>
        grouping.state === 'unreadable' ? grouping.modules : [],
      ),
    )
    const ranged = rangedModules(
      context,
      context.course.modules.filter(({ id }) => !asked.has(id)),
    ).sort(byFirstDay)
    for (const [i, one] of ranged.entries()) {
      const before = ranged[i - 1]
      const { subject } = one
      if (!before) {
        yield { subject, outcome: 'passed' }
        continue
      }
      const shared = daysBetween(one.range.first, before.range.last) + 1
      // Of two that overlap, whoever has the dates of its own part is not the one to blame.
      if (shared > toleranceDays && hasItsDates(context, one) && !hasItsDates(context, before)) {
        yield { subject, outcome: 'passed' }
        yield {
          subject: before.subject,
          discriminator: one.module.id,
          outcome: 'failed',
          itemId: before.module.id,
          message: 'into',
          values: {
            name: before.module.name,
            seen: before.range.text,
            after: one.module.name,
            first: one.range.first,
          },
          evidence: [{ kind: 'date', text: before.range.text }],
          expected: `a last day before ${one.range.first}`,
        }
        continue
      }
      if (shared > toleranceDays) {
        yield {
          subject,
          outcome: 'failed',
          itemId: one.module.id,
          message: 'overlap',
          values: {
            name: one.module.name,
            seen: one.range.text,
            before: before.module.name,
            last: before.range.last,
          },
          evidence: [{ kind: 'date', text: one.range.text }],
          expected: `a first day after ${before.range.last}`,
        }
        continue
      }
      yield { subject, outcome: 'passed' }
    }
  },
})

/** Whether a module says the very dates that its part covers. */
const hasItsDates = (context: CheckContext, { module, range }: RangedModule): boolean => {
  const wanted = context.partOf(module.id)?.values.dates
  return isDaySpan(wanted) && rangesAgree(range, wanted, 0)
}
