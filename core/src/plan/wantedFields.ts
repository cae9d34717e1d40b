import type { Course, CourseItem, CourseModule } from '../course/index.ts'
import type { ExpectedCourse, ExpectedPart } from '../expand/index.ts'
import { isModule, WorkSettings, type CourseSettings } from '../template/index.ts'

/** Fields of one module, item or course by name, as far as something is said of them. */
export type Fields = Record<string, unknown>

/** Fields that touch how handed-in work counts: left alone once students have work in an item. */
export const touchesWork = (field: string): boolean => ['points', 'category', 'target', 'rubric'].includes(field) || field.startsWith('work.')

/** What the template wants of a part's own fields, without its page. */
export const wantedFields = (part: ExpectedPart, expected: ExpectedCourse): Fields => {
  const { definition } = part
  const { settings } = definition
  const published = part.audience === 'staff' ? false : (settings.published ?? true)
  if (isModule(definition)) return { name: part.name, published, opensAt: part.opensAt }
  const rubric = settings.rubric === undefined ? undefined : expected.template.rubrics.find((one) => one.key === settings.rubric)
  return {
    name: part.name, published, opensAt: part.opensAt, dueAt: part.dueAt, closesAt: part.closesAt, points: settings.points ?? null, category: settings.category ?? null,
    ...(definition.url ? { target: definition.url } : {}),
    ...(rubric ? { rubric } : {}),
    ...Object.fromEntries(Object.entries(settings).flatMap(([field, value]) => (Object.hasOwn(WorkSettings.shape, field) ? [[`work.${field}`, value]] : []))),
  }
}

/** What the template wants of the course itself; the home page apart. */
export const wantedCourseFields = (expected: ExpectedCourse): Fields => {
  const { template: { settings, grading, navigation }, facts } = expected
  return {
    name: expected.name, label: expected.label, timeZone: facts.term.timeZone, ...expected.window,
    ...Object.fromEntries(Object.entries(settings).map(([field, value]) => [`settings.${field}`, value])),
    ...(grading.categories.length > 0 ? { grading } : {}),
    ...(navigation.length > 0 ? { navigation: navigation.map(({ label, hidden }) => ({ label, hidden })) } : {}),
  }
}

/** The naming format a part's name is written by. */
export const formatOfName = ({ definition, values }: ExpectedPart): string =>
  isModule(definition) && definition.groupings && values.unit !== undefined ? definition.groupings.name : definition.name

const fieldIn = (whole: object, field: string): unknown => {
  const [name = '', inner] = field.split('.', 2)
  const value = (whole as Record<string, unknown>)[name]
  if (inner === undefined) return value
  return typeof value === 'object' && value !== null ? (value as Record<string, unknown>)[inner] : undefined
}

/** How one field stands on the platform; null where nothing is set. */
export const presentField = (of: Course | CourseModule | CourseItem, field: string): unknown => {
  const value = fieldIn(of, field) ?? null
  return Array.isArray(value) && value.length === 0 ? null : value
}

/** Fields to write, gathered into what a change takes: `work.attempts` goes into the item's `work` as it stands. */
export const gathered = (of: Course | CourseModule | CourseItem | null, fields: Fields): Record<string, unknown> => {
  const gathers: Record<string, unknown> = {}
  for (const [field, value] of Object.entries(fields)) {
    const [name = '', inner] = field.split('.', 2)
    if (inner === undefined) gathers[name] = value
    else gathers[name] = { ...((gathers[name] ?? (of && fieldIn(of, name)) ?? {}) as Partial<CourseSettings>), [inner]: value }
  }
  return gathers
}
