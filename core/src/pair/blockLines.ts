import { analysePage } from '../page/index.ts'

/** Shorter ones tell nothing. */
const leastLine = 12
const kept = new Map<string, string[]>()
const mostKept = 20_000

/** The paragraphs of a block, long enough to tell it from others; kept by its HTML, which many courses share. */
export const linesOfBlock = (html: string): readonly string[] => {
  let lines = kept.get(html)
  if (!lines) {
    if (kept.size >= mostKept) kept.clear()
    kept.set(html, (lines = analysePage(html).paragraphs.flatMap(({ text }) => (text.length >= leastLine ? [text] : []))))
  }
  return lines
}
