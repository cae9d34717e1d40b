/** One line of a list or one row of a table, as it was typed: how deep it stands, from 0, and its cells, at least one. */
export interface Line {
  depth: number
  cells: string[]
}

/** An outline has no more rows than this; what comes after is left out, and said. */
export const mostLines = 400
/** Deeper than courses nest; what stands deeper is read as if it stood there. */
export const deepest = 6
/** Longer ones are prose, and no names. */
export const longestName = 300

/** Lines whose depths are any numbers that grow inwards, from 0 and one step at a time. */
export const stepped = (lines: readonly Line[]): Line[] => {
  const open: number[] = []
  return lines.map(({ depth, cells }) => {
    while (open.length > 0 && (open.at(-1) ?? 0) >= depth) open.pop()
    open.push(depth)
    return { depth: Math.min(open.length - 1, deepest), cells }
  })
}
