import type { CourseItem } from '../course/index.ts'
import type { ExpectedPart } from '../expand/index.ts'

/**
 * Whether the platform does not tell what an item says that stands for a part with a page. It is never taken for empty; what is
 * accepted instead of a page may have none.
 */
export const isPageUntold = (part: ExpectedPart, item: CourseItem): boolean =>
  item.html === null && part.blocks.length > 0 && item.kind === part.kind
