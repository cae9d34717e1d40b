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

const opens: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries(pairs).map(([open, close]) => [close, open]),
)

/** Whether a mark at an edge separates the words from nothing: white space, dashes, colons; a stray one may mean something. */
const looseness = (token: Token | undefined, atStart: boolean): 'separator' | 'stray' | null => {
  if (token?.kind === 'space') return 'separator'
  if (token?.kind !== 'mark') return null
  if (stray.includes(token.text) && (atStart || token.text !== '!')) return 'stray'
  return separators.includes(token.text) ? 'separator' : null
}

/** Trims white space, separators and brackets without a partner from both ends; a pair around the whole goes as well. */
const trimmed = (tokens: readonly Token[], { from, to }: Stretch): Stretch & { stray: boolean } => {
  let strayMarks = false
  const isLoose = (token: Token | undefined, atStart: boolean): boolean => {
    const loose = looseness(token, atStart)
    if (loose === 'stray') strayMarks = true
    return loose !== null
  }
  const count = (mark: string): number =>
    tokens.slice(from, to).filter(({ text }) => text === mark).length
  /** Whether a bracket of these has no partner in what is left. */
  const isAlone = (token: Token | undefined, brackets: string, partner: typeof pairs): boolean =>
    isMark(token, brackets) && count(token?.text ?? '') > count(partner[token?.text ?? ''] ?? '')
  const isPairAround = (first: Token | undefined, last: Token | undefined): boolean =>
    isMark(first, '([{') &&
    last?.text === pairs[first?.text ?? ''] &&
    to - from > 2 &&
    !tokens.slice(from + 1, to - 1).some(({ text }) => text === first?.text || text === last?.text)
  /** What goes next: from the start, from the end, from both; what faces outwards goes before what faces inwards. */
  const nextTrim = (): 'start' | 'end' | 'both' | null => {
    const [first, last] = [tokens[from], tokens[to - 1]]
    if (isLoose(first, true) || isAlone(first, ')]}', opens)) return 'start'
    if (isLoose(last, false) || isAlone(last, '([{', pairs)) return 'end'
    if (isPairAround(first, last)) return 'both'
    if (isAlone(first, '([{', pairs)) return 'start'
    return isAlone(last, ')]}', opens) ? 'end' : null
  }
  while (from < to) {
    const trim = nextTrim()
    if (trim === null) break
    if (trim !== 'end') from += 1
    if (trim !== 'start') to -= 1
  }
  return { from, to, stray: strayMarks }
}

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
