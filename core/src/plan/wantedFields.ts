import type { Course, CourseItem, CourseModule } from '../course/index.ts'
import { fieldIn, type ExpectedCourse, type ExpectedPart, type Fields } from '../expand/index.ts'
import { courseSettingsOf, isModule } from '../template/index.ts'
import { wantedNavigation } from './navigation.ts'

/** What the template wants of the course itself; the home page apart. */
export const wantedCourseFields = (expected: ExpectedCourse): Fields => {
  const {
    template: { grading },
    facts,
  } = expected
  const navigation = wantedNavigation(expected)
  return {
    name: expected.name,
    label: expected.label,
    timeZone: facts.term.timeZone,
    ...expected.window,
    ...Object.fromEntries(
      Object.entries(courseSettingsOf(expected.template)).map(([field, value]) => [
        `settings.${field}`,
        value,
      ]),
    ),
    ...(grading.categories.length > 0 ? { grading } : {}),
    ...(navigation.length > 0 ? { navigation } : {}),
  }
}

/** The naming format a part's name is written by. */
export const formatOfName = ({ definition, values }: ExpectedPart): string =>
  isModule(definition) && definition.groupings && values.unit !== undefined
    ? definition.groupings.name
    : definition.name

/** How one field stands on the platform; null where nothing is set. */
export const presentField = (of: Course | CourseModule | CourseItem, field: string): unknown => {
  const value = fieldIn(of, field) ?? null
  return Array.isArray(value) && value.length === 0 ? null : value
}
