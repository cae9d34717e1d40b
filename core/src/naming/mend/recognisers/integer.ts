import { withBrackets, isMark, skipSpace, type Token } from '../tokens.ts'
import type { Add } from '../candidates.ts'
import type { PlannedField } from '../formatPlan.ts'
import { labelledNumbers, labelLikeness, numberAt } from '../labelledNumbers.ts'
import type { Recogniser } from './recogniser.ts'

/** A number: with its label before or after it, or bare. */
export const integer: Recogniser = (planned, tokens, _around, add) => {
  addLabelApart(planned, tokens, add)
  addLabelled(planned, tokens, add)
  if (planned.after.length > 0) addAfterLabelled(planned, tokens, add)
  else addBare(planned, tokens, add)
}

/** The format's own word may stand apart from the number: `Wk 3 Disc.` for `Discussion {week}`. */
const addLabelApart = (
  { before, field, wordBefore }: PlannedField,
  tokens: readonly Token[],
  add: Add,
): void => {
  if (wordBefore === null || before.length <= 1) return
  if (labelLikeness(wordBefore, before[1] ?? '') !== null) return
  tokens.forEach((token, at) => {
    const likeness = token.kind === 'word' ? labelLikeness(token.text, wordBefore) : null
    if (likeness === 'same' || (likeness === 'short' && token.text.length >= 3))
      add(
        `label:${field}`,
        null,
        likeness === 'same' ? 'plain' : likeness,
        { from: at, to: isMark(tokens[at + 1], '.') ? at + 2 : at + 1 },
        null,
        0.9,
      )
  })
}

const addLabelled = (
  { before, choices, field }: PlannedField,
  tokens: readonly Token[],
  add: Add,
): void => {
  for (const said of labelledNumbers(tokens, choices))
    add(
      field,
      field,
      'plain',
      said.label === said.from
        ? { from: said.label + 1, to: said.to }
        : { from: said.from, to: said.label },
      said.value,
      4,
    )
  for (const said of labelledNumbers(tokens, before))
    add(
      field,
      field,
      said.likeness === 'same' ? 'plain' : said.likeness,
      said,
      said.value,
      labelledWeight(said.likeness, tokens[said.label]?.text ?? ''),
    )
}
const labelledWeight = (likeness: string, label: string): number =>
  likeness === 'another-stretch' ? 1.5 : label.length === 1 ? 3.6 : 4.4

/** `12 minutes`, `20pts`, `15'`: a number with its word after it, and what leads up to it. */
const addAfterLabelled = (
  { field, after }: PlannedField,
  tokens: readonly Token[],
  add: Add,
): void => {
  tokens.forEach((token, at) => {
    if (token.kind !== 'number' || token.text.length > 5) return
    const next = skipSpace(tokens, at + 1)
    const word = tokens[next]
    const prime = field === 'minutes' && isMark(tokens[at + 1], "'")
    const labelled =
      word?.kind === 'word' &&
      after.some(
        (label) =>
          labelLikeness(word.text, label) !== null && (word.text.length > 1 || next === at + 1),
      )
    if (!labelled && !prime) return
    const to = prime ? at + 2 : isMark(tokens[next + 1], '.') ? next + 2 : next + 1
    let from = at
    if (
      tokens[at - 1]?.kind === 'space' &&
      ['worth', 'for', 'in'].includes(tokens[at - 2]?.text ?? '')
    )
      from = at - 2
    add(field, field, 'plain', withBrackets(tokens, { from, to }), Number(token.text), 4.4)
  })
}

/** A number that nothing labels: at the beginning, in brackets at the end, or where the format writes none beside it. */
const addBare = ({ field, labelled }: PlannedField, tokens: readonly Token[], add: Add): void => {
  const weight = labelled ? 0.5 : 2
  let leading = true
  tokens.forEach((token, at) => {
    if (token.kind === 'space' || token.kind === 'mark') return
    const said = numberAt(tokens, at, leading && !labelled)
    const hyphened =
      said !== null && isMark(tokens[said.to], '-') && tokens[said.to + 1]?.kind === 'word'
    const wholeWord = said !== null && tokens[said.to]?.kind !== 'word'
    if (said && leading && wholeWord && !hyphened) {
      add(
        field,
        field,
        'bare',
        withBrackets(tokens, { from: withNumero(tokens, at), to: said.to }),
        said.value,
        weight,
      )
    } else if (
      said &&
      isMark(tokens[at - 1], '(') &&
      isMark(tokens[said.to], ')') &&
      said.to + 1 >= tokens.length
    )
      add(field, field, 'bare', { from: at - 1, to: said.to + 1 }, said.value, weight - 1)
    // Numbers may follow a course code, other numbers and what labels them, but no other word.
    if (
      token.kind === 'word' &&
      !['no', 'n', 'nr', 'num'].includes(token.text) &&
      tokens[at + 1]?.kind !== 'number' &&
      tokens[skipSpace(tokens, at + 1)]?.kind !== 'number'
    )
      leading = leading && isMark(tokens[at + 1], '-_.') && tokens[at + 2]?.kind === 'number'
  })
}

/** Takes in what says that a number follows: `#`, `No.`, `Nº`. */
const withNumero = (tokens: readonly Token[], at: number): number => {
  if (isMark(tokens[at - 1], '#')) return at - 1
  let from = tokens[at - 1]?.kind === 'space' ? at - 1 : at
  while (isMark(tokens[from - 1], '.°')) from -= 1
  if (tokens[from - 1]?.text === 'o' && tokens[from - 2]?.text === 'n') return from - 2
  return tokens[from - 1]?.kind === 'word' &&
    ['no', 'n', 'nr', 'num'].includes(tokens[from - 1]?.text ?? '')
    ? from - 1
    : at
}
