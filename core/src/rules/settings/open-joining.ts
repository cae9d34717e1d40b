import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const openJoining = defineRule({
  id: 'open-joining',
  group: 'settings',
  title: 'Nobody joins by key unasked',
  why: 'Whoever has the key can join, read what others wrote and stand in the grades.',
  untold: 'A platform that does not tell how students join.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'administrator',
  effortMinutes: 1,
  messages: {
    beside:
      'Anybody with the course’s key can join beside the {count} class sections of the roster.',
    only: 'No roster feeds this course, and anybody with its key can join: nobody knows who is in it.',
  },
  *check(context): Generator<Verdict> {
    const { settings } = context.course
    if (settings?.joinByKey === undefined) yield { subject: aboutCourse, outcome: 'inapplicable' }
    else if (!settings.joinByKey || context.expected.template.settings.joinByKey === true)
      yield { subject: aboutCourse, outcome: 'passed' }
    else {
      const count = context.expected.facts.classSections.length
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: count > 0 ? 'beside' : 'only',
        values: { count: String(count) },
        evidence: [{ kind: 'value', text: 'joining by key is on' }],
        expected: 'off',
      }
    }
  },
  mend: (_, context): Change[] => [
    { change: 'set-course', settings: { ...context.course.settings, joinByKey: false } },
  ],
})
