import { z } from 'zod'
import { isShell } from '../../course/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const neverDeployed = defineRule({
  id: 'never-deployed',
  group: 'deployment',
  title: 'The template was put into the course',
  why: 'An empty shell, or last term’s copy, stands where the template should; the instructor waits, or starts alone.',
  untold: 'Courses that are under a version for checking only: nothing was to be deployed there.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 5,
  messages: {
    shell: 'The course is an empty shell: nothing was ever put into it.',
    never: 'The template was never put into this course.',
  },
  *check(context): Generator<Verdict> {
    const { history } = context
    if (!history || history.checkOnly) yield { subject: aboutCourse, outcome: 'inapplicable' }
    else if (history.deployedOn !== null) yield { subject: aboutCourse, outcome: 'passed' }
    else
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: isShell(context.course) ? 'shell' : 'never',
        values: {},
        evidence: [
          { kind: 'count', text: `${context.modules.length} modules, none of them deployed` },
        ],
        expected: 'a rollout to this course',
      }
  },
})
