/**
 * For tests: how many times as long `work` takes at `long` as at `short`.
 * Both are run by turns, so that a slow minute of the machine meets both, and
 * the least of each counts: what else the machine does only ever adds. Choose
 * the lengths far apart, so that growth with the length and growth with its
 * square lie apart too.
 */
export function growth(short: number, long: number, work: (length: number) => void): number {
  const time = (length: number): number => {
    const start = performance.now()
    work(length)
    return performance.now() - start
  }
  time(short)
  const least = { short: Infinity, long: Infinity }
  for (let round = 0; round < 7; round++) {
    least.short = Math.min(least.short, time(short))
    least.long = Math.min(least.long, time(long))
  }
  return least.long / least.short
}
