import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const timeZone = defineRule({
  id: 'time-zone',
  group: 'dates',
  title: 'The course keeps the time zone of its term',
  why: 'In a wrong zone “23:59” means another hour, and work handed in on time counts as late.',
  untold: 'A platform that does not say its time zone.',
  strength: 'must',
  parameters: z.strictObject({
    alsoAccepted: z
      .array(z.string().max(60))
      .max(50)
      .default([])
      .describe('Other IANA zones that are right, for classes held elsewhere'),
  }),
  mender: 'administrator',
  effortMinutes: 1,
  messages: { differs: 'The course is set to {seen}; {term} keeps the time of {expected}.' },
  *check(context, { alsoAccepted }): Generator<Verdict> {
    const seen = context.course.timeZone
    const expected = context.timeZone
    if (seen === null) yield { subject: aboutCourse, outcome: 'inapplicable' }
    else if (seen === expected || alsoAccepted.includes(seen))
      yield { subject: aboutCourse, outcome: 'passed' }
    else
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: 'differs',
        values: { seen, term: context.term.title, expected },
        evidence: [{ kind: 'value', text: seen }],
        expected,
      }
  },
  mend: (_, context): Change[] => [{ change: 'set-course', timeZone: context.timeZone }],
})
