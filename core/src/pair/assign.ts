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
