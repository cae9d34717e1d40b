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

/** Takes a name apart. `near` is any date about the time the names are from. */
export const piecesOf = (name: string, near: string): Piece[] => {
  const folded = foldName(name)
  const tokens = tokensOf(folded.text)
  const original = (from: number, to: number) =>
    name.slice(folded.origin[tokens[from]?.from ?? 0], folded.origin[tokens[to - 1]?.to ?? 0])
  const dates = new Map<number, { to: number; piece: Piece }>()
  for (const said of datesSaid(tokens, near)) {
    // The bare span, without brackets or words that lead up to it: those are text of the format.
    let { from, to } = said
    while (
      from < to &&
      (tokens[from]?.kind === 'mark' ||
        tokens[from]?.kind === 'space' ||
        ['from', 'du', 'del', 'de', 'week', 'of', 'on', 'by'].includes(tokens[from]?.text ?? ''))
    )
      from += 1
    while (to > from && (tokens[to - 1]?.kind === 'mark' || tokens[to - 1]?.kind === 'space'))
      to -= 1
    // The 1 of `Unit 1 – 14 September` is the unit's.
    if (
      tokens[from]?.kind === 'number' &&
      tokens[from - 1]?.kind === 'space' &&
      conceptsOf(tokens[from - 2]?.text ?? '').size > 0
    )
      continue
    const written = original(from, to)
    const field = dateField(said, written)
    // A date that no style of ours writes (`31 août`) is words, not numbers beside words.
    if (!dates.has(from) && (field !== null || /\p{L}/u.test(written)))
      dates.set(from, {
        to,
        piece: field === null ? { kind: 'word', text: written } : { kind: 'field', text: field },
      })
  }
  const pieces: Piece[] = []
  for (let at = 0; at < tokens.length;) {
    const token = tokens[at]
    if (token === undefined) break
    const date = dates.get(at)
    const written = original(at, at + 1)
    const number = tokens[skipSpace(tokens, at + 1)]
    if (date) {
      pieces.push(date.piece)
      at = date.to
    } else if (
      token.kind === 'word' &&
      seasonOf(token.text) !== null &&
      number?.kind === 'number' &&
      number.text.length === 4 &&
      !isMark(tokens[at + 1], '-')
    ) {
      pieces.push({ kind: 'field', text: '{term}' })
      at = skipSpace(tokens, at + 1) + 1
    } else if (
      token.kind === 'word' &&
      /^\p{Lu}{2,4}$/u.test(written) &&
      number?.kind === 'number' &&
      number.text.length === 3 &&
      tokens[at + 1]?.kind !== 'mark'
    ) {
      pieces.push({ kind: 'field', text: '{code}' })
      at = skipSpace(tokens, at + 1) + 1
    } else if (
      token.kind === 'number' &&
      token.text.length <= 3 &&
      tokens[at + 1]?.kind !== 'word'
    ) {
      pieces.push({
        kind: 'field',
        text: fieldText(numberField(tokens, at), /^0\d$/.test(token.text) ? '00' : null),
      })
      at += 1
    } else {
      pieces.push({
        kind: token.kind === 'word' || token.kind === 'number' ? 'word' : 'mark',
        text: written,
      })
      at += 1
    }
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
