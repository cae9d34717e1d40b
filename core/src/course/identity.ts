import type { Course, CourseItem, CourseModule, RecordedAs } from './course.ts'

/** A snapshot with what deployments recorded written beside each module and item, by the platform's id. */
export const withRecordedIdentity = (course: Course, recorded: ReadonlyMap<string, RecordedAs>): Course => {
  const item = (one: CourseItem): CourseItem => {
    const as = recorded.get(one.id)
    return as ? { ...one, recordedAs: as } : one
  }
  const module = (one: CourseModule): CourseModule => {
    const as = recorded.get(one.id)
    const inner = { ...one, items: one.items.map(item), modules: one.modules.map(module) }
    return as ? { ...inner, recordedAs: as } : inner
  }
  return { ...course, modules: course.modules.map(module), stray: course.stray.map(item) }
}
