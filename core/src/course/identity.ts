import {
  mapCourse,
  type Course,
  type CourseItem,
  type CourseModule,
  type RecordedAs,
} from './course.ts'

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
    staffOnly: one.staffOnly,
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
    carried: one.carried,
    recordedAs: recorded.get(one.id) ?? one.recordedAs,
  })
  const module = (one: CourseModule): All<CourseModule> => ({
    id: one.id,
    kind: one.kind,
    name: one.name,
    published: one.published,
    staffOnly: one.staffOnly,
    opensAt: one.opensAt,
    url: one.url,
    recordedAs: recorded.get(one.id) ?? one.recordedAs,
    carried: one.carried,
    children: one.children,
  })
  return mapCourse(course, item, module)
}
