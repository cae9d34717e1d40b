import { everyCourseItem, everyModule, type Course, type PlatformHand } from '@wickerframe/core'

/** Ids for what is made in a course document; they never clash with what is there. HTML stays as it is written. */
export const documentHand = (course: Course): PlatformHand => {
  const taken = new Set([...everyModule(course.modules).map((module) => module.id), ...everyCourseItem(course).map(({ item }) => item.id)])
  const known = everyCourseItem(course).find(({ item }) => item.url !== null)?.item
  let next = 0
  return {
    newId: (kind) => {
      let id: string
      do id = `${kind}-${++next}`
      while (taken.has(id))
      return id
    },
    urlOf: (id) => (known?.url ? known.url.split(known.id).join(id) : `/courses/${course.id}/items/${id}`),
    rewriteHtml: (html) => html,
  }
}
