import { analysePage, type PageFacts } from '@wickerframe/core'

const mostPages = 20_000
const kept = new Map<string, PageFacts>()

/** Facts of a page, kept by its very HTML: a page that is the same in a thousand courses is read once. */
export const keptPageFacts = (html: string): PageFacts => {
  const known = kept.get(html)
  if (known) return known
  const facts = analysePage(html)
  if (kept.size >= mostPages) kept.delete(kept.keys().next().value ?? '')
  kept.set(html, facts)
  return facts
}
