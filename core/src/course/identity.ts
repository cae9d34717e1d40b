import type { Course, CourseItem, CourseModule, RecordedAs } from './course.ts'

/** Every field, also where nothing is said of it. */
type All<T> = { [K in keyof Required<T>]: T[K] }

/**
 * A snapshot with what deployments recorded written beside each module and item, by the platform's id. All its items have
 * all fields in one order, whatever was read of them: engines that run JavaScript are quick with objects of one shape.
 */
export const withRecordedIdentity = (
  course: Course,
  recorded: ReadonlyMap<string, RecordedAs>,
): Course => {
  const item = (one: CourseItem): All<CourseItem> => ({
    id: one.id,
    kind: one.kind,
    name: one.name,
    published: one.published,
    opensAt: one.opensAt,
    dueAt: one.dueAt,
    closesAt: one.closesAt,
    points: one.points,
    category: one.category,
    html: one.html,
    url: one.url,
    target: one.target,
    work: one.work,
    rubric: one.rubric,
    studentWork: one.studentWork,
    recordedAs: recorded.get(one.id) ?? one.recordedAs,
  })
  const module = (one: CourseModule): All<CourseModule> => ({
    id: one.id,
    name: one.name,
    published: one.published,
    opensAt: one.opensAt,
    items: one.items.map(item),
    url: one.url,
    recordedAs: recorded.get(one.id) ?? one.recordedAs,
    modules: one.modules.map(module),
  })
  return { ...course, modules: course.modules.map(module), stray: course.stray.map(item) }
}
