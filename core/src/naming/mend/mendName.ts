import { isDaySpan, isNumberSpan, definitionOf, fieldNames, type FieldName, type FieldValue, type FieldValues } from '../fields.ts'
import { differencesBetween, foldName, type Folded, type SmallDifference } from '../fold.ts'
import { longestName, type NamingFormat } from '../format.ts'
import { readName, type FieldReading, type NameReading } from '../read.ts'
import { renderName, writeField } from '../render.ts'
import { conceptsOf } from '../words/labels.ts'
import { fitDates, recognise, sameSpan, sameTerm, type Candidate, type Recognised } from './candidates.ts'
import { chooseFor, type Choice } from './choose.ts'
import { planOf, type FormatPlan } from './formatPlan.ts'
import { otherKindSaid } from './labelledNumbers.ts'
import { copyLeftOvers } from './leftOvers.ts'
import { leftWords, type LeftWords } from './ownWords.ts'
import type { Reason } from './reasons.ts'
import { tokensOf, type Token } from './tokens.ts'

/** Where a name may stand, and what is known there. */
export interface NameContext {
  /** What the fields should say at each place in question: one when it is known, else all that it may be. */
  places: readonly FieldValues[]
  /** A date `YYYY-MM-DD` of the term, for dates written without a year. */
  near: string
  classSections: readonly string[]
}

export const nameVerdicts = ['follows', 'small-differences', 'mendable', 'unreadable'] as const
export type NameVerdict = (typeof nameVerdicts)[number]

export interface NameJudgement {
  verdict: NameVerdict
  /** In the order of the format: as they stand in a name that follows it, else as far as they could be recovered. */
  fields: FieldReading[]
  differences: SmallDifference[]
  /** The right name, keeping the instructor's own words; null when it cannot be told. */
  mended: string | null
  /** From 0 to 1 that `mended` is the right name; 0 without one. */
  confidence: number
  reasons: Reason[]
  /** Which of the places it was judged at; null when none could be told. */
  place: number | null
}

/** Below this it is a guess, and guesses are not made. */
const leastConfidence = 0.4

const unreadable = (reasons: Reason[], fields: FieldReading[] = [], place: number | null = null): NameJudgement => ({ verdict: 'unreadable', fields, differences: [], mended: null, confidence: 0, reasons, place })

/** Values that are the same wherever the name stands: those of the course. */
const commonOf = (places: readonly FieldValues[]): FieldValues => {
  const [first = {}] = places
  if (places.length === 1) return first
  const known = keptCommon.get(places)
  if (known) return known
  const common: FieldValues = {}
  for (const field of fieldNames) if (definitionOf(field).of === 'course' && first[field] !== undefined) common[field] = first[field]
  keptCommon.set(places, common)
  return common
}
const keptCommon = new WeakMap<readonly FieldValues[], FieldValues>()

const placeFields = ['week', 'unit', 'number', 'day'] as const

/** The places at which numbers of a reading may stand; all of them when it has none. */
const placesOfReading = (reading: NameReading, places: readonly FieldValues[]): number[] => {
  const all = places.map((_, i) => i)
  const said = reading.readings.filter((one) => typeof one.value === 'number' && placeFields.some((field) => field === one.field))
  return all.filter((i) => said.every((one) => places[i]?.[one.field] === undefined || Number(places[i]?.[one.field]) === one.value))
}

/**
 * Judges a name by a format: whether it follows it, differs in ways that do not matter, can be mended, or cannot be read.
 * Typed spans are recognised however they are written, the heaviest that do not overlap are chosen for the place, and
 * what is left is the instructor's own. Every mended name is read back before it is given. Pure, and linear in the
 * length of the name; a name beyond 2,000 characters is refused.
 */
export const judgeName = (format: NamingFormat, name: string, context: NameContext): NameJudgement => judgeAt(format, name, context, 1)

