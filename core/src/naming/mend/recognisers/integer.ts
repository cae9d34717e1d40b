import { monthOfWord } from '../../../calendar/index.ts'
import { withBrackets, isMark, skipSpace, type Token } from '../tokens.ts'
import type { Add, Surroundings } from '../candidates.ts'
import { codesSaid } from '../courseWords.ts'
import type { PlannedField } from '../formatPlan.ts'
import { labelledNumbers, labelLikeness, numberAt, type SaidNumber } from '../labelledNumbers.ts'
import type { Recogniser } from './recogniser.ts'

/** A number: with its label before or after it, or bare. */
export const integer: Recogniser = (planned, tokens, around, add) => {
  addLabelApart(planned, tokens, add)
  addLabelled(planned, tokens, add)
  if (planned.after.length > 0) addAfterLabelled(planned, tokens, add)
  else addBare(planned, tokens, around, add)
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

/**
 * A number that nothing labels: where the format puts it, at the beginning, or in brackets at the end. Numbers may follow
 * a course code, other numbers and what labels them, but no other word.
 */
const addBare = (
  planned: PlannedField,
  tokens: readonly Token[],
  around: Surroundings,
  add: Add,
): void => {
  const { field, labelled } = planned
  const weight = labelled ? 0.5 : 2
  const whole = ({ from, to }: SaidNumber) => ({ from: withNumero(tokens, from), to })
  let leading = true
  tokens.forEach((token, at) => {
    if (token.kind === 'space' || token.kind === 'mark') return
    const said = isDayOfMonth(tokens, at) ? null : numberAt(tokens, at, leading && !labelled)
    if (said && !labelled && isWhereItBelongs(planned, tokens, said, leading))
      add(field, field, 'plain', withBrackets(tokens, whole(said)), said.value, 4.4)
    else if (said && leading && standsAlone(tokens, said))
      add(field, field, 'bare', withBrackets(tokens, whole(said)), said.value, weight)
    else if (said && isBracketedAtEnd(tokens, said))
      add(field, field, 'bare', { from: at - 1, to: said.to + 1 }, said.value, weight - 1)
    leading &&= letsNumbersFollow(tokens, at, around)
  })
}

/** Whether a number says the day of a month: `Oct 4`, `Oct. 4`. */
const isDayOfMonth = (tokens: readonly Token[], at: number): boolean => {
  let before = tokens[at - 1]?.kind === 'space' ? at - 2 : at - 1
  if (isMark(tokens[before], '.')) before -= 1
  const word = tokens[before]
  return word?.kind === 'word' && tokens[at]?.kind === 'number' && monthOfWord(word.text) !== null
}

/** No part of a word: neither `3rd` nor `3-point`. */
const standsAlone = (tokens: readonly Token[], { to }: SaidNumber): boolean =>
  tokens[to]?.kind !== 'word' && !(isMark(tokens[to], '-') && tokens[to + 1]?.kind === 'word')

const isBracketedAtEnd = (tokens: readonly Token[], { from, to }: SaidNumber): boolean =>
  isMark(tokens[from - 1], '(') && isMark(tokens[to], ')') && to + 1 >= tokens.length

/** Whether the number of the place may still follow a token: a number, what says that one follows, the format’s own words, or a course code. */
const letsNumbersFollow = (
  tokens: readonly Token[],
  at: number,
  { common, name, origin, plan }: Surroundings,
): boolean =>
  tokens[at]?.kind !== 'word' ||
  ['no', 'n', 'nr', 'num', ...plan.fixed].includes(tokens[at].text) ||
  (isMark(tokens[at + 1], '-_.') && tokens[at + 2]?.kind === 'number') ||
  (typeof common.code === 'string' &&
    codesSaid(tokens, name, origin, common.code).some(({ from, to }) => from <= at && at < to))

/**
 * Whether a number stands as a format without words writes it, so that it is the number of this place even where it is
 * the wrong one: `05 / Knots`, `5. Knots`, `Knots (5)`; where the format has a blank after it, with a zero before it.
 */
const isWhereItBelongs = (
  { marks, step }: PlannedField,
  tokens: readonly Token[],
  { from, to }: SaidNumber,
  leading: boolean,
): boolean => {
  const before = tokens[from - 1]?.kind === 'space' ? from - 2 : from - 1
  const after = skipSpace(tokens, to)
  const begins =
    marks.before !== null && marks.before !== '' && isMark(tokens[before], marks.before)
  if (!leading && !begins) return false
  if (after >= tokens.length) return marks.after === null
  if (isMark(tokens[after], ')]')) return begins && marks.after === tokens[after]?.text
  if (marks.after === '' && tokens[after]?.kind === 'word')
    return after > to && step.style === '00' && tokens[from]?.text.startsWith('0') === true
  return marks.after !== null && isMark(tokens[after], separators) && !goesOn(tokens, after)
}

const separators = '-:;,.·|/~>_'
/** Whether what a mark parts from a number may be more of it: a fraction, a date, a range. */
const goesOn = (tokens: readonly Token[], mark: number): boolean =>
  tokens[mark + 1]?.kind === 'number' ||
  (isMark(tokens[mark], '-') &&
    (tokens[skipSpace(tokens, mark + 1)]?.kind === 'number' ||
      (tokens[mark - 1]?.kind !== 'space' && tokens[mark + 1]?.kind === 'word')))

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
