import { conceptsOf, isItemKind, isStretch } from '../words/labels.ts'
import { isMistyped, isShortFor } from '../words/likeness.ts'
import { cardinalOf, isOrdinalSuffix, ordinalOf, romanOf } from '../words/numbers.ts'
import { isMark, isWord, skipSpace, type Stretch, type Token } from './tokens.ts'

/** A number as a name says it: which value, and over which tokens. */
export interface SaidNumber extends Stretch {
  value: number
}

const numero = ['no', 'n', 'nr', 'num', 'number', 'numero']

/** A number at an index: digits (with an ordinal's ending), a roman numeral or a word. */
export const numberAt = (tokens: readonly Token[], at: number, words = true): SaidNumber | null => {
  const token = tokens[at]
  if (token?.kind === 'number' && token.text.length <= 3) {
    let to = at + 1
    if (
      isMark(tokens[to], '.') &&
      tokens[to + 1]?.kind === 'word' &&
      ['a', 'o'].includes(tokens[to + 1]?.text ?? '') &&
      tokens[to + 2]?.kind !== 'word'
    )
      to += 2
    else if (
      tokens[to]?.kind === 'word' &&
      isOrdinalSuffix(tokens[to]?.text ?? '') &&
      tokens[to]?.text !== 'a'
    )
      to += 1
    else if (isMark(tokens[to], '°')) to += 1
    return { value: Number(token.text), from: at, to }
  }
  if (token?.kind !== 'word' || !words) return null
  const value = cardinalOf(token.text) ?? romanOf(token.text)
  return value === null ? null : { value, from: at, to: at + 1 }
}

/** The number that follows a label at an index: `wk 3`, `quiz #3`, `Unit no. 3`, `Week-8`, `reading (3)`, `Week 3 of 8`. */
const numberAfter = (tokens: readonly Token[], label: number): SaidNumber | null => {
  let at = label + 1
  const word = tokens[label]?.text ?? ''
  if (word.length === 1) {
    const tight = numberAt(tokens, at, false)
    return tight && { ...tight, from: label }
  }
  if (isMark(tokens[at], '.')) at += 1
  else if (isMark(tokens[at], '-_:/') && tokens[at + 1]?.kind !== 'space') at += 1
  at = skipSpace(tokens, at)
  if (numero.includes(tokens[at]?.text ?? '') && tokens[at]?.kind === 'word') {
    at += 1
    while (isMark(tokens[at], '.°º')) at += 1
    if (isWord(tokens[at], 'o')) at += 1
    at = skipSpace(tokens, at)
  }
  if (isMark(tokens[at], '#')) at = skipSpace(tokens, at + 1)
  const bracket = isMark(tokens[at], '([')
  const said = numberAt(tokens, bracket ? at + 1 : at)
  if (!said || (bracket && !isMark(tokens[said.to], ')]'))) return null
  let to = bracket ? said.to + 1 : said.to
  const of = skipSpace(tokens, to)
  if (isWord(tokens[of], 'of', 'de', 'sur') && tokens[skipSpace(tokens, of + 1)]?.kind === 'number')
    to = skipSpace(tokens, of + 1) + 1
  return { value: said.value, from: label, to }
}

/** The ordinal before a label: `3rd week`, `third week`, `2e semaine`, `1.ª semana`. */
const ordinalBefore = (tokens: readonly Token[], label: number): SaidNumber | null => {
  const at = tokens[label - 1]?.kind === 'space' ? label - 2 : -1
  const token = tokens[at]
  if (token?.kind !== 'word') return null
  const word = ordinalOf(token.text)
  if (word !== null) return { value: word, from: at, to: label + 1 }
  const digits = isMark(tokens[at - 1], '.') ? at - 2 : at - 1
  return isOrdinalSuffix(token.text) && tokens[digits]?.kind === 'number'
    ? { value: Number(tokens[digits].text), from: digits, to: label + 1 }
    : null
}

/** How a word stands to a label: the very word or another for it, shortened, mistyped, or not at all. */
export const labelLikeness = (word: string, label: string): 'same' | 'short' | 'typed' | null => {
  if (word === label) return 'same'
  const wanted = conceptsOf(label)
  for (const concept of conceptsOf(word))
    if (wanted.has(concept) || concept === label)
      return word.length <= 3 || word.length < label.length - 2 ? 'short' : 'same'
  if (
    word.length >= 2 &&
    label.length >= 4 &&
    isShortFor(word, label) &&
    conceptsOf(word).size === 0
  )
    return 'short'
  return isMistyped(word, label) ? 'typed' : null
}

export interface LabelledNumber extends SaidNumber {
  /** Index of the token that labels it. */
  label: number
  likeness: 'same' | 'short' | 'typed' | 'another-stretch'
}

/**
 * Every number that a label of these gives, in order; also those of another word for a stretch of a course (a module for
 * a week) where one of the labels is such a word.
 */
export const labelledNumbers = (
  tokens: readonly Token[],
  labels: readonly string[],
): LabelledNumber[] => {
  const found: LabelledNumber[] = []
  const stretch = labels.some((label) => [...conceptsOf(label)].some(isStretch))
  tokens.forEach((token, at) => {
    if (token.kind !== 'word') return
    let likeness: LabelledNumber['likeness'] | null = null
    for (const label of labels) likeness ??= labelLikeness(token.text, label)
    likeness ??=
      stretch && token.text.length > 1 && [...conceptsOf(token.text)].some(isStretch)
        ? 'another-stretch'
        : null
    if (likeness === null) return
    const said = ordinalBefore(tokens, at) ?? numberAfter(tokens, at)
    if (said) found.push({ value: said.value, from: said.from, to: said.to, label: at, likeness })
  })
  return found
}

/** A kind of item that a name claims to be (`Quiz 3 …`, `Lab: …`) and that is none of these concepts, or null. */
export const otherKindSaid = (
  tokens: readonly Token[],
  own: ReadonlySet<string>,
): string | null => {
  const first = tokens.findIndex((token) => token.kind === 'word')
  for (const [at, token] of tokens.entries()) {
    if (token.kind !== 'word' || token.text.length < 3) continue
    const concepts = [...conceptsOf(token.text)]
    if (!concepts.some(isItemKind) || concepts.some((concept) => own.has(concept))) continue
    const heads = at === first && isMark(tokens[skipSpace(tokens, at + 1)], ':-')
    if (heads || numberAfter(tokens, at) || ordinalBefore(tokens, at)) return token.text
  }
  return null
}
