import { definitionOf, type FieldValues } from '../fields.ts'
import { differencesBetween, foldName, type Folded } from '../fold.ts'
import { longestName, type NamingFormat } from '../format.ts'
import { readName, type NameReading } from '../read.ts'
import { conceptsOf } from '../words/labels.ts'
import { recognise } from './recognise.ts'
import type { Choice } from './choose.ts'
import { planOf, type FormatPlan } from './formatPlan.ts'
import { unreadable, type NameContext, type NameJudgement } from './judgement.ts'
import { otherKindSaid } from './labelledNumbers.ts'
import { copyLeftOvers } from './leftOvers.ts'
import { leftWords, type LeftWords } from './ownWords.ts'
import { bestPlace, commonOf, placesOfReading } from './places.ts'
import { tokensOf, type Token } from './tokens.ts'
import { writeAnew } from './writeAnew.ts'

/**
 * Judges a name by a format: whether it follows it, differs in ways that do not matter, can be mended, or cannot be read.
 * Typed spans are recognised however they are written, the heaviest that do not overlap are chosen for the place, and
 * what is left is the instructor's own. Every mended name is read back before it is given. Pure, and linear in the
 * length of the name; a name beyond 2,000 characters is refused.
 */
export const judgeName = (
  format: NamingFormat,
  name: string,
  context: NameContext,
): NameJudgement => judgeAt(format, name, context, 1)

const judgeAt = (
  format: NamingFormat,
  name: string,
  context: NameContext,
  round: number,
): NameJudgement => {
  if (name.length > longestName) return unreadable([{ code: 'too-long' }])
  const { places } = context
  const common = commonOf(places)
  const reading = readName(format, name, common)
  const plan = planOf(format)
  const folded = foldName(name)
  const tokens = tokensOf(folded.text)
  let settled: NameJudgement | null = null
  if (reading) {
    const fitting = places.length === 1 ? [0] : placesOfReading(reading, places)
    for (const place of fitting) {
      const here = places.length === 1 ? reading : readName(format, name, places[place] ?? {})
      const found = here && settledBy(here, name, place, places[place] ?? {})
      if (
        found &&
        (fitting.length === 1 || found.fields.every((field) => field.state === 'right'))
      ) {
        settled = found
        break
      }
    }
    if (settled && !mayHoldMore(reading, tokens)) return settled
  }
  const mended = mendAt(format, name, context, round, { plan, folded, tokens, common })
  // What follows already is only changed where something is surely left over in it.
  return settled && !(mended.verdict === 'mendable' && takesOut(mended, reading)) ? settled : mended
}

const separatorAtEdge = /^[-–—:;,.·|/~>]|[-–—:;,·|/~>]$/
/** Whether mending took something out of a name that follows, a left-over or separators at the edge of its own words, and left words of its own in it. */
const takesOut = (mended: NameJudgement, reading: NameReading | null): boolean =>
  !mended.reasons.some(
    (reason) =>
      reason.code === 'no-own-words' ||
      (reason.code === 'supplied' && definitionOf(reason.field).own),
  ) &&
  (mended.reasons.some((reason) => reason.code === 'left-out') ||
    (reading?.readings.some(
      (reading) => definitionOf(reading.field).own && separatorAtEdge.test(reading.text),
    ) ??
      false))

interface Taken {
  plan: FormatPlan
  folded: Folded
  tokens: readonly Token[]
  common: FieldValues
}

