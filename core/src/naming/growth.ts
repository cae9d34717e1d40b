/**
 * For tests: how many times as long `work` takes at `long` as at `short`.
 * Both are run by turns, so that a slow minute of the machine meets both, and
 * the least of each counts: what else the machine does only ever adds. Choose
 * the lengths far apart, so that growth with the length and growth with its
 * square lie apart too.
 */
export function growth(short: number, long: number, work: (length: number) => void): number {
  const least = new Map<number, number>()
  work(short)
  for (let round = 0; round < 7; round++) {
    for (const length of [short, long]) {
      const start = performance.now()
      work(length)
      least.set(length, Math.min(least.get(length) ?? Infinity, performance.now() - start))
    }
  }
  return least.get(long)! / least.get(short)!
}
