import type { ExpectedPart } from '../expand/index.ts'
import { askedOf, blockHtmlOn, markedBlock } from '../page/index.ts'
import { isFixedText, leftAs } from '../template/index.ts'
import { instancesIn, keptRef, withLinks } from './links.ts'
import type { WantedBlock } from './mergePage.ts'
import type { PlanContext } from './planContext.ts'

/** The blocks of a page as the template wants them; links to parts that are not in the course lose their target. */
export const wantedBlocks = (
  part: ExpectedPart,
  { onDate, partOf, standing, created, found }: PlanContext,
): WantedBlock[] =>
  part.blocks.map((block) => {
    const html = blockHtmlOn(block, onDate)
    const alive = (instance: string): boolean =>
      standing(instance) !== undefined || created.has(instance)
    const whole = withLinks(html, (instance) => keptRef(instance, partOf))
    const living = withLinks(html, (instance) =>
      alive(instance) ? keptRef(instance, partOf) : '#',
    )
    const written = withLinks(html, (instance) => {
      const id = standing(instance)
      return id !== undefined ? `item:${id}` : created.has(instance) ? `ref:${instance}` : '#'
    })
    return {
      key: block.key,
      left: leftAs(block.definition),
      spots: leftAs(block.definition) === null ? block.asks : [],
      stays: block.definition.kind === 'fill-in' ? [] : (askedOf(block)?.given ?? []),
      isGuidance: block.kind === 'guidance-note',
      isFixed:
        block.kind === 'house-text' ||
        // What was filled in within its sentences would go with them.
        (block.kind === 'fixed-text' && isFixedText(block.definition) && block.asks.length === 0),
      written: markedBlock(block.key, part.instance, written),
      kept: living,
      asItStands: withLinks(html, (instance) => {
        const id = standing(instance)
        return (id === undefined ? null : found.get(id)?.item?.url) ?? '#'
      }),
      leadsAnew: instancesIn(html).some((instance) => created.has(instance)),
      unchangedAs: living === whole ? [whole] : [whole, living],
    }
  })