const mendAt = (
  format: NamingFormat,
  name: string,
  context: NameContext,
  round: number,
  { plan, folded, tokens, common }: Taken,
): NameJudgement => {
  const { places } = context
  const recognised = recognise(tokens, {
    name,
    origin: folded.origin,
    plan,
    common,
    near: context.near,
    classSections: context.classSections,
    placeSure: context.placeSure ?? false,
  })
  if (
    recognised.otherCode &&
    !context.placeSure &&
    (plan.has('code') ||
      tokens.findIndex((token) => token.kind === 'word' || token.kind === 'number') ===
        recognised.otherCode.from)
  )
    return unreadable([{ code: 'another-course', text: recognised.otherCode.text }])
  const { best, place, rival } = bestPlace(recognised, folded.text, places)
  if (place === null) return unreadable([{ code: 'no-such-place' }])
  const otherKind = otherKindSaid(tokens, plan.concepts)
  if (otherKind && !labelFound(best, plan))
    return unreadable([{ code: 'another-kind', text: otherKind }], [], place)
  const left = leftWords(tokens, best.chosen, name, folded.origin)
  const written = writeAnew({
    format,
    name,
    plan,
    place,
    values: places[place] ?? {},
    recognised,
    choice: best,
    left,
    rival,
    placeKnown: places.length === 1,
    placeSure: context.placeSure ?? false,
    near: context.near,
    origin: folded.origin,
  })
  return written.verdict === 'mendable' && mayLeaveMore(left)
    ? mendedFurther(written, format, { ...context, places: [places[place] ?? {}] }, round)
    : written
}

/** Whether the instructor's own words of a reading may hold what is not theirs: separators at an edge, left-overs, dates, numbers. */
const mayHoldMore = (reading: NameReading, tokens: readonly Token[]): boolean =>
  copyLeftOvers(tokens).length > 0 ||
  reading.readings.some(
    (reading) =>
      definitionOf(reading.field).own &&
      !reading.isPrompt &&
      reading.text !== '' &&
      (/\d/.test(reading.text) || separatorAtEdge.test(reading.text)),
  )

/** A name that follows, with everything right that is known, or only a prompt left to fill. */
const settledBy = (
  reading: NameReading,
  name: string,
  place: number,
  values: FieldValues,
): NameJudgement | null => {
  if (reading.readings.some((reading) => reading.state === 'wrong')) return null
  // A prompt for which the context has a value is mended; one for the instructor's own words waits for them.
  if (
    reading.readings.some(
      (reading) =>
        reading.isPrompt && values[reading.field] !== undefined && values[reading.field] !== '',
    )
  )
    return null
  const exact = reading.follows === 'exact'
  return {
    verdict: reading.follows === 'exact' ? 'follows' : 'small-differences',
    fields: reading.readings,
    differences: exact ? [] : differencesBetween(name, reading.tidied),
    mended: reading.tidied,
    confidence: exact ? 1 : 0.99,
    reasons: [],
    place,
  }
}

/** Whether one of the words of the format that say what the name is of was found. */
const labelFound = (choice: Choice, plan: FormatPlan): boolean =>
  choice.chosen.some(({ how, slot, field }) => {
    if (how === 'another-stretch' || how === 'bare' || how === 'not-asked') return false
    if (slot.startsWith('fixed:'))
      return [...conceptsOf(plan.fixed[Number(slot.slice(6))] ?? '')].length > 0
    return (
      field !== null &&
      (field === 'kind' ||
        plan.fields.some((planned) => planned.field === field && planned.labelled))
    )
  })

/** Whether words that were kept may still hold what is not theirs: a copy of a copy, a second date. */
const mayLeaveMore = (left: LeftWords): boolean =>
  left.joined || /\p{N}|cop|[)）]$/iu.test(left.text)

const mostRounds = 8

/**
 * Mends what was mended until it stays: a copy of a copy has left more than one thing behind, and words that stood apart
 * may now say something together.
 */
const mendedFurther = (
  judged: NameJudgement,
  format: NamingFormat,
  context: NameContext,
  round: number,
): NameJudgement => {
  if (judged.mended === null) return judged
  if (round >= mostRounds)
    return unreadable([...judged.reasons, { code: 'would-not-read' }], judged.fields, judged.place)
  const again = judgeAt(format, judged.mended, context, round + 1)
  if (again.mended === judged.mended) return judged
  return {
    ...judged,
    verdict: again.mended === null ? 'unreadable' : 'mendable',
    mended: again.mended,
    confidence: Math.round(judged.confidence * again.confidence * 1000) / 1000,
    reasons: [...judged.reasons, ...again.reasons],
  }
}
