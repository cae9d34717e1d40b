import { z } from 'zod'
import { isShell } from '../../course/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const identityLost = defineRule({
  id: 'identity-lost',
  group: 'deployment',
  title: 'What was deployed is still there',
  why: 'When the course was emptied and copied in again, an update would make everything a second time instead of changing it.',
  untold:
    'Single parts that were made anew: only when most of what deployment recorded is gone is the whole told.',
  strength: 'should',
  parameters: z.strictObject({
    leastShare: z
      .number()
      .min(0)
      .max(1)
      .default(0.5)
      .describe('Share of deployed modules and items that must still be known'),
  }),
  mender: 'designer',
  effortMinutes: 10,
  messages: {
    lost: 'Of {recorded} modules and items that were deployed, {left} are still known; the course seems to have been copied in again.',
  },
  *check(context, { leastShare }): Generator<Verdict> {
    const { history } = context
    const recorded = history?.recordedParts ?? 0
    if (!history?.deployedOn || recorded === 0 || isShell(context.course))
      yield { subject: aboutCourse, outcome: 'inapplicable' }
    else {
      const left = [...context.modules, ...context.placedItems.map(({ item }) => item)].filter(
        ({ recordedAs }) => recordedAs !== undefined,
      ).length
      if (left >= recorded * leastShare) yield { subject: aboutCourse, outcome: 'passed' }
      else
        yield {
          subject: aboutCourse,
          outcome: 'failed',
          message: 'lost',
          values: { recorded: String(recorded), left: String(left) },
          evidence: [{ kind: 'count', text: `${left} of ${recorded}` }],
          expected: 'pairs looked at, then joined',
        }
    }
  },
})
