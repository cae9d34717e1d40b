import { fields, type FieldName } from '../fields.ts'
import { foldName } from '../fold.ts'
import { datesSaid, type SaidDates } from '../mend/saidDates.ts'
import { isMark, skipSpace, tokensOf, type Token } from '../mend/tokens.ts'
import { conceptsOf } from '../words/labels.ts'
import { seasonOf } from '../words/seasons.ts'
import { dateStyleOf } from './dateStyle.ts'

/** A name taken apart into typed spans and the words and marks between them. */
export interface Piece {
  kind: 'field' | 'word' | 'mark'
  /** As it stands in the name; for a field, as a format writes it. */
  text: string
}

const escaped = (text: string): string =>
  text
    .replace(/[{}\\]/g, (character) => (character === '\\' ? '\\\\' : character + character))
    .replace(/\?(?=\})/g, '\\?')

const fieldText = (field: FieldName, style: string | null): string => {
  const usual: string | undefined =
    'style' in fields[field] ? (fields[field] as { style?: string }).style : undefined
  return style === null || style === usual ? `{${field}}` : `{${field}, ${style}}`
}

const byLabel: Readonly<Record<string, FieldName>> = { week: 'week', unit: 'unit', day: 'day' }

/** Which field a number is, by the word beside it. */
const numberField = (tokens: readonly Token[], at: number): FieldName => {
  const after = tokens[skipSpace(tokens, at + 1)]
  if (after?.kind === 'word') {
    if (conceptsOf(after.text).has('minutes')) return 'minutes'
    if (conceptsOf(after.text).has('points')) return 'points'
  }
  let before = at - 1
  while (tokens[before]?.kind === 'space' || isMark(tokens[before], '#.-_')) before -= 1
  for (const concept of tokens[before]?.kind === 'word'
    ? conceptsOf(tokens[before]?.text ?? '')
    : [])
    if (byLabel[concept]) return byLabel[concept]
  return 'number'
}

const dateField = (said: SaidDates, written: string): string | null => {
  const range = said.readings.some((reading) => reading.last !== null)
  for (const monthFirst of [true, false]) {
    const style = dateStyleOf(written, monthFirst)
    if (style !== null && /d/.test(style) && /M/.test(style))
      return fieldText(range ? 'dates' : 'start', style)
  }
  return null
}

/** A piece that takes the tokens up to `to`. */
interface Taken {
  to: number
  piece: Piece
}
/** A name with its tokens. */
interface Name {
  tokens: readonly Token[]
  /** Dates in it, by the token at which they begin. */
  dates: ReadonlyMap<number, Taken>
  /** As the tokens from one to another stand in the name. */
  original: (from: number, to: number) => string
}

/** Words that lead up to a date: text of the format. */
const leadsUp: ReadonlySet<string> = new Set(['from', 'du', 'del', 'de', 'week', 'of', 'on', 'by'])
const isGap = (token: Token | undefined): boolean =>
  token?.kind === 'mark' || token?.kind === 'space'

/** The bare span of a date, without brackets or words that lead up to it. */
const bareSpan = (
  tokens: readonly Token[],
  { from, to }: SaidDates,
): { from: number; to: number } => {
  while (from < to && (isGap(tokens[from]) || leadsUp.has(tokens[from]?.text ?? ''))) from += 1
  while (to > from && isGap(tokens[to - 1])) to -= 1
  return { from, to }
}

const datesIn = (
  tokens: readonly Token[],
  near: string,
  original: Name['original'],
): Map<number, Taken> => {
  const dates = new Map<number, Taken>()
  for (const said of datesSaid(tokens, near)) {
    const { from, to } = bareSpan(tokens, said)
    // The 1 of `Unit 1 – 14 September` is the unit's.
    const isLabelled =
      tokens[from]?.kind === 'number' &&
      tokens[from - 1]?.kind === 'space' &&
      conceptsOf(tokens[from - 2]?.text ?? '').size > 0
    if (isLabelled || dates.has(from)) continue
    const written = original(from, to)
    const field = dateField(said, written)
    // A date that no style of ours writes (`31 août`) is words, not numbers beside words.
    if (field !== null) dates.set(from, { to, piece: { kind: 'field', text: field } })
    else if (/\p{L}/u.test(written)) dates.set(from, { to, piece: { kind: 'word', text: written } })
  }
  return dates
}

