import { z } from 'zod'
import { addDays } from '../../calendar/index.ts'
import { askedOf } from '../../page/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const untouched = defineRule({
  id: 'untouched',
  group: 'deployment',
  title: 'The instructor has begun',
  why: 'A course in which nothing was filled in opens with every prompt still standing. A plain comparison would call it perfect.',
  untold: 'Courses whose template asks for nothing, and those that answered anything at all.',
  strength: 'must',
  parameters: z.strictObject({
    days: z
      .number()
      .int()
      .min(1)
      .max(200)
      .default(14)
      .describe('Days after deployment by which something is filled in'),
  }),
  mender: 'instructor',
  effortMinutes: 120,
  messages: { untouched: 'Nothing has been filled in since the course was set up on {since}.' },
  *check(context, { days }): Generator<Verdict> {
    const { history } = context
    const answers = context.pageParts().flatMap((part) => {
      const there = context.itemFor(part)
      return there
        ? (context.readingsOf(there) ?? []).filter(
            (reading) => askedOf(reading.block) !== null && reading.block.answer === null,
          )
        : []
    })
    if (!history?.deployedOn || history.preparing !== null || answers.length === 0)
      yield { subject: aboutCourse, outcome: 'inapplicable' }
    else if (
      answers.some(
        ({ state, stillAsks, block }) =>
          state === 'filled' ||
          state === 'prompt-beside-answer' ||
          (stillAsks.length > 0 && stillAsks.length < (askedOf(block)?.prompts.length ?? 0)),
      )
    )
      yield { subject: aboutCourse, outcome: 'passed' }
    else if (!context.reached(addDays(history.deployedOn, days)))
      yield {
        subject: aboutCourse,
        outcome: 'not-due-yet',
        dueOn: addDays(history.deployedOn, days),
      }
    else
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: 'untouched',
        values: { since: history.deployedOn },
        evidence: [{ kind: 'count', text: `0 of ${answers.length} filled in` }],
        expected: 'something filled in',
      }
  },
})
