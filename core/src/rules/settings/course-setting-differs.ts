import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { courseSettingsOf, courseSettingValue, courseSettingWords } from '../../template/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

/** Joining by key has a rule of its own. */
const toldElsewhere = new Set(['joinByKey'])

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
    for (const [field, wanted] of Object.entries(courseSettingsOf(context.expected.template))) {
      const setting = courseSettingWords[field]
      if (setting === undefined || wanted === undefined || toldElsewhere.has(field)) continue
      const told = { subject: aboutCourse, discriminator: field } as const
      const seen = settings?.[field as keyof typeof settings]
      if (settings === undefined)
        yield {
          ...told,
          outcome: 'cannot-tell',
          reason: `The platform does not tell the setting “${setting}”.`,
        }
      // A language that is not set has a rule of its own as well.
      else if (seen === wanted || (field === 'language' && seen === undefined))
        yield { ...told, outcome: seen === wanted ? 'passed' : 'inapplicable' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'differs',
          values: { setting, seen: courseSettingValue(seen), wanted: courseSettingValue(wanted) },
          evidence: [{ kind: 'value', text: courseSettingValue(seen) }],
          expected: courseSettingValue(wanted),
        }
    }
  },
  mend(verdict, context): Change[] {
    const wanted = courseSettingsOf(context.expected.template)
    const field = verdict.discriminator as keyof typeof wanted | undefined
    return field === undefined
      ? []
      : [{ change: 'set-course', settings: { ...context.course.settings, [field]: wanted[field] } }]
  },
})
