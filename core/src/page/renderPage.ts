import type { ExpectedBlock, ExpectedPart } from '../expand/index.ts'
import { escapeHtml, type HouseText } from '../template/index.ts'
import { blockMarker, partMarker } from './analysePage.ts'

/** The revision of a house text in force on a date; the first one before any is. */
export const revisionInForce = (
  houseText: HouseText,
  onDate: string,
): HouseText['revisions'][number] | null =>
  houseText.revisions.filter((revision) => revision.inForceFrom <= onDate).at(-1) ??
  houseText.revisions[0] ??
  null

/** A block's inner HTML on a date. */
export const blockHtmlOn = (block: ExpectedBlock, onDate: string): string =>
  block.houseText ? (revisionInForce(block.houseText, onDate)?.html ?? '') : block.html

/** A block's HTML between the markers that say which it is. */
export const markedBlock = (key: string, instance: string, html: string): string =>
  `<div ${blockMarker}="${key}" ${partMarker}="${escapeHtml(instance)}">${html}</div>`

/**
 * The page that deployment writes, each block between markers that say which it is.
 * @param onDate decides which revision of a house text is written, `YYYY-MM-DD`
 */
export const renderPage = (
  part: Pick<ExpectedPart, 'instance' | 'blocks'>,
  onDate: string,
): string =>
  part.blocks
    .map((block) => markedBlock(block.key, part.instance, blockHtmlOn(block, onDate)))
    .join('\n')
