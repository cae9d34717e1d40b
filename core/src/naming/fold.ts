/** A text with the differences that do not change a name's meaning folded away, and where each character came from. */
export interface Folded {
  text: string
  /** For each character of `text`, its offset in the original; one more entry for the end. */
  origin: number[]
}

const dashes = /[‐‑‒–—―−]/
const quotes: Record<string, string> = { '‘': "'", '’': "'", '“': '"', '”': '"' }

/**
 * Folds compatibility forms (NFKC: full-width characters, no-break spaces), dashes, quotation marks, case and runs of
 * white space. Offsets are kept, so that a reading of the folded text can quote the original exactly.
 */
export const foldName = (name: string): Folded => {
  const known = kept.get(name)
  if (known) return known
  const folded = foldAnew(name)
  if (kept.size >= mostKept) kept.clear()
  kept.set(name, folded)
  return folded
}

/** The same names come up in every course and every check. */
const kept = new Map<string, Folded>()
const mostKept = 20_000

const foldAnew = (name: string): Folded => {
  let text = ''
  const origin: number[] = []
  let at = 0
  for (const character of name) {
    for (const plain of character.normalize('NFKC').toLowerCase()) {
      const folded = dashes.test(plain) ? '-' : (quotes[plain] ?? (/\s/.test(plain) ? ' ' : plain))
      if (folded === ' ' && (text === '' || text.endsWith(' '))) continue
      for (let unit = 0; unit < folded.length; unit++) origin.push(at)
      text += folded
    }
    at += character.length
  }
  if (text.endsWith(' ')) {
    text = text.slice(0, -1)
    origin.pop()
  }
  origin.push(name.trimEnd().length)
  return { text, origin }
}
