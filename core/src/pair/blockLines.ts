import { analysePage } from '../page/index.ts'
import { remember } from '../remember/index.ts'

/** Shorter ones tell nothing. */
const leastLine = 12

/** The paragraphs of a block, long enough to tell it from others; kept by its HTML, which many courses share. */
export const linesOfBlock = remember(4000, (html: string): readonly string[] =>
  analysePage(html).paragraphs.flatMap(({ text }) => (text.length >= leastLine ? [text] : [])),
)
