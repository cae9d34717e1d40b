import { courseLinks, type Course, type CourseItem, type PlacedItem } from '../course/index.ts'
import type { PageFacts } from '../page/index.ts'

/**
 * Tells whether a link ties an item to a module: from its page to something there, or from a page there to it. Links
 * outlive names. Pages are read when they are first asked for.
 */
export const tiesOf = (
  course: Course,
  items: readonly PlacedItem[],
  pageOf: (item: CourseItem) => PageFacts | null,
): ((id: string, module: string | null) => boolean) => {
  const byId = new Map(items.map(({ item }) => [item.id, item]))
  const known = new Map<string, ReadonlySet<string>>()
  let resolve: ReturnType<typeof courseLinks> | undefined
  /** Ids of the items that the page of an item leads to. */
  const ledTo = (item: CourseItem): ReadonlySet<string> => {
    let ids = known.get(item.id)
    if (!ids) {
      const leadsTo = (resolve ??= courseLinks(course))
      const links = item.html === null ? [] : (pageOf(item)?.links ?? [])
      ids = new Set(
        links.flatMap(({ href }) => {
          const target = leadsTo(href)
          return target.leads === 'item' && target.id !== item.id ? [target.id] : []
        }),
      )
      known.set(item.id, ids)
    }
    return ids
  }
  return (id, module) => {
    const item = byId.get(id)
    return (
      item !== undefined &&
      items.some(
        (other) =>
          (other.module?.id ?? null) === module &&
          (ledTo(item).has(other.item.id) || ledTo(other.item).has(id)),
      )
    )
  }
}
