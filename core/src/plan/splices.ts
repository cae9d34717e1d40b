/** A stretch of a page, by source offset, and what stands in its place afterwards. */
export interface Splice {
  from: number
  to: number
  text: string
}

/** A page with splices made. Insertions at one place stand in the order they were made; they stand before what is replaced from there on. */
export const spliced = (page: string, splices: readonly Splice[]): string => {
  const inOrder = splices
    .map((splice, i) => ({ one: splice, i }))
    .sort((a, b) => a.one.from - b.one.from || a.one.to - b.one.to || a.i - b.i)
  let written = ''
  let at = 0
  for (const { one } of inOrder) {
    written += page.slice(at, Math.max(at, one.from)) + one.text
    at = Math.max(at, one.to)
  }
  return written + page.slice(at)
}
