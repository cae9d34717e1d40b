import { daysBetween } from '../../calendar/index.ts'
import {
  definitionOf,
  isDaySpan,
  isNumberSpan,
  type FieldName,
  type FieldValue,
  type FieldValues,
} from '../fields.ts'
import { foldName } from '../fold.ts'
import { writeField } from '../render.ts'
import { conceptsOf } from '../words/labels.ts'
import { codesSaid, seasonAndYear, termsSaid, wordsSaid, type SaidCode } from './courseWords.ts'
import type { FormatPlan, PlannedField } from './formatPlan.ts'
import { labelledNumbers, labelLikeness, numberAt } from './labelledNumbers.ts'
import { classSectionLeftOvers, copyLeftOvers } from './leftOvers.ts'
import { datesSaid, type SaidDates } from './saidDates.ts'
import { isMark, skipSpace, withBrackets, type Stretch, type Token } from './tokens.ts'

/** How a stretch was recognised; each way has its own weight and its own words. */
export type How =
  | 'plain'
  | 'short'
  | 'typed'
  | 'bare'
  | 'another-stretch'
  | 'part-of'
  | 'start-only'
  | 'copy'
  | 'class-section'
  | 'not-asked'

/** A stretch of a name that may be the value of a field, a word of the format, or something to leave out. */
export interface Candidate extends Stretch {
  /** What it fills: a field, `fixed:N`, or `out:N` for what the format does not ask for. One of each is taken. */
  slot: string
  field: FieldName | null
  how: How
  value: FieldValue | null
  /** Log-odds that this is what it seems, set by hand: higher for what is hard to write by accident. */
  weight: number
  /** Every way of reading a date. */
  dates: SaidDates['readings'] | null
}

/** What is known of a name before its place is chosen. */
export interface Recognised {
  tokens: readonly Token[]
  candidates: readonly Candidate[]
  otherCode: SaidCode | null
}

export interface Surroundings {
  name: string
  origin: readonly number[]
  plan: FormatPlan
  /** Values that are the same at every place: the course's. */
  common: FieldValues
  near: string
  classSections: readonly string[]
}

export const mostOfASlot = 4

/** Finds everything in a name that its format, or the way names are copied and merged, gives a meaning to. */
export const recognise = (tokens: readonly Token[], around: Surroundings): Recognised => {
  const { plan, common, name, origin, near } = around
  const candidates: Candidate[] = []
  let out = 0
  const add = (
    slot: string | null,
    field: FieldName | null,
    how: How,
    stretch: Stretch,
    value: FieldValue | null,
    weight: number,
    dates: Candidate['dates'] = null,
  ) => {
    candidates.push({
      slot: slot ?? `out:${out++}`,
      field,
      how,
      value,
      weight,
      dates,
      from: stretch.from,
      to: stretch.to,
    })
  }

  const codes = typeof common.code === 'string' ? codesSaid(tokens, name, origin, common.code) : []
  for (const code of codes)
    if (code.own)
      add(
        plan.has('code') ? 'code' : null,
        'code',
        plan.has('code') ? 'plain' : 'not-asked',
        code,
        common.code ?? null,
        plan.has('code') ? 5 : 2,
      )
  for (const planned of plan.fields) addField(planned, tokens, around, add)
  if (!plan.has('week'))
    for (const said of labelledNumbers(tokens, ['week']))
      if (said.likeness !== 'another-stretch')
        add(null, 'week', 'not-asked', withBrackets(tokens, said), said.value, 0)
  if (!plan.fields.some(({ step }) => step.type === 'date' || step.type === 'range'))
    for (const said of datesSaid(tokens, near))
      add(null, 'dates', 'not-asked', said, null, 0, said.readings)
  if (plan.has('unit') && !plan.has('weeks'))
    addNumberSpan(null, 'weeks', 'not-asked', ['weeks'], tokens, add)
  // Beside words of the instructor's own a term may be one of them.
  if (!plan.has('term') && !plan.has('topic') && typeof common.term === 'string')
    for (const said of termsSaid(tokens))
      add(null, 'term', 'not-asked', said, `${said.season} ${said.year}`, 0)
  plan.fixed.forEach((word, i) => {
    tokens.forEach((token, at) => {
      const likeness = token.kind === 'word' ? labelLikeness(token.text, word) : null
      if (
        likeness === null ||
        (likeness !== 'same' && (word.length <= 3 || token.text.length <= 2))
      )
        return
      add(
        `fixed:${i}`,
        null,
        likeness === 'same' ? 'plain' : likeness,
        { from: at, to: at + 1 },
        null,
        word.length <= 3 ? 0.6 : likeness === 'same' ? 2 : 1.6,
      )
    })
  })
  for (const left of copyLeftOvers(tokens)) add(null, null, 'copy', left, null, 1.5)
  if (!plan.has('classSection'))
    for (const left of classSectionLeftOvers(
      tokens,
      around.classSections,
      codes.map((code) => code.to),
    ))
      add(null, null, 'class-section', left, null, 1.5)
  return { tokens, candidates, otherCode: codes.find((code) => !code.own) ?? null }
}

