import type { Course, CourseItem, CourseModule } from '../course/index.ts'
import { isModule, WorkSettings, type CourseSettings } from '../template/index.ts'
import { writtenFile } from './fileForCourse.ts'
import type { ExpectedCourse, ExpectedPart } from './expected.ts'

/** Fields of one module, item or course by name, as far as something is said of them. */
export type Fields = Record<string, unknown>

/** What the template wants of a part's own fields, without its page. */
export const wantedFields = (part: ExpectedPart, expected: ExpectedCourse): Fields => {
  const { definition } = part
  const { settings } = definition
  const staffOnly = part.audience === 'staff'
  // Hidden as well: a platform that does not heed the one still heeds the other, and no student sees it.
  const shown = { published: !staffOnly && (settings.published ?? true), staffOnly }
  if (isModule(definition)) return { name: part.name, ...shown, opensAt: part.opensAt }
  const rubric =
    settings.rubric === undefined
      ? undefined
      : expected.template.rubrics.find((rubric) => rubric.key === settings.rubric)
  return {
    name: part.name,
    ...shown,
    opensAt: part.opensAt,
    dueAt: part.dueAt,
    closesAt: part.closesAt,
    points: settings.points ?? null,
    category: settings.category ?? null,
    ...(definition.url ? { target: definition.url } : {}),
    ...(rubric ? { rubric } : {}),
    ...(part.kind === 'file' ? { file: part.file && writtenFile(part.file) } : {}),
    ...Object.fromEntries(
      Object.entries(settings).flatMap(([field, value]) =>
        Object.hasOwn(WorkSettings.shape, field) ? [[`work.${field}`, value]] : [],
      ),
    ),
  }
}

/** A field of a course, module or item by its name; `work.attempts` is one within `work`. */
export const fieldIn = (whole: object, field: string): unknown => {
  const [name = '', inner] = field.split('.', 2)
  const value = (whole as Record<string, unknown>)[name]
  if (inner === undefined) return value
  return typeof value === 'object' && value !== null
    ? (value as Record<string, unknown>)[inner]
    : undefined
}

/** Fields to write, gathered into what a change takes: `work.attempts` goes into the item's `work` as it stands. */
export const gathered = (
  of: Course | CourseModule | CourseItem | null,
  fields: Fields,
): Record<string, unknown> => {
  const gathers: Record<string, unknown> = {}
  for (const [field, value] of Object.entries(fields)) {
    const [name = '', inner] = field.split('.', 2)
    if (inner === undefined) gathers[name] = value
    else
      gathers[name] = {
        ...((gathers[name] ?? (of && fieldIn(of, name)) ?? {}) as Partial<CourseSettings>),
        [inner]: value,
      }
  }
  return gathers
}
