import { z } from 'zod'
import { courseValues } from '../../expand/index.ts'
import type { Change } from '../../course/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'
import { judgeName } from './nameVerdict.ts'

export const courseName = defineRule({
  id: 'course-name',
  group: 'names',
  title: 'The course is named by the format',
  why: 'A course called the same every year cannot be told from last year’s in a student’s list.',
  strength: 'must',
  parameters: z.strictObject({ acceptSmallDifferences: z.boolean().default(true) }),
  mender: 'designer',
  effortMinutes: 1,
  messages: {
    field: 'The course is called “{name}”; its {field} should be {expected}, not {seen}.',
    form: 'The course is called “{name}”; by the format it would be “{wanted}”.',
  },
  *check(context, { acceptSmallDifferences }): Generator<Verdict> {
    const verdict = judgeName(context.expected.template.naming.courseName, context.course.name, courseValues(context.expected.facts))
    const subject = aboutCourse
    if (verdict.state === 'follows' || verdict.state === 'unfilled' || (verdict.state === 'small-differences' && acceptSmallDifferences)) {
      yield { subject, outcome: 'passed' }
      return
    }
    const common = { subject, outcome: 'failed', expected: context.expected.name } as const
    const { name } = context.course
    if (verdict.state === 'wrong-field')
      yield { ...common, message: 'field', values: { name, field: verdict.field, expected: verdict.expected, seen: verdict.seen }, evidence: [{ kind: 'words', text: verdict.seen }] }
    else yield { ...common, message: 'form', values: { name, wanted: context.expected.name }, evidence: [{ kind: 'words', text: name }] }
  },
  mend: (_, context): Change[] => [{ change: 'set-course', name: context.expected.name }],
  examples: {
    passes: [
      { title: 'the name that deployment gave', change: () => {} },
      { title: 'two spaces are a small difference', change: ({ course }) => void (course.name = 'NAV 110  Coastal Navigation · Autumn 2026') },
    ],
    fails: [
      { title: 'last year’s term still in the name', change: ({ course }) => void (course.name = 'NAV 110 Coastal Navigation · Autumn 2025'), evidence: 'Autumn 2025' },
      { title: 'a name of the instructor’s own', change: ({ course }) => void (course.name = 'Coastal Nav with Sunniva'), evidence: 'Coastal Nav with Sunniva' },
    ],
  },
})
