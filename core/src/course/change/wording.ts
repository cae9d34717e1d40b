import { localDateOf, localTimeOf } from '../../calendar/index.ts'
import { everyCourseItem, everyModule, type Course, type CourseItem } from '../course.ts'

/** One change in words; text that changes stands beside it. */
export interface ChangeInWords {
  says: string
  /** HTML before and after, where a page changes. */
  text: { before: string; after: string } | null
}

/** What a change is told with. */
export interface ChangeWording {
  course: Course
  item: (id: string) => CourseItem | undefined
  /** The name of a module or item in quotes; null is said to be outside every module. */
  nameOf: (id: string | null) => string
  /** An instant (ISO 8601) as local date and time. */
  moment: (instant: string | null) => string
}

export const changeWording = (course: Course, timeZone: string): ChangeWording => {
  const items = new Map(everyCourseItem(course).map(({ item }) => [item.id, item]))
  const modules = new Map(everyModule(course.modules).map((module) => [module.id, module]))
  return {
    course,
    item: (id) => items.get(id),
    nameOf: (id) =>
      id === null
        ? 'outside every module'
        : `“${items.get(id)?.name ?? modules.get(id)?.name ?? id.replace(/^ref:/, '')}”`,
    moment: (instant) =>
      instant === null
        ? 'none'
        : `${localDateOf(instant, timeZone)} ${localTimeOf(instant, timeZone)}`,
  }
}

/** A change that is told without any text beside it. */
export const plain = (says: string): ChangeInWords => ({ says, text: null })

export const valueWords = (value: unknown): string =>
  value === null || value === undefined
    ? 'nothing'
    : value === true
      ? 'yes'
      : value === false
        ? 'no'
        : `“${String(value)}”`
