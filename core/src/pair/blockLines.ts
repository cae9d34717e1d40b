import { analysePage } from '../page/index.ts'
import { remember } from '../remember/index.ts'

/** Shorter ones tell nothing. */
const leastLine = 12

/** The paragraphs of a block; kept by its HTML, which many courses share. */
export const paragraphsOfBlock = remember(4000, (html: string): readonly string[] =>
  analysePage(html).paragraphs.map(({ text }) => text),
)

/** The paragraphs of a block that are long enough to tell it from others. */
export const linesOfBlock = remember(4000, (html: string): readonly string[] =>
  paragraphsOfBlock(html).filter((text) => text.length >= leastLine),
)
