import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

const words: Readonly<Record<string, string>> = {
  language: 'language',
  gradesShown: 'running grade shown',
  completionTracked: 'completion tracked',
  notices: 'announcements by e-mail',
}
const inWords = (value: unknown): string =>
  value === true ? 'on' : value === false ? 'off' : value === undefined ? 'not set' : String(value)

export const courseSettingDiffers = defineRule({
  id: 'course-setting-differs',
  group: 'settings',
  title: 'The course is set as every course is',
  why: 'Students see their grade in four courses and not in the fifth, and ask the help desk why.',
  untold:
    'Settings for which the template asks nothing. What the platform does not tell is asked, not told.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { differs: 'Setting “{setting}” is {seen} where {wanted} is set.' },
  *check(context): Generator<Verdict> {
    const { settings } = context.course
    for (const [field, wanted] of Object.entries(context.expected.template.settings)) {
      const setting = words[field]
      // Joining by key and a language that is not set have rules of their own.
      if (setting === undefined || wanted === undefined) continue
      const told = { subject: aboutCourse, discriminator: field } as const
      const seen = settings?.[field as keyof typeof settings]
      if (settings === undefined)
        yield {
          ...told,
          outcome: 'cannot-tell',
          reason: `The platform does not tell the setting “${setting}”.`,
        }
      else if (seen === wanted || (field === 'language' && seen === undefined))
        yield { ...told, outcome: seen === wanted ? 'passed' : 'inapplicable' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'differs',
          values: { setting, seen: inWords(seen), wanted: inWords(wanted) },
          evidence: [{ kind: 'value', text: inWords(seen) }],
          expected: inWords(wanted),
        }
    }
  },
  mend(verdict, context): Change[] {
    const field = verdict.discriminator as
      keyof typeof context.expected.template.settings | undefined
    return field === undefined
      ? []
      : [
          {
            change: 'set-course',
            settings: {
              ...context.course.settings,
              [field]: context.expected.template.settings[field],
            },
          },
        ]
  },
})
