/**
 * The fewest items to move so that a sequence of ranks becomes ascending: those outside its longest increasing
 * subsequence (Schensted 1961, by patience sorting in n log n). Of several equally long ones the one that ends lowest
 * is kept, the same way every time.
 * @param ranks the wanted place of each item, in the order found; all different
 * @returns indexes of the items to move, ascending
 */
export const fewestMoves = (ranks: readonly number[]): number[] => {
  if (ranks.every((rank, i) => i === 0 || rank > (ranks[i - 1] ?? 0))) return []
  const tails: number[] = []
  const previous: number[] = []
  ranks.forEach((rank, i) => {
    let low = 0
    let high = tails.length
    while (low < high) {
      const middle = (low + high) >> 1
      if ((ranks[tails[middle] ?? 0] ?? 0) < rank) low = middle + 1
      else high = middle
    }
    previous[i] = low > 0 ? (tails[low - 1] ?? -1) : -1
    tails[low] = i
  })
  const kept = new Set<number>()
  for (let at = tails.at(-1) ?? -1; at >= 0; at = previous[at] ?? -1) kept.add(at)
  return ranks.map((_, i) => i).filter((i) => !kept.has(i))
}
