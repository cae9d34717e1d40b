import { z } from 'zod'
import { daysBetween, type Week } from '../../calendar/index.ts'
import { isDaySpan, rangesAgree } from '../../naming/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'
import { rangedModules, type RangedModule } from './namedRanges.ts'

const byFirstDay = (a: RangedModule, b: RangedModule): number =>
  a.range.first < b.range.first ? -1 : a.range.first > b.range.first ? 1 : 0

export const rangeOverlapOrGap = defineRule({
  id: 'range-overlap-or-gap',
  group: 'dates',
  title: 'The dates of modules neither overlap nor leave weeks out',
  why: 'Where two modules claim the same days, or none claims a week, students do not know what they are to do.',
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
    gap: 'No module’s dates cover {weeks}, between “{before}” and “{name}”.',
  },
  *check(context, { toleranceDays }): Generator<Verdict> {
    const ranged = rangedModules(context, context.course.modules).sort(byFirstDay)
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
      const left = context.expected.weeks.filter(
        (week) =>
          week.breakName === null &&
          week.first > before.range.last &&
          week.last < one.range.first &&
          !accountedFor(context, week),
      )
      const weeks = left.map((week) => `week ${week.number}`).join(', ')
      if (weeks !== '')
        yield {
          subject: aboutCourse,
          discriminator: weeks,
          outcome: 'failed',
          message: 'gap',
          values: { weeks, before: before.module.name, name: one.module.name },
          evidence: [{ kind: 'date', text: `${before.range.text}, ${one.range.text}` }],
          expected: 'dates that cover every week',
        }
    }
  },
})

/** Whether a module says the very dates that its part covers. */
const hasItsDates = (context: CheckContext, { module, range }: RangedModule): boolean => {
  const wanted = context.partOf(module.id)?.values.dates
  return isDaySpan(wanted) && rangesAgree(range, wanted, 0)
}

/** Whether a week has a module of its own, which may go without dates, or is told as missing by the rule for that: where units stand for weeks, only their dates tell. */
const accountedFor = (context: CheckContext, week: Week): boolean =>
  context.parts.some(
    (part) =>
      part.kind === 'module' &&
      part.weeks.some((own) => own.number === week.number) &&
      context.groupings[part.key]?.state !== 'unreadable',
  )
