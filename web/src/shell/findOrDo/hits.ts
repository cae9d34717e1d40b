import { plainLetters } from '../../controls/SearchList.tsx'

/** Words that were typed, as they are compared. */
const wordsOf = (typed: string): string[] =>
  plainLetters(typed)
    .split(/\s+/)
    .filter((word) => word !== '')

/** How well a text answers what was typed, lower is better: it begins with it, a word does, it holds all words; null: it does not. */
export const rankOf = (text: string, typed: string): number | null => {
  const plain = plainLetters(text)
  const words = wordsOf(typed)
  if (!words.every((word) => plain.includes(word))) return null
  const whole = words.join(' ')
  if (plain.startsWith(whole)) return 0
  return words.every((word) => plain.startsWith(word) || plain.includes(` ${word}`)) ? 1 : 2
}

/** A text in stretches: those that were typed, and what stands between them. */
export const hitsIn = (text: string, typed: string): { text: string; hit: boolean }[] => {
  // One plain letter or more for each letter, so that places can be told in the text itself.
  const letters = [...text].map((letter) => ({ letter, plain: plainLetters(letter) }))
  const plain = letters.map((each) => each.plain).join('')
  const hit = Array.from({ length: plain.length }, () => false)
  for (const word of wordsOf(typed))
    for (let at = plain.indexOf(word); at >= 0; at = plain.indexOf(word, at + word.length))
      hit.fill(true, at, at + word.length)
  const stretches: { text: string; hit: boolean }[] = []
  let at = 0
  for (const { letter, plain: folded } of letters) {
    const isHit = folded.length > 0 ? (hit[at] ?? false) : (stretches.at(-1)?.hit ?? false)
    at += folded.length
    const last = stretches.at(-1)
    if (last?.hit === isHit) last.text += letter
    else stretches.push({ text: letter, hit: isHit })
  }
  return stretches
}
