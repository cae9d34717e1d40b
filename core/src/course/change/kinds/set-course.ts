import { z } from 'zod'
import {
  courseSettingValue,
  courseSettingWords,
  CourseSettings,
  GradeScheme,
} from '../../../template/index.ts'
import { Instant, Name } from '../fields.ts'
import { defineChange } from '../kind.ts'
import { setOrDrop } from '../site.ts'
import { plain, valueWords, type ChangeWording } from '../wording.ts'

const schema = z.strictObject({
  change: z.literal('set-course'),
  name: Name.optional(),
  label: z.string().max(300).optional(),
  published: z.boolean().optional(),
  timeZone: z.string().max(60).optional(),
  opensAt: Instant.optional(),
  closesAt: Instant.optional(),
  settings: CourseSettings.nullable().optional(),
  grading: GradeScheme.nullable().optional(),
})

const plainFields = ['name', 'label', 'published', 'timeZone', 'opensAt', 'closesAt'] as const
const calledField: Readonly<Record<string, string>> = {
  opensAt: 'opening',
  closesAt: 'closing',
  timeZone: 'time zone',
}

const fieldSays = (field: string, value: unknown, { moment }: ChangeWording): string => {
  if (field === 'name') return `The course is renamed to “${String(value)}”`
  if (field === 'published') return value ? 'The course is published' : 'The course is unpublished'
  const becomes = field.endsWith('At')
    ? moment(value === null ? null : String(value))
    : valueWords(value)
  return `The course’s ${calledField[field] ?? field} becomes ${becomes}`
}

export const setCourse = defineChange('set-course', schema, {
  apply(change, { course }) {
    for (const field of plainFields)
      if (change[field] !== undefined) Object.assign(course, { [field]: change[field] })
    setOrDrop(course, 'settings', change.settings)
    setOrDrop(course, 'grading', change.grading)
    return null
  },
  words(set, wording) {
    const { change: _, settings, grading, ...fields } = set
    const before = wording.course.settings as Record<string, unknown> | undefined
    return [
      ...Object.entries(fields).map(([field, value]) => plain(fieldSays(field, value, wording))),
      ...Object.entries(settings ?? {}).flatMap(([setting, value]) =>
        before?.[setting] === value
          ? []
          : [
              plain(
                `Course setting “${courseSettingWords[setting] ?? setting}” becomes ${courseSettingValue(value)}`,
              ),
            ],
      ),
      ...(grading ? [plain('The grade categories become those of the template')] : []),
    ]
  },
  writes: (change) =>
    Object.keys(change)
      .filter((field) => field !== 'change')
      .map((field) => `course/${field}`),
})
