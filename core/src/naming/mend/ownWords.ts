import { isMark, type Stretch, type Token } from './tokens.ts'

/** What is left of a name when everything recognised is taken out. */
export interface LeftWords {
  /** The instructor's own words, exactly as they stand; empty when there are none. */
  text: string
  /** Whether they stood in more than one stretch. */
  joined: boolean
  /** Marks at the edge that are no separators: ** or →. */
  strayMarks: boolean
  words: number
}

const separators = '-:;,.·|/~>→•_=+<\\–—'
const stray = '*#★✔✓!→@'
const connectives = new Set([
  'of',
  'for',
  'the',
  'du',
  'de',
  'del',
  'la',
  'le',
  'les',
  'el',
  'on',
  'in',
  'at',
  'a',
  'au',
  'and',
  'is',
  'with',
  'to',
  'pour',
  'para',
])
const pairs: Readonly<Record<string, string>> = { '(': ')', '[': ']', '{': '}', '"': '"', "'": "'" }

/** Trims white space, separators and brackets without a partner from both ends; a pair around the whole goes as well. */
const trimmed = (tokens: readonly Token[], { from, to }: Stretch): Stretch & { stray: boolean } => {
  let strayMarks = false
  const loose = (token: Token | undefined, atStart: boolean): boolean => {
    if (token?.kind === 'space') return true
    if (token?.kind !== 'mark') return false
    if (stray.includes(token.text) && (atStart || token.text !== '!')) return (strayMarks = true)
    return separators.includes(token.text)
  }
  const balance = (mark: string, other: string) =>
    tokens.slice(from, to).filter((token) => token.text === mark).length -
    tokens.slice(from, to).filter((token) => token.text === other).length
  for (let changed = true; changed && from < to;) {
    changed = false
    const [first, last] = [tokens[from], tokens[to - 1]]
    if (
      loose(first, true) ||
      (isMark(first, ')]}') &&
        balance(
          ')]}'.includes(first?.text ?? '') ? (first?.text ?? '') : '',
          pairOf(first?.text ?? ''),
        ) > 0)
    ) {
      from += 1
      changed = true
    } else if (
      loose(last, false) ||
      (isMark(last, '([{') && balance(last?.text ?? '', pairs[last?.text ?? ''] ?? '') > 0)
    ) {
      to -= 1
      changed = true
    } else if (isMark(first, '([{') && last?.text === pairs[first?.text ?? ''] && to - from > 2) {
      const inner = tokens.slice(from + 1, to - 1)
      if (!inner.some((token) => token.text === first?.text || token.text === last?.text)) {
        from += 1
        to -= 1
        changed = true
      }
    } else if (
      isMark(first, '([{') &&
      balance(first?.text ?? '', pairs[first?.text ?? ''] ?? '') > 0
    ) {
      from += 1
      changed = true
    } else if (isMark(last, ')]}') && balance(last?.text ?? '', pairOf(last?.text ?? '')) > 0) {
      to -= 1
      changed = true
    }
  }
  return { from, to, stray: strayMarks }
}
const opens: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries(pairs).map(([open, close]) => [close, open]),
)
const pairOf = (mark: string): string => opens[mark] ?? ''

/** The words of a name that nothing recognised, quoted from the original. */
export const leftWords = (
  tokens: readonly Token[],
  taken: readonly Stretch[],
  name: string,
  origin: readonly number[],
): LeftWords => {
  const used = new Uint8Array(tokens.length)
  for (const { from, to } of taken) used.fill(1, from, to)
  const runs: (Stretch & { words: number })[] = []
  let strayMarks = false
  for (let at = 0; at < tokens.length;) {
    if (used[at]) {
      at += 1
      continue
    }
    let to = at
    while (to < tokens.length && !used[to]) to += 1
    const run = trimmed(tokens, { from: at, to })
    strayMarks ||= run.stray
    const solid = tokens
      .slice(run.from, run.to)
      .filter((token) => token.kind === 'word' || token.kind === 'number')
    const onlyConnects =
      taken.length > 0 && solid.length <= 2 && solid.every((token) => connectives.has(token.text))
    if (solid.length > 0 && !onlyConnects)
      runs.push({ from: run.from, to: run.to, words: solid.length })
    at = to
  }
  const text = runs
    .map((run) =>
      name.slice(origin[tokens[run.from]?.from ?? 0], origin[tokens[run.to - 1]?.to ?? 0]).trim(),
    )
    .join(' ')
  return {
    text,
    joined: runs.length > 1,
    strayMarks,
    words: runs.reduce((sum, run) => sum + run.words, 0),
  }
}
