import { withoutAccents } from '../../calendar/index.ts'

/** A word, a number, a stretch of white space or one other character of a folded name. */
export interface Token {
  kind: 'word' | 'number' | 'space' | 'mark'
  /** Folded; words without accents. */
  text: string
  /** Offsets in the folded name. */
  from: number
  to: number
}

const isLetter = /^\p{L}$/u
const isJoined = /^[\p{L}\p{M}]$/u
type Kind = Token['kind']
const kindOfAscii: readonly Kind[] = Array.from({ length: 128 }, (_, unit): Kind => {
  const character = String.fromCharCode(unit)
  return /[a-z]/i.test(character)
    ? 'word'
    : /\d/.test(character)
      ? 'number'
      : /\s/.test(character)
        ? 'space'
        : 'mark'
})
const kindOf = (character: string): Kind => {
  const unit = character.charCodeAt(0)
  return unit < 128 ? (kindOfAscii[unit] ?? 'mark') : isLetter.test(character) ? 'word' : 'mark'
}

/** Takes a folded name apart. Linear. */
export const tokensOf = (folded: string): Token[] => {
  const tokens: Token[] = []
  for (let from = 0; from < folded.length;) {
    const code = folded.codePointAt(from) ?? 0
    const size = code > 0xffff ? 2 : 1
    const kind = kindOf(folded.slice(from, from + size))
    let to = from + size
    if (kind !== 'mark')
      while (to < folded.length) {
        const unit = folded.charCodeAt(to)
        if (
          unit < 128
            ? kindOfAscii[unit] !== kind
            : kind !== 'word' || !isJoined.test(folded[to] ?? '')
        )
          break
        to += 1
      }
    const text = folded.slice(from, to)
    tokens.push({ kind, text: kind === 'word' ? withoutAccents(text) : text, from, to })
    from = to
  }
  return tokens
}

/** A stretch of tokens, the end excluded. */
export interface Stretch {
  from: number
  to: number
}

export const overlap = (a: Stretch, b: Stretch): boolean => a.from < b.to && b.from < a.to

/** Index of the next token that is no white space, from an index on. */
export const skipSpace = (tokens: readonly Token[], at: number): number =>
  tokens[at]?.kind === 'space' ? at + 1 : at

export const isMark = (token: Token | undefined, marks: string): boolean =>
  token?.kind === 'mark' && marks.includes(token.text)
export const isWord = (token: Token | undefined, ...words: readonly string[]): boolean =>
  token?.kind === 'word' && words.includes(token.text)

const closing: Readonly<Record<string, string>> = { '(': ')', '[': ']', '{': '}' }
/** A stretch with the brackets that stand directly around it, if they do. */
export const withBrackets = (tokens: readonly Token[], stretch: Stretch): Stretch => {
  const open = tokens[stretch.from - 1]?.kind === 'space' ? stretch.from - 2 : stretch.from - 1
  const opening = tokens[open]
  const close = skipSpace(tokens, stretch.to)
  return opening?.kind === 'mark' &&
    closing[opening.text] !== undefined &&
    tokens[close]?.text === closing[opening.text]
    ? { from: open, to: close + 1 }
    : stretch
}
