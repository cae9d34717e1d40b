import type { CourseItem } from '../course/index.ts'
import type { BlockBase } from './base.ts'

/** Whether what an item hands out cannot be seen: it may be anything, also an instructor's own. */
export const isFileUntold = (item: CourseItem | null | undefined): boolean =>
  item?.kind === 'file' && item.file === undefined

/**
 * Whether what a page says cannot be seen: it may be anything, and is never taken for empty. An item that never had a text says
 * nothing as well; so what was deployed to it tells the two apart, and of what was not deployed, that pages are there to be read.
 * @param blocks what the base says was deployed to it; null where it says nothing of the item
 */
export const isTextUntold = (
  { kind, html }: { kind: CourseItem['kind'] | 'module'; html: string | null },
  blocks: readonly BlockBase[] | null,
): boolean => html === null && (blocks === null ? kind === 'page' : blocks.length > 0)