type Add = (
  slot: string | null,
  field: FieldName | null,
  how: How,
  stretch: Stretch,
  value: FieldValue | null,
  weight: number,
  dates?: Candidate['dates'],
) => void

const addField = (
  planned: PlannedField,
  tokens: readonly Token[],
  around: Surroundings,
  add: Add,
): void => {
  const { field, step, after } = planned
  const { common, near } = around
  switch (step.type) {
    case 'integer':
      // The format's own word may stand apart from the number: `Wk 3 Disc.` for `Discussion {week}`.
      if (
        planned.wordBefore !== null &&
        planned.before.length > 1 &&
        labelLikeness(planned.wordBefore, planned.before[1] ?? '') === null
      ) {
        const word = planned.wordBefore
        tokens.forEach((token, at) => {
          const likeness = token.kind === 'word' ? labelLikeness(token.text, word) : null
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
      for (const said of labelledNumbers(tokens, planned.choices))
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
      for (const said of labelledNumbers(tokens, planned.before))
        add(
          field,
          field,
          said.likeness === 'same' ? 'plain' : said.likeness,
          said,
          said.value,
          said.likeness === 'another-stretch'
            ? 1.5
            : tokens[said.label]?.text.length === 1
              ? 3.6
              : 4.4,
        )
      if (after.length > 0) addAfterLabelled(planned, tokens, add)
      else addBare(planned, tokens, add)
      return
    case 'span':
      addNumberSpan(field, field, 'plain', planned.before, tokens, add)
      return
    case 'letter':
      tokens.forEach((token, at) => {
        if (token.kind !== 'word' || token.text.length !== 1) return
        let before = at - 1
        while (tokens[before]?.kind === 'space' || isMark(tokens[before], '-')) before -= 1
        if (tokens[before]?.kind === 'number' || numberAt(tokens, before))
          add(field, field, 'plain', { from: at, to: at + 1 }, token.text.toUpperCase(), 2)
      })
      return
    case 'range':
    case 'date':
      for (const said of datesSaid(tokens, near)) {
        const due = field === 'due' ? withDueWord(tokens, said) : said
        add(
          field,
          field,
          said.readings.some((reading) => reading.last !== null) || step.type === 'date'
            ? 'plain'
            : 'start-only',
          due,
          null,
          due.from === said.from && step.type === 'date' ? 2 : 3,
          said.readings,
        )
      }
      return
    case 'choice':
      for (const choice of (step.style ?? '').split('|').map((one) => one.trim())) {
        const word = foldName(choice).text
        tokens.forEach((token, at) => {
          const likeness = token.kind === 'word' ? labelLikeness(token.text, word) : null
          if (likeness !== null && (likeness === 'same' || token.text.length > 1))
            add(
              field,
              field,
              likeness === 'same' ? 'plain' : likeness,
              { from: at, to: at + 1 },
              choice,
              likeness === 'same' ? 3 : 2.4,
            )
        })
      }
      return
    case 'term': {
      const known = typeof common.term === 'string' ? common.term : null
      const whole = known === null ? null : wordsSaid(tokens, foldName(known).text)
      if (whole && whole.share === 1)
        add(field, field, whole.exact ? 'plain' : 'typed', whole, known, 5)
      for (const said of termsSaid(tokens))
        add(field, field, 'plain', said, `${said.season} ${said.year}`, 3)
      return
    }
    case 'text': {
      const known = common[field]
      if (typeof known !== 'string' || known === '' || definitionOf(field).own) return
      if (field === 'classSection')
        return addClassSections(tokens, around.classSections, known, add)
      const said = wordsSaid(tokens, foldName(known).text, field === 'instructor')
      // Half a person's name may be another person's.
      if (said && (field !== 'instructor' || said.share === 1))
        add(
          field,
          field,
          said.exact ? 'plain' : said.share === 1 ? 'typed' : 'part-of',
          said,
          known,
          4 * said.share,
        )
      return
    }
    case 'code':
      return
  }
}

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

/** `Weeks 1–4`, `wks 5 to 8`, `W1-4`. */
const addNumberSpan = (
  slot: string | null,
  field: FieldName,
  how: How,
  before: readonly string[],
  tokens: readonly Token[],
  add: Add,
): void => {
  tokens.forEach((token, at) => {
    if (
      token.kind !== 'word' ||
      !before.some(
        (label) =>
          labelLikeness(token.text, label) !== null ||
          [...conceptsOf(token.text)].some((concept) => label.startsWith(concept)),
      )
    )
      return
    const first = isMark(tokens[at + 1], '.')
      ? skipSpace(tokens, at + 2)
      : skipSpace(tokens, at + 1)
    if (tokens[first]?.kind !== 'number') return
    const join = skipSpace(tokens, first + 1)
    const joins =
      isMark(tokens[join], '-') ||
      ['to', 'through', 'thru', 'a', 'al', 'au', 'and'].includes(tokens[join]?.text ?? '')
    const last = joins ? skipSpace(tokens, join + 1) : -1
    const to = tokens[last]?.kind === 'number' ? last : first
    add(
      slot,
      field,
      how,
      withBrackets(tokens, { from: at, to: to + 1 }),
      { from: Number(tokens[first].text), to: Number(tokens[to]?.text) },
      how === 'not-asked' ? 0 : to === first ? 1 : 5,
    )
  })
}

const addClassSections = (
  tokens: readonly Token[],
  classSections: readonly string[],
  known: string,
  add: Add,
): void => {
  const all = classSectionLeftOvers(
    tokens,
    classSections,
    tokens.flatMap((token, at) =>
      token.kind === 'space' || token.kind === 'mark' ? [at + 1] : [],
    ),
  )
  for (const said of all) {
    const count = tokens
      .slice(said.from, said.to)
      .filter((token) =>
        classSections.some((section) => section.toLowerCase() === token.text),
      ).length
    add(
      'classSection',
      'classSection',
      count === classSections.length ? 'plain' : 'part-of',
      withBrackets(tokens, said),
      known,
      1.5 + count,
    )
  }
}

const dueIntro = new Set(['due', 'by', 'on', 'remise', 'entrega', 'rendre', 'a', 'le', 'el', 'for'])
const withDueWord = (tokens: readonly Token[], said: Stretch): Stretch => {
  let from = said.from
  for (;;) {
    const before = tokens[from - 1]?.kind === 'space' ? from - 2 : from - 1
    if (tokens[before]?.kind !== 'word' || !dueIntro.has(tokens[before]?.text ?? '')) break
    from = before
  }
  return from === said.from ? said : withBrackets(tokens, { from, to: said.to })
}

/** The reading of written dates that fits a place best, and how well: 3 just so, 1 a few days off, −1 elsewhere. */
export const fitDates = (
  readings: SaidDates['readings'],
  wanted: FieldValue | undefined,
): { reading: SaidDates['readings'][number] | null; fit: number } => {
  let best: { reading: SaidDates['readings'][number] | null; fit: number } = {
    reading: readings[0] ?? null,
    fit: wanted === undefined ? 0.5 : -1,
  }
  if (wanted === undefined) return best
  const [first, last] = isDaySpan(wanted) ? [wanted.first, wanted.last] : [String(wanted), null]
  for (const reading of readings) {
    const fit = fitOf(reading, first, last)
    if (fit > best.fit) best = { reading, fit }
  }
  return best
}
const fitOf = (
  reading: SaidDates['readings'][number],
  first: string,
  last: string | null,
): number => {
  if (reading.first === first && (last === null || reading.last === last)) return 3
  if (reading.first === first && reading.last === null) return 1.5
  return near(reading.first, first) &&
    (last === null || reading.last === null || near(reading.last, last))
    ? 1
    : -1
}
const near = (a: string, b: string): boolean => a === b || Math.abs(daysBetween(a, b)) <= 4

/** How much the place speaks for a candidate, beside its own weight. */
export const placeWeight = (candidate: Candidate, place: FieldValues): number => {
  const { field, value, dates, how } = candidate
  if (field === null) return 0
  const wanted = place[field]
  if (dates) {
    const { fit } = fitDates(dates, how === 'not-asked' ? (place.dates ?? place.due) : wanted)
    if (how === 'not-asked') return fit >= 1.5 ? 1 : -9
    return how === 'start-only' && fit < 1.5 ? -9 : fit
  }
  if (how === 'not-asked' && isNumberSpan(value ?? undefined))
    return sameSpan(value, wanted) ? 1 : -9
  if (how === 'not-asked')
    return field === 'code' ||
      (field === 'term'
        ? sameTerm(String(value), place.term)
        : wanted !== undefined && Number(value) === Number(wanted))
      ? 1
      : -9
  if (wanted === undefined || value === null) return 0
  if (field === 'term') return sameTerm(String(value), wanted) ? 1 : 0
  if (isNumberSpan(value)) return sameSpan(value, wanted) ? 2 : -1
  if (typeof value === 'number')
    return value === Number(wanted) ? 3 : how === 'bare' || how === 'another-stretch' ? -4 : -2.5
  return value === wanted ? 2 : -1
}

/** Whether two values are the same span of numbers. */
export const sameSpan = (
  a: FieldValue | null | undefined,
  b: FieldValue | null | undefined,
): boolean =>
  isNumberSpan(a ?? undefined) &&
  isNumberSpan(b ?? undefined) &&
  writeField('weeks', null, a ?? '') === writeField('weeks', null, b ?? '')

export const sameTerm = (said: string, wanted: FieldValue | undefined): boolean => {
  if (typeof wanted !== 'string') return false
  if (said === wanted) return true
  const term = seasonAndYear(wanted)
  return term !== null && said === `${term.season} ${term.year}`
}
