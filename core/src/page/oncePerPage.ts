import type { PageFacts } from './analysePage.ts'

/**
 * Works something out from a page's own facts once for all courses that have the page. What depends on a course's own
 * addresses (links, images, the instance that markers name) must not be told by it.
 */
export const oncePerPage =
  <V>(work: (page: PageFacts) => V): ((page: PageFacts) => V) =>
  (page) => {
    const before = page.shared.get(work) as V | undefined
    if (before !== undefined) return before
    const value = work(page)
    page.shared.set(work, value)
    return value
  }

/** All paragraphs of a page, a line each: to find out at once whether something stands in it at all. */
export const wholeText = oncePerPage((page) => page.paragraphs.map(({ text }) => text).join('\n'))
