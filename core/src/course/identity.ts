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
  const item = (item: CourseItem): All<CourseItem> => ({
    id: item.id,
    kind: item.kind,
    name: item.name,
    published: item.published,
    staffOnly: item.staffOnly,
    opensAt: item.opensAt,
    dueAt: item.dueAt,
    closesAt: item.closesAt,
    points: item.points,
    category: item.category,
    html: item.html,
    url: item.url,
    target: item.target,
    work: item.work,
    rubric: item.rubric,
    questions: item.questions,
    file: item.file,
    studentWork: item.studentWork,
    carried: item.carried,
    recordedAs: recorded.get(item.id) ?? item.recordedAs,
  })
  const module = (module: CourseModule): All<CourseModule> => ({
    id: module.id,
    kind: module.kind,
    name: module.name,
    published: module.published,
    staffOnly: module.staffOnly,
    opensAt: module.opensAt,
    url: module.url,
    recordedAs: recorded.get(module.id) ?? module.recordedAs,
    carried: module.carried,
    children: module.children,
  })
  return mapCourse(course, item, module)
}