/** The number right after a word, with the place behind it. */
const numberAfter = (tokens: readonly Token[], at: number, digits: number) => {
  const place = skipSpace(tokens, at + 1)
  const number = tokens[place]
  return number?.kind === 'number' && number.text.length === digits ? place + 1 : null
}

/** `Autumn 2026`. */
const termAt = ({ tokens }: Name, at: number): Taken | null => {
  const word = tokens[at]
  const to = numberAfter(tokens, at, 4)
  return word?.kind === 'word' &&
    to !== null &&
    seasonOf(word.text) !== null &&
    !isMark(tokens[at + 1], '-')
    ? { to, piece: { kind: 'field', text: '{term}' } }
    : null
}

/** `NAV 110`. */
const codeAt = ({ tokens, original }: Name, at: number): Taken | null => {
  const to = numberAfter(tokens, at, 3)
  return tokens[at]?.kind === 'word' &&
    to !== null &&
    /^\p{Lu}{2,4}$/u.test(original(at, at + 1)) &&
    tokens[at + 1]?.kind !== 'mark'
    ? { to, piece: { kind: 'field', text: '{code}' } }
    : null
}

const numberAt = ({ tokens }: Name, at: number): Taken | null => {
  const token = tokens[at]
  if (token?.kind !== 'number' || token.text.length > 3 || tokens[at + 1]?.kind === 'word')
    return null
  const style = /^0\d$/.test(token.text) ? '00' : null
  return { to: at + 1, piece: { kind: 'field', text: fieldText(numberField(tokens, at), style) } }
}

const asItStands = ({ tokens, original }: Name, at: number): Taken => ({
  to: at + 1,
  piece: { kind: isGap(tokens[at]) ? 'mark' : 'word', text: original(at, at + 1) },
})

/** Takes a name apart. `near` is any date about the time the names are from. */
export const piecesOf = (name: string, near: string): Piece[] => {
  const folded = foldName(name)
  const tokens = tokensOf(folded.text)
  const original = (from: number, to: number) =>
    name.slice(folded.origin[tokens[from]?.from ?? 0], folded.origin[tokens[to - 1]?.to ?? 0])
  const read: Name = { tokens, dates: datesIn(tokens, near, original), original }
  const pieces: Piece[] = []
  for (let at = 0; at < tokens.length;) {
    const { to, piece } =
      read.dates.get(at) ??
      termAt(read, at) ??
      codeAt(read, at) ??
      numberAt(read, at) ??
      asItStands(read, at)
    pieces.push(piece)
    at = to
  }
  return pieces
}

/**
 * The format that a name follows when these words are the format's own and all others somebody's topic; null when the
 * topic would stand in two places. A number or date inside the topic belongs to it.
 */
export const generalise = (
  pieces: readonly Piece[],
  isFixed: (word: string) => boolean,
): string | null => {
  const free = pieces.map((piece) => piece.kind === 'word' && !isFixed(piece.text.toLowerCase()))
  const first = free.indexOf(true)
  const last = free.lastIndexOf(true)
  if (first < 0)
    return pieces
      .map((piece) => (piece.kind === 'field' ? piece.text : escaped(piece.text)))
      .join('')
  const inside = pieces.slice(first, last + 1)
  if (
    inside.some((piece) => piece.kind === 'field' && !piece.text.startsWith('{number')) ||
    (inside.some((piece) => piece.kind === 'word' && isFixed(piece.text.toLowerCase())) &&
      inside.some((piece) => piece.kind === 'field'))
  )
    return null
  const write = (list: readonly Piece[]) =>
    list.map((piece) => (piece.kind === 'field' ? piece.text : escaped(piece.text))).join('')
  const rest = pieces.slice(last + 1)
  // What closes a topic (`Heights?`, `(two)`) is the topic's, not the format's, where nothing follows it.
  const tail =
    rest.every((piece) => piece.kind === 'mark') && !/[)\]]/.test(write(rest)) ? '' : write(rest)
  return `${write(pieces.slice(0, first))}{topic}${tail}`
}
