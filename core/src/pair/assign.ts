/**
 * The assignment of rows to columns with the highest total score, where any row may stay alone at `aloneScore`.
 * Shortest augmenting paths with potentials (Jonker and Volgenant 1987), O(rows² × columns); each row has a null column
 * of its own, so that no pair is forced. Ties go to the lower column, the same way every time.
 * @param scores one row per expected part, all of the same length
 * @returns for each row its column, or null when it is better alone
 */
export const assign = (
  scores: readonly (readonly number[])[],
  aloneScore = 0,
): (number | null)[] => {
  const rows = scores.length
  const columns = scores[0]?.length ?? 0
  if (rows === 0) return []
  const total = columns + rows
  const cost = (row: number, column: number): number =>
    column < columns
      ? -(scores[row]?.[column] ?? -Infinity)
      : column - columns === row
        ? -aloneScore
        : 1e9

  const rowPotential = new Float64Array(rows + 1)
  const columnPotential = new Float64Array(total + 1)
  const rowOfColumn = new Int32Array(total + 1)
  for (let row = 1; row <= rows; row++) {
    const least = new Float64Array(total + 1).fill(Infinity)
    const cameFrom = new Int32Array(total + 1)
    const used = new Uint8Array(total + 1)
    let column = 0
    rowOfColumn[0] = row
    do {
      used[column] = 1
      const current = rowOfColumn[column] ?? 0
      let delta = Infinity
      let next = 0
      for (let other = 1; other <= total; other++) {
        if (used[other]) continue
        const reduced =
          cost(current - 1, other - 1) -
          (rowPotential[current] ?? 0) -
          (columnPotential[other] ?? 0)
        if (reduced < (least[other] ?? Infinity)) {
          least[other] = reduced
          cameFrom[other] = column
        }
        if ((least[other] ?? Infinity) < delta) {
          delta = least[other] ?? Infinity
          next = other
        }
      }
      for (let other = 0; other <= total; other++) {
        if (used[other]) {
          const owner = rowOfColumn[other] ?? 0
          rowPotential[owner] = (rowPotential[owner] ?? 0) + delta
          columnPotential[other] = (columnPotential[other] ?? 0) - delta
        } else least[other] = (least[other] ?? Infinity) - delta
      }
      column = next
    } while (rowOfColumn[column] !== 0)
    while (column !== 0) {
      const previous = cameFrom[column] ?? 0
      rowOfColumn[column] = rowOfColumn[previous] ?? 0
      column = previous
    }
  }
  const result: (number | null)[] = Array.from({ length: rows }, () => null)
  for (let column = 1; column <= columns; column++) {
    const row = rowOfColumn[column] ?? 0
    if (row > 0) result[row - 1] = column - 1
  }
  return result
}

/**
 * How much the total of an assignment falls when a row gives its column up: to nobody, to another column, to another row
 * that changes with it. The best exchange of two is taken for the best other assignment. Not negative for an optimal one
 * but for rounding. O(rows + columns) for each row.
 * @param assigned what `assign` gave for the scores
 */
export const marginOf = (
  scores: readonly (readonly number[])[],
  assigned: readonly (number | null)[],
  row: number,
): number => {
  const column = assigned[row]
  if (column === null || column === undefined) return 0
  const scoreOf = (at: number, to: number | null | undefined): number =>
    to === null || to === undefined ? 0 : (scores[at]?.[to] ?? -Infinity)
  const own = scoreOf(row, column)
  const holder = new Map(assigned.flatMap((to, at) => (to === null ? [] : [[to, at] as const])))
  let best = 0
  scores.forEach((of, other) => {
    if (other === row) return
    const theirs = assigned[other]
    // The other row takes this column, and this row what the other has, or nothing.
    const exchanged = (of[column] ?? -Infinity) - scoreOf(other, theirs)
    const instead = theirs === null || theirs === undefined ? 0 : Math.max(0, scoreOf(row, theirs))
    best = Math.max(best, exchanged + instead)
  })
  for (let other = 0; other < (scores[row]?.length ?? 0); other++) {
    if (other === column) continue
    const theirs = holder.get(other)
    // This row takes another column, whose row is left alone: exchanges are weighed above.
    best = Math.max(
      best,
      scoreOf(row, other) - (theirs === undefined ? 0 : Math.max(0, scoreOf(theirs, other))),
    )
  }
  return own - best
}
