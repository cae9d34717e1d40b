/** Words of a text as they are told apart: letters and digits, in lower case; blanks to fill in are none. */
const wordsOf = (text: string): string[] =>
  text
    .normalize('NFC')
    .toLowerCase()
    .match(/[\p{L}\p{N}]+/gu) ?? []

/**
 * How many words of a text are not among those of an earlier one, each counted as often as it stands. What was only moved, or saved
 * in another form, has none.
 */
export const newWords = (before: string, after: string): number => {
  const held = new Map<string, number>()
  for (const word of wordsOf(before)) held.set(word, (held.get(word) ?? 0) + 1)
  let fresh = 0
  for (const word of wordsOf(after)) {
    const left = held.get(word) ?? 0
    if (left > 0) held.set(word, left - 1)
    else fresh += 1
  }
  return fresh
}