const judgeAt = (format: NamingFormat, name: string, context: NameContext, round: number): NameJudgement => {
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
      if (found && (fitting.length === 1 || found.fields.every((field) => field.state === 'right'))) {
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
/** Whether mending took something out of a name that follows: a left-over, or separators at the edge of its own words. */
const takesOut = (mended: NameJudgement, reading: NameReading | null): boolean =>
  mended.reasons.some((reason) => reason.code === 'left-out') || (reading?.readings.some((one) => definitionOf(one.field).own && separatorAtEdge.test(one.text)) ?? false)

interface Taken {
  plan: FormatPlan
  folded: Folded
  tokens: readonly Token[]
  common: FieldValues
}

const mendAt = (format: NamingFormat, name: string, context: NameContext, round: number, { plan, folded, tokens, common }: Taken): NameJudgement => {
  const { places } = context
  const recognised = recognise(tokens, { name, origin: folded.origin, plan, common, near: context.near, classSections: context.classSections })
  if (recognised.otherCode && (plan.has('code') || tokens.findIndex((token) => token.kind === 'word' || token.kind === 'number') === recognised.otherCode.from)) return unreadable([{ code: 'another-course', text: recognised.otherCode.text }])
  const { best, place, rival } = bestPlace(recognised, folded.text, places)
  if (place === null) return unreadable([{ code: 'no-such-place' }])
  const otherKind = otherKindSaid(tokens, plan.concepts)
  if (otherKind && !labelFound(best, plan)) return unreadable([{ code: 'another-kind', text: otherKind }], [], place)
  const taken = best.chosen
  const left = leftWords(tokens, taken, name, folded.origin)
  return mendedFrom({ format, name, plan, place, values: places[place] ?? {}, recognised, choice: best, left, rival, placeKnown: places.length === 1, origin: folded.origin, context, round })
}

/** Whether the instructor's own words of a reading may hold what is not theirs: separators at an edge, left-overs, dates, numbers. */
const mayHoldMore = (reading: NameReading, tokens: readonly Token[]): boolean =>
  copyLeftOvers(tokens).length > 0 || reading.readings.some((one) => definitionOf(one.field).own && !one.isPrompt && one.text !== '' && (/\d/.test(one.text) || separatorAtEdge.test(one.text)))

/** A name that follows, with everything right that is known, or only a prompt left to fill. */
const settledBy = (reading: NameReading, name: string, place: number, values: FieldValues): NameJudgement | null => {
  if (reading.readings.some((one) => one.state === 'wrong')) return null
  // A prompt for which the context has a value is mended; one for the instructor's own words waits for them.
  if (reading.readings.some((one) => one.isPrompt && values[one.field] !== undefined && values[one.field] !== '')) return null
  const exact = reading.follows === 'exact'
  return {
    verdict: reading.follows === 'exact' ? 'follows' : 'small-differences', fields: reading.readings, differences: exact ? [] : differencesBetween(name, reading.tidied),
    mended: reading.tidied, confidence: exact ? 1 : 0.99, reasons: [], place,
  }
}

/** Whether one of the words of the format that say what the name is of was found. */
const labelFound = (choice: Choice, plan: FormatPlan): boolean =>
  choice.chosen.some((one) => {
    if (one.how === 'another-stretch' || one.how === 'bare' || one.how === 'not-asked') return false
    if (one.slot.startsWith('fixed:')) return [...conceptsOf(plan.fixed[Number(one.slot.slice(6))] ?? '')].length > 0
    return one.field !== null && (one.field === 'kind' || plan.fields.some((planned) => planned.field === one.field && planned.labelled))
  })

/** Places by what a name may say of them. */
interface PlaceIndex {
  byNumber: ReadonlyMap<number, readonly number[]>
  byFirstDay: ReadonlyMap<string, readonly number[]>
  /** Folded topics that a place is known by. */
  topics: readonly { folded: string; place: number }[]
}
const keptIndices = new WeakMap<readonly FieldValues[], PlaceIndex>()
const indexOf = (places: readonly FieldValues[]): PlaceIndex => {
  const known = keptIndices.get(places)
  if (known) return known
  const byNumber = new Map<number, number[]>()
  const byFirstDay = new Map<string, number[]>()
  const topics: { folded: string; place: number }[] = []
  const put = <K>(map: Map<K, number[]>, key: K, place: number) => map.set(key, [...(map.get(key) ?? []), place])
  places.forEach((values, place) => {
    for (const field of placeFields) if (typeof values[field] === 'number') put(byNumber, values[field], place)
    if (isDaySpan(values.dates)) put(byFirstDay, values.dates.first, place)
    if (typeof values.topic === 'string' && values.topic.length >= 4) topics.push({ folded: foldName(values.topic).text, place })
  })
  const index = { byNumber, byFirstDay, topics }
  keptIndices.set(places, index)
  return index
}

/** What a topic that stands in the name weighs for the place it is known by. */
const topicWeight = 2
/** A place that does nearly as well as the best makes it doubtful. */
const rivalWithin = 2

/** The place that most speaks for, how much the choice there weighs, and whether another place does nearly as well. */
const bestPlace = (recognised: Recognised, folded: string, places: readonly FieldValues[]): { best: Choice; place: number | null; rival: boolean } => {
  if (places.length === 1) return { best: chooseFor(recognised, places[0] ?? {}), place: 0, rival: false }
  const index = indexOf(places)
  const plausible = new Set<number>()
  for (const { value, dates } of recognised.candidates) {
    if (typeof value === 'number') for (const place of index.byNumber.get(value) ?? []) plausible.add(place)
    for (const said of dates ?? []) for (const place of index.byFirstDay.get(said.first) ?? []) plausible.add(place)
  }
  const byTopic = new Set(index.topics.flatMap((one) => (folded.includes(one.folded) ? [one.place] : [])))
  const ranked = [...new Set([...plausible, ...byTopic])]
    .map((place) => {
      const choice = chooseFor(recognised, places[place] ?? {})
      return { place, best: { ...choice, weight: choice.weight + (byTopic.has(place) ? topicWeight : 0) } }
    })
    .sort((a, b) => b.best.weight - a.best.weight || a.place - b.place)
  const [first, second] = ranked
  if (!first) return { best: { weight: 0, chosen: [] }, place: null, rival: false }
  return { best: first.best, place: first.place, rival: second !== undefined && first.best.weight - second.best.weight < rivalWithin }
}

interface Mending {
  format: NamingFormat
  name: string
  plan: FormatPlan
  place: number
  values: FieldValues
  recognised: Recognised
  choice: Choice
  left: LeftWords
  rival: boolean
  placeKnown: boolean
  origin: readonly number[]
  context: NameContext
  /** How often it was mended, this time included. */
  round: number
}

/** How far each thing lowers the confidence. Set by hand on the part of the corpus that is not held back. */
const factors = {
  short: 0.995, typed: 0.97, bare: 0.93, 'another-stretch': 0.75, 'part-of': 0.93, 'start-only': 0.97, copy: 0.98, 'class-section': 0.98, 'not-asked': 0.97, plain: 1,
  numberSupplied: 0.75, numberSuppliedPlaceRight: 0.93, numberSuppliedAlone: 0.7, datesSupplied: 0.98, courseSupplied: 0.97, titleSupplied: 0.85, otherSupplied: 0.9, choiceSupplied: 0.8,
  topicSupplied: 0.9, topicMissing: 0.6, joined: 0.7, fixedMissing: 0.85, wordLeft: 0.45, strayMarks: 0.85, rival: 0.4, numberAgainstDates: 0.3, numberWrong: 0.6, numberWrongPlaceRight: 0.9, datesWrong: 0.85, valueWrong: 0.9,
} as const

const mendedFrom = (mending: Mending): NameJudgement => {
  const { format, name, plan, values, choice, left, origin, recognised } = mending
  const reasons: Reason[] = []
  let confidence = 0.98
  const because = (factor: number, reason?: Reason) => {
    confidence *= factor
    if (reason) reasons.push(reason)
  }
  const quoted = (one: Candidate) => name.slice(origin[recognised.tokens[one.from]?.from ?? 0], origin[recognised.tokens[one.to - 1]?.to ?? 0])
  const bySlot = new Map(choice.chosen.map((one) => [one.slot, one]))
  const fields: FieldReading[] = []
  const written: FieldValues = {}
  for (const { field } of plan.fields) {
    const wanted = values[field]
    if (wanted !== undefined) written[field] = wanted
  }
  /** What tells that the name is meant for this place: nothing recognised means nothing is told. */
  let told = choice.chosen.some((one) => one.field !== null && one.how !== 'not-asked')
  const datesSay = plan.fields.flatMap(({ field, step }) => (step.type === 'range' || step.type === 'date' ? [fitOf(bySlot.get(field), values[field])] : []))
  const datesRight = datesSay.some((fit) => fit !== null && fit >= 1.5)
  const topicRight = left.text !== '' && typeof values.topic === 'string' && foldName(left.text).text === foldName(values.topic).text
  const placeRight = datesRight || topicRight

  for (const planned of plan.fields) {
    const { field, step, optional } = planned
    const said = bySlot.get(field)
    const wanted = values[field]
    const wantedText = wanted === undefined || wanted === '' ? null : writeField(field, step.style, wanted)
    if (definitionOf(field).own && step.type === 'text') {
      fields.push(ownField(field, left, optional))
      if (left.text !== '') written[field] = left.text
      else if (wantedText !== null) because(factors.topicSupplied, { code: 'supplied', field, text: wantedText })
      else if (!optional) because(factors.topicMissing, { code: 'no-own-words' })
      continue
    }
    if (!said) {
      fields.push({ field, state: 'absent', text: '', expected: wantedText, isPrompt: false, value: null })
      if (optional) {
        if (wantedText === null) continue
      } else if (wantedText === null) because(0.5)
      because(suppliedFactor(field, step.type, told, placeRight), wantedText === null ? undefined : { code: 'supplied', field, text: wantedText })
      continue
    }
    const text = quoted(said)
    const right = said.dates ? (fitOf(said, wanted) ?? 0) >= 1.5 || wanted === undefined : wanted === undefined || rightValue(said, wanted)
    fields.push({ field, state: right ? 'right' : 'wrong', text, expected: right ? null : wantedText, isPrompt: false, value: typeof said.value === 'number' || isNumberSpan(said.value ?? undefined) ? (said.value as FieldReading['value']) : null })
    because(factors[said.how], howReason(said, field))
    if (wanted === undefined) {
      const value = said.dates ? valueOfDates(said, step.type) : said.value
      if (value === null) return unreadable([...reasons, { code: 'no-such-place' }], fields, mending.place)
      written[field] = value
    } else if (!right) {
      const reason: Reason = { code: 'wrong', field, said: text, expected: wantedText ?? '' }
      if (step.type === 'integer') because(placeRight ? factors.numberWrongPlaceRight : datesSay.some((fit) => fit !== null) ? factors.numberAgainstDates : factors.numberWrong, reason)
      else if (said.dates) because((fitOf(said, wanted) ?? -1) >= 1 ? 0.97 : factors.datesWrong, reason)
      else if (field === 'kind') return unreadable([{ code: 'another-kind', text }], fields, mending.place)
      else because(factors.valueWrong, reason)
    }
  }
  plan.fixed.forEach((word, i) => {
    const said = bySlot.get(`fixed:${i}`)
    if (said) because(factors[said.how], howReason(said, null))
    else if (word.length > 3) because(factors.fixedMissing)
  })
  told ||= topicRight
  told ||= plan.fixed.some((word, i) => word.length > 3 && bySlot.has(`fixed:${i}`))
  for (const one of choice.chosen)
    if (one.slot.startsWith('out:')) because(factors[one.how], { code: 'left-out', what: one.how === 'copy' || one.how === 'class-section' ? one.how : 'not-asked', text: quoted(one) })

  const takesOwnWords = plan.fields.some(({ field, step }) => definitionOf(field).own && step.type === 'text')
  if (!takesOwnWords && left.words > 0) because(factors.wordLeft ** left.words, { code: 'left-out', what: 'words', text: left.text })
  if (takesOwnWords && left.text !== '') {
    reasons.push({ code: 'own-words-kept', text: left.text })
    if (left.joined) because(factors.joined, { code: 'own-words-joined' })
  }
  if (left.strayMarks) because(factors.strayMarks, { code: 'stray-marks' })
  if (mending.rival) because(factors.rival, { code: 'several-places' })
  if (!told && !(takesOwnWords && left.text !== '' && mending.placeKnown)) return unreadable([{ code: 'nothing-recognised' }], fields, mending.place)
  // Nothing says that it belongs here but that it stands here.
  if (!told) because(plan.fields.some(({ labelled, field }) => labelled && field !== 'minutes' && field !== 'points') ? 0.75 : 0.95)

  const mended = renderName(format, written).text
  if (mended === name) return { verdict: 'follows', fields: readName(format, name, values)?.readings ?? fields, differences: [], mended, confidence: 1, reasons: [], place: mending.place }
  const back = readsBack(format, mended, values, left.text)
  if (!back) return unreadable([...reasons, { code: 'would-not-read' }], fields, mending.place)
  if (confidence < leastConfidence) return unreadable(reasons, fields, mending.place)
  const saysWhy = reasons.some((reason) => reason.code !== 'own-words-kept')
  if (!saysWhy) reasons.unshift({ code: 'written-otherwise' })
  const judged: NameJudgement = { verdict: 'mendable', fields, differences: [], mended, confidence: Math.round(confidence * 1000) / 1000, reasons, place: mending.place }
  return mayHoldMore(back, tokensOf(foldName(mended).text)) ? mendedFurther(judged, mending) : judged
}

const mostRounds = 8

/** Mends what was mended until it stays: a copy of a copy has left more than one thing behind, and words that stood apart may now say something together. */
const mendedFurther = (judged: NameJudgement, { format, context, values, round }: Mending): NameJudgement => {
  if (judged.mended === null) return judged
  if (round >= mostRounds) return unreadable([...judged.reasons, { code: 'would-not-read' }], judged.fields, judged.place)
  const again = judgeAt(format, judged.mended, { ...context, places: [values] }, round + 1)
  if (again.mended === judged.mended) return judged
  return { ...judged, verdict: again.mended === null ? 'unreadable' : 'mendable', mended: again.mended, confidence: Math.round(judged.confidence * again.confidence * 1000) / 1000, reasons: [...judged.reasons, ...again.reasons] }
}

const suppliedFactor = (field: FieldName, type: string, told: boolean, placeRight: boolean): number => {
  if (type === 'integer' && field !== 'minutes' && field !== 'points' && field !== 'year') return placeRight ? factors.numberSuppliedPlaceRight : told ? factors.numberSupplied : factors.numberSuppliedAlone
  if (type === 'range' || type === 'date' || type === 'span') return factors.datesSupplied
  if (field === 'code' || field === 'term') return factors.courseSupplied
  if (field === 'title') return factors.titleSupplied
  return type === 'choice' ? factors.choiceSupplied : factors.otherSupplied
}

const ownField = (field: FieldName, left: LeftWords, optional: boolean): FieldReading => ({ field, state: left.text === '' && !optional ? 'absent' : left.text === '' ? 'absent' : 'right', text: left.text, expected: null, isPrompt: false, value: null })

const fitOf = (said: Candidate | undefined, wanted: FieldValue | undefined): number | null => (said?.dates ? fitDates(said.dates, wanted).fit : null)

const rightValue = (said: Candidate, wanted: FieldValue): boolean => {
  const { value, field } = said
  if (field === 'term') return sameTerm(String(value), wanted)
  if (isNumberSpan(value ?? undefined)) return sameSpan(value, wanted)
  if (field === 'classSection' && said.how === 'part-of') return false
  return typeof value === 'number' ? value === Number(wanted) : value === wanted
}

/** The value of dates at a place that knows none: the first sound reading. */
const valueOfDates = (said: Candidate, type: string): FieldValue | null => {
  const reading = said.dates?.[0]
  if (!reading) return null
  if (type === 'date') return reading.first
  return reading.last === null ? null : { first: reading.first, last: reading.last }
}

const howReason = (said: Candidate, field: FieldName | null): Reason | undefined => {
  if (said.how === 'short') return { code: 'shortened', field }
  if (said.how === 'typed') return { code: 'mistyped', field }
  if (field === null) return undefined
  if (said.how === 'bare') return { code: 'unlabelled', field }
  return said.how === 'another-stretch' ? { code: 'another-stretch', field } : undefined
}

/** The reading of a mended name, if it is right and has the instructor's words whole. */
const readsBack = (format: NamingFormat, mended: string, values: FieldValues, own: string): NameReading | null => {
  const reading = readName(format, mended, values)
  if (reading?.follows !== 'exact') return null
  return reading.readings.every((one) => one.state !== 'wrong' && (!definitionOf(one.field).own || one.isPrompt || own === '' || one.text === own)) ? reading : null
}
