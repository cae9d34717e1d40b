import { isMark, isWord, skipSpace, withBrackets, type Stretch, type Token } from './tokens.ts'

/** What copying leaves behind in a name, or what merging class sections does. */
export interface LeftOver extends Stretch {
  what: 'copy' | 'bare-copy' | 'class-section'
}

/** After these a copy is a thing that somebody makes or has: `make a copy`, `your copy`, `fair copy`. */
export const leadsToCopy: ReadonlySet<string> = new Set(
  'a an the your my our this that one no and or of to hard fair clean final draft paper printed signed certified master another extra spare une la le ma ta sa votre una tu su mi'.split(
    ' ',
  ),
)
const copyWord = (token: Token | undefined): boolean => isWord(token, 'copy', 'copie', 'copia')

/**
 * `Copy of`, `(copy)`, `- Copy (2)`, `(2)` at the end: what a copy still carries; `Tides copy`, which may be a topic. `(5)`
 * at the end is one only where it is no number that the name should have, which the caller decides by what else it found.
 */
export const copyLeftOvers = (tokens: readonly Token[]): LeftOver[] => {
  const found: LeftOver[] = []
  const first = skipSpace(tokens, 0)
  if (copyWord(tokens[first])) {
    const of = skipSpace(tokens, first + 1)
    found.push({
      what: 'copy',
      from: first,
      to: isWord(tokens[of], 'of', 'de') ? of + 1 : first + 1,
    })
  }
  let end = tokens.length
  while (end > 0 && tokens[end - 1]?.kind === 'space') end -= 1
  // From the end backwards: a number in brackets, then the word, with or without a number after it.
  if (
    isMark(tokens[end - 1], ')') &&
    tokens[end - 2]?.kind === 'number' &&
    (tokens[end - 2]?.text.length ?? 9) <= 2 &&
    isMark(tokens[end - 3], '(') &&
    end - 3 > first
  ) {
    found.push({ what: 'copy', from: end - 3, to: end })
    end -= 3
    while (tokens[end - 1]?.kind === 'space') end -= 1
  }
  for (let at = end - 1; at >= Math.max(1, end - 6); at--) {
    if (!copyWord(tokens[at])) continue
    const number = skipSpace(tokens, at + 1)
    const to = tokens[number]?.kind === 'number' ? number + 1 : at + 1
    const whole = withBrackets(tokens, { from: at, to })
    const before =
      tokens[whole.from - 1]?.kind === 'space' ? tokens[whole.from - 2] : tokens[whole.from - 1]
    // A word of the topic unless a mark parts it from it: `make a copy` stays.
    if (whole.from !== at || (before?.kind === 'mark' && to === end))
      found.push({ what: 'copy', ...whole })
    else if (to === end && before?.kind === 'word' && !leadsToCopy.has(before.text))
      found.push({ what: 'bare-copy', ...whole })
  }
  for (const [at, token] of tokens.entries())
    if (copyWord(token) && isMark(tokens[at - 1], '([') && at < end - 6) {
      const whole = withBrackets(tokens, { from: at, to: at + 1 })
      if (whole.from !== at) found.push({ what: 'copy', ...whole })
    }
  return found
}

/**
 * Class sections of a course in a name whose format has none: `NAV 110-01`, `sec 01`, `sections 01-08`, `01/02`.
 * @param codeEnds indices right after a course code, where a class section may be joined with a hyphen
 */
export const classSectionLeftOvers = (
  tokens: readonly Token[],
  classSections: readonly string[],
  codeEnds: readonly number[],
): LeftOver[] => {
  if (classSections.length === 0) return []
  const known = (token: Token | undefined): boolean =>
    token !== undefined && classSections.some((section) => section.toLowerCase() === token.text)
  /** Takes in further class sections: `, 02`, `/02`, ` and 02`, `-08`. */
  const rest = (at: number): number => {
    let to = at
    for (;;) {
      let next = skipSpace(tokens, to)
      if (isMark(tokens[next], ',/&+-') || isWord(tokens[next], 'and', 'to', 'et', 'y'))
        next = skipSpace(tokens, next + 1)
      else return to
      if (!known(tokens[next])) return to
      to = next + 1
    }
  }
  const found: LeftOver[] = []
  tokens.forEach((token, at) => {
    if (
      isWord(token, 'section', 'sections', 'sec', 'secs', 'sect', 'seccion', 'groupe', 'grupo') ||
      isMark(token, '§')
    ) {
      const next = skipSpace(tokens, isMark(tokens[at + 1], '.') ? at + 2 : at + 1)
      if (known(tokens[next]))
        found.push({
          what: 'class-section',
          ...withBrackets(tokens, { from: at, to: rest(next + 1) }),
        })
    }
  })
  for (const end of codeEnds) {
    const next = isMark(tokens[end], '-._/') ? end + 1 : skipSpace(tokens, end)
    if (
      known(tokens[next]) &&
      !found.some(({ from, to }) => from <= next && next < to) &&
      (isMark(tokens[end], '-._/') || isMark(tokens[next + 1], '/,') || classSections.length > 1)
    )
      found.push({ what: 'class-section', from: end, to: rest(next + 1) })
  }
  return found
}
