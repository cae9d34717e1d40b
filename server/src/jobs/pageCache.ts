import { analysePage, factsWithOwn, ownPrefix, withoutOwn, type Course, type PageFacts } from '@wickerframe/core'

const mostPages = 20_000
const kept = new Map<string, PageFacts>()

const factsOfShared = (html: string): PageFacts => {
  const known = kept.get(html)
  if (known) return known
  const facts = analysePage(html)
  if (kept.size >= mostPages) kept.delete(kept.keys().next().value ?? '')
  kept.set(html, facts)
  return facts
}

/** Facts of a course's pages. A page that is the same in a thousand courses, their own addresses aside, is read once. */
export const pageFactsIn = (course: Course): ((html: string) => PageFacts) => {
  const prefix = ownPrefix(course)
  return (html) => {
    const shared = withoutOwn(html, prefix)
    return factsWithOwn(factsOfShared(shared.html), shared.own)
  }
}
