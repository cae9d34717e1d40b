/**
 * Edits (insert, delete, replace, swap of two neighbours) that turn one word into the other: optimal string alignment,
 * after Damerau 1964. Stops at `most` and then gives `most + 1`.
 */
export const editDistance = (
  a: string,
  b: string,
  most: number = Math.max(a.length, b.length),
): number => {
  if (Math.abs(a.length - b.length) > most) return most + 1
  let before: number[] = []
  let row = Array.from({ length: b.length + 1 }, (_, j) => j)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    let least = i
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1]
      let cost = Math.min(
        (next[j - 1] ?? 0) + 1,
        (row[j] ?? 0) + 1,
        (row[j - 1] ?? 0) + (same ? 0 : 1),
      )
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, (before[j - 2] ?? 0) + 1)
      next.push(cost)
      if (cost < least) least = cost
    }
    if (least > most) return most + 1
    before = row
    row = next
  }
  return Math.min(row[b.length] ?? 0, most + 1)
}

/** Whether a word is another with a slip of the finger or two, by its length. */
export const isMistyped = (typed: string, word: string): boolean => {
  if (word.length < 4 || typed[0] !== word[0] || typed.length < 3) return false
  const most = word.length >= 7 ? 2 : 1
  return editDistance(typed, word, most) <= most
}

/** Whether a word shortens another: begins alike, and its letters stand in it in order, as in wk, nav, chpt. */
export const isShortFor = (short: string, word: string): boolean => {
  if (short.length < 2 || short.length >= word.length || short[0] !== word[0]) return false
  let at = 0
  for (const letter of word) if (letter === short[at]) at += 1
  return at === short.length
}
