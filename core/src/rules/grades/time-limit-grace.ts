import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { isHeld } from '../../template/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const timeLimitGrace = defineRule({
  id: 'time-limit-grace',
  group: 'grades',
  title: 'Timed work leaves a grace',
  why: 'A connection that drops in the last second costs the whole quiz.',
  untold: 'Work without a time limit.',
  strength: 'should',
  parameters: z.strictObject({
    leastMinutes: z
      .number()
      .int()
      .min(1)
      .max(120)
      .default(5)
      .describe('Where the template says nothing'),
  }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: {
    grace: '“{name}” has {minutes} minutes and {seen}; at least {wanted} minutes are wanted.',
  },
  *check(context, { leastMinutes }): Generator<Verdict> {
    for (const { item } of context.placedItems) {
      if (item.work?.minutes === undefined || isHeld(item)) continue
      const part = context.partOf(item.id)
      const subject = aboutFound(context, item)
      const wanted = part?.definition.settings.graceMinutes ?? leastMinutes
      const grace = item.work.graceMinutes ?? 0
      if (grace >= wanted) yield { subject, outcome: 'passed' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'grace',
          values: {
            name: item.name,
            minutes: String(item.work.minutes),
            seen: grace === 0 ? 'no grace' : `${grace} minutes of grace`,
            wanted: String(wanted),
          },
          evidence: [{ kind: 'value', text: `${grace} minutes` }],
          expected: String(wanted),
          itemId: item.id,
        }
    }
  },
  mend(verdict, context): Change[] {
    const item = context.itemAt(verdict.itemId)
    return item
      ? [
          {
            change: 'set-item',
            id: item.id,
            fields: { work: { ...item.work, graceMinutes: Number(verdict.expected) } },
          },
        ]
      : []
  },
})
