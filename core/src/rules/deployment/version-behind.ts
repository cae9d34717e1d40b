import { z } from 'zod'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const versionBehind = defineRule({
  id: 'version-behind',
  group: 'deployment',
  title: 'The course has the newest version',
  why: 'A correction that students were promised has not reached this course.',
  untold:
    'Courses that are under a version for checking only, and what a newer version would change: the plan of a rollout says that.',
  strength: 'should',
  parameters: z.strictObject({
    allowed: z
      .number()
      .int()
      .min(0)
      .max(50)
      .default(0)
      .describe('How many versions it may be behind'),
  }),
  mender: 'designer',
  effortMinutes: 5,
  messages: { behind: 'The course has version {seen}; version {newest} is released.' },
  *check(context, { allowed }): Generator<Verdict> {
    const { history } = context
    if (
      !history ||
      history.checkOnly ||
      history.deployedVersion === null ||
      history.newestVersion === null
    )
      yield { subject: aboutCourse, outcome: 'inapplicable' }
    else if (history.newestVersion - history.deployedVersion <= allowed)
      yield { subject: aboutCourse, outcome: 'passed' }
    else
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: 'behind',
        values: { seen: String(history.deployedVersion), newest: String(history.newestVersion) },
        evidence: [{ kind: 'value', text: `version ${history.deployedVersion}` }],
        expected: `version ${history.newestVersion}`,
      }
  },
})
