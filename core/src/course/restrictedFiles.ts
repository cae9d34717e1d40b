import { withoutQuery } from '../document/index.ts'
import type { Course, CourseItem } from './course.ts'

/** Files of a course that are kept from students, as pages and items lead to them. */
export interface RestrictedFiles {
  any: boolean
  /** Whether an address leads to one. */
  at: (address: string) => boolean
  /** Whether an item itself is one, or leads to it. */
  shownBy: (item: Pick<CourseItem, 'url' | 'target' | 'file'>) => boolean
}

/** The files of a course that are kept from students, by their addresses and by what they hold. */
export const restrictedFiles = ({ files = [] }: Pick<Course, 'files'>): RestrictedFiles => {
  const contents = new Set(
    files.flatMap(({ restricted, content }) => (restricted ? (content ?? []) : [])),
  )
  // What holds the same is the same, at whatever address.
  const restricted = files.filter(
    (file) => file.restricted || (file.content !== undefined && contents.has(file.content)),
  )
  const addresses = new Set(restricted.map(({ url }) => url))
  const at = (address: string) => addresses.has(withoutQuery(address))
  return {
    any: restricted.length > 0,
    at,
    shownBy: ({ url, target, file }) =>
      [url, target].some((address) => address !== null && at(address)) ||
      (file !== undefined && file !== null && contents.has(file.content)),
  }
}
