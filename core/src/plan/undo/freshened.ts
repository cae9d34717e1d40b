import { blockRegions, normalHtml } from '../../page/index.ts'
import type { BaseEntry } from '../base.ts'
import { bodyOf, type Bodies } from '../bodies.ts'
import type { NextEntry } from '../nextBase.ts'

/**
 * What a base says of a page that is written as it was known: blocks nobody had touched are read again from what the
 * platform gives back, since it may write them in another way, or lead their links elsewhere; those of an instructor stay
 * theirs.
 * @param html the page as it is written, before any of its links lead elsewhere
 */
export const freshened = (
  entry: BaseEntry,
  html: string,
  bodies: Bodies,
): Pick<NextEntry, 'blocks' | 'freshPage'> => {
  const looked = entry.blocks.map((block) => ({ key: block.key, html: bodyOf(bodies, block.sent) }))
  const written = blockRegions(html, looked).regions
  const known = new Map<string, ReturnType<typeof blockRegions>['regions']>()
  const regionsOf = (page: string) => {
    let regions = known.get(page)
    if (!regions) known.set(page, (regions = blockRegions(bodyOf(bodies, page), looked).regions))
    return regions
  }
  return {
    blocks: entry.blocks.map((block) => {
      const region = written.get(block.key)
      const then = block.page === null ? undefined : regionsOf(block.page).get(block.key)
      if (block.page === null || !region?.sure || !then?.sure) return { ...block, fresh: false }
      const before = bodyOf(bodies, block.page).slice(then.inner.from, then.inner.to)
      const after = html.slice(region.inner.from, region.inner.to)
      return { ...block, fresh: normalHtml(before) === normalHtml(after) }
    }),
    freshPage: entry.page !== null && bodyOf(bodies, entry.page) === html,
  }
}
