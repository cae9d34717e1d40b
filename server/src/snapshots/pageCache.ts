import { analysePage, factsWithOwn, type PageFacts } from '@wickerframe/core'
import type { StoredPage, StoredSnapshot } from './snapshots.ts'

/** Facts are kept of pages of so many characters together; those not asked for longest are forgotten first. */
const mostCharacters = 16_000_000
const kept = new Map<string, { facts: PageFacts; length: number }>()
let characters = 0
/** Most pages are of one course and are not asked for again: a page is kept when it is met a second time. */
const metOnce = new Set<string>()
const mostMet = 100_000

const factsOf = ({ hash, html }: StoredPage): PageFacts => {
  const known = kept.get(hash)
  if (known) {
    kept.delete(hash)
    kept.set(hash, known)
    return known.facts
  }
  const facts = analysePage(html)
  if (metOnce.delete(hash)) keep(hash, facts, html.length)
  else {
    if (metOnce.size >= mostMet) metOnce.clear()
    metOnce.add(hash)
  }
  return facts
}

const keep = (hash: string, facts: PageFacts, length: number): void => {
  kept.set(hash, { facts, length })
  characters += length
  for (const [oldest, one] of kept) {
    if (characters <= mostCharacters) break
    kept.delete(oldest)
    characters -= one.length
  }
}

/** Facts of a course's pages. A page that is the same in a thousand courses, their own addresses aside, is read twice at most. */
export const pageFactsIn =
  ({ pages }: StoredSnapshot): ((html: string) => PageFacts) =>
  (html) => {
    const page = pages.get(html)
    return page ? factsWithOwn(factsOf(page), page.own) : analysePage(html)
  }
