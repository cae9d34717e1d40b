import { termsSaid, codesSaid, type SaidCode } from './courseWords.ts'
import type { Add, Candidate, Recognised, Surroundings } from './candidates.ts'
import { compactRangesSaid } from './compactRanges.ts'
import { labelledNumbers, labelLikeness } from './labelledNumbers.ts'
import { classSectionLeftOvers, copyLeftOvers } from './leftOvers.ts'
import { choice } from './recognisers/choice.ts'
import { dates } from './recognisers/dates.ts'
import { integer } from './recognisers/integer.ts'
import { letter } from './recognisers/letter.ts'
import { addNumberSpan, numberSpan } from './recognisers/numberSpan.ts'
import type { Recogniser } from './recognisers/recogniser.ts'
import { term } from './recognisers/term.ts'
import { text } from './recognisers/text.ts'
import type { PlannedField } from './formatPlan.ts'
import { datesSaid } from './saidDates.ts'
import { tokensOf, withBrackets, type Token } from './tokens.ts'

/** How values of each type are found. A course code is found before all of them. */
const recognisers: Readonly<Record<PlannedField['step']['type'], Recogniser | null>> = {
  integer,
  span: numberSpan,
  letter,
  range: dates,
  date: dates,
  choice,
  term,
  text,
  code: null,
}

/** Words of the format that label no number, as they stand or as they are shortened and mistyped. */
const addFixedWords = (fixed: readonly string[], tokens: readonly Token[], add: Add): void =>
  fixed.forEach((word, i) =>
    tokens.forEach((token, at) => {
      const likeness = token.kind === 'word' ? labelLikeness(token.text, word) : null
      const isTooShort = word.length <= 3 || token.text.length <= 2
      if (likeness === null || (likeness !== 'same' && isTooShort)) return
      add(
        `fixed:${i}`,
        null,
        likeness === 'same' ? 'plain' : likeness,
        { from: at, to: at + 1 },
        null,
        word.length <= 3 ? 0.6 : likeness === 'same' ? 2 : 1.6,
      )
    }),
  )

/** Prompts that stand where a value is to be: `[topic]` waits, and is nobody's word. */
const addPrompts = (plan: Surroundings['plan'], tokens: readonly Token[], add: Add): void => {
  for (const { field, step } of plan.fields) {
    const prompt = tokensOf(step.prompt)
    tokens.forEach((_, at) => {
      if (prompt.every(({ text }, i) => tokens[at + i]?.text === text))
        add(`prompt:${field}`, null, 'plain', { from: at, to: at + prompt.length }, null, 5)
    })
  }
}

/** The course's own code; another's only where it is sure that the name stands in this course by mistake. */
const addCodes = (
  codes: readonly SaidCode[],
  { common, placeSure, plan }: Surroundings,
  add: Add,
): void => {
  for (const code of codes.filter(({ own }) => own || placeSure)) {
    const value = code.own ? (common.code ?? null) : code.text
    if (plan.has('code')) add('code', 'code', 'plain', code, value, 5)
    else add(null, 'code', 'not-asked', code, value, 2)
  }
}

/** What the format does not ask for, and instructors write all the same. */
const addNotAsked = (
  tokens: readonly Token[],
  { common, near, plan }: Surroundings,
  add: Add,
): void => {
  if (!plan.has('week'))
    for (const said of labelledNumbers(tokens, ['week']))
      if (said.likeness !== 'another-stretch')
        add(null, 'week', 'not-asked', withBrackets(tokens, said), said.value, 0)
  if (!plan.fields.some(({ step }) => step.type === 'date' || step.type === 'range'))
    for (const said of [...datesSaid(tokens, near), ...compactRangesSaid(tokens, near)])
      add(null, 'dates', 'not-asked', said, null, 0, said.readings)
  if (plan.has('unit') && !plan.has('weeks'))
    addNumberSpan(null, 'weeks', 'not-asked', ['weeks'], tokens, add)
  // Beside words of the instructor's own a term may be one of them.
  if (!plan.has('term') && !plan.has('topic') && typeof common.term === 'string')
    for (const said of termsSaid(tokens))
      add(null, 'term', 'not-asked', said, `${said.season} ${said.year}`, 0)
}

/** What copying a course, and merging class sections, leaves in names. */
const addLeftOvers = (
  tokens: readonly Token[],
  codes: readonly SaidCode[],
  { classSections, plan }: Surroundings,
  add: Add,
): void => {
  for (const left of copyLeftOvers(tokens)) add(null, null, left.what, left, null, 1.5)
  if (plan.has('classSection')) return
  const ends = codes.map(({ to }) => to)
  for (const left of classSectionLeftOvers(tokens, classSections, ends))
    add(null, null, 'class-section', left, null, 1.5)
}

/** Finds everything in a name that its format, or the way names are copied and merged, gives a meaning to. */
export const recognise = (tokens: readonly Token[], around: Surroundings): Recognised => {
  const { common, name, origin, plan } = around
  const candidates: Candidate[] = []
  let out = 0
  const add: Add = (slot, field, how, { from, to }, value, weight, dates = null) => {
    candidates.push({ slot: slot ?? `out:${out++}`, field, how, value, weight, dates, from, to })
  }
  const codes = typeof common.code === 'string' ? codesSaid(tokens, name, origin, common.code) : []
  addPrompts(plan, tokens, add)
  addCodes(codes, around, add)
  for (const planned of plan.fields) recognisers[planned.step.type]?.(planned, tokens, around, add)
  addNotAsked(tokens, around, add)
  addFixedWords(plan.fixed, tokens, add)
  addLeftOvers(tokens, codes, around, add)
  return { tokens, candidates, otherCode: codes.find(({ own }) => !own) ?? null }
}
