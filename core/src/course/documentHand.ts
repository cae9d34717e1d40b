import type { PlatformHand } from './change/site.ts'
import { everyCourseItem, everyModule, type Course } from './course.ts'

/** Ids for what is made in a course document; they never clash with what is there. HTML stays as it is written. */
export const documentHand = (course: Course): PlatformHand => {
  const taken = new Set([
    ...everyModule(course.modules).map((module) => module.id),
    ...everyCourseItem(course).map(({ item }) => item.id),
  ])
  const urls = new Map(
    everyCourseItem(course).flatMap(({ item }) =>
      item.url === null ? [] : [[item.id, item.url] as const],
    ),
  )
  const known = everyCourseItem(course).find(({ item }) => item.url !== null)?.item
  let next = 0
  return {
    newId: (kind) => {
      let id: string
      do id = `${kind}-${++next}`
      while (taken.has(id))
      return id
    },
    urlOf: (id) =>
      urls.get(id) ??
      (known?.url ? known.url.split(known.id).join(id) : `/courses/${course.id}/items/${id}`),
    urlOfFile: ({ name, content }) =>
      course.files?.find((file) => file.content === content && file.name === name)?.url ??
      `/courses/${course.id}/files/${content}/${encodeURIComponent(name)}`,
    rewriteHtml: (html) => html,
  }
}
