import { definitionOf, isNumberSpan, type FieldValue, type FieldValues } from '../fields.ts'
import { foldName } from '../fold.ts'
import type { NamingFormat } from '../format.ts'
import { readName, type FieldReading, type NameReading } from '../read.ts'
import { renderName, writeField } from '../render.ts'
import type { Candidate, Recognised } from './candidates.ts'
import { compactRangesSaid } from './compactRanges.ts'
import { tokensOf } from './tokens.ts'
import { fitDates, sameSpan, sameTerm } from './placeWeight.ts'
import type { Choice } from './choose.ts'
import type { FormatPlan, PlannedField } from './formatPlan.ts'
import { unreadable, type NameJudgement } from './judgement.ts'
import type { LeftWords } from './ownWords.ts'
import type { Reason } from './reasons.ts'
import {
  factors,
  howFactors,
  howReason,
  leastConfidence,
  suppliedFactor,
  Weighing,
} from './weighing.ts'

/** A name with everything in it recognised, at the place it is judged at. */
export interface Recovered {
  format: NamingFormat
  name: string
  plan: FormatPlan
  place: number
  /** What the fields should say there. */
  values: FieldValues
  recognised: Recognised
  choice: Choice
  left: LeftWords
  /** Whether another place does nearly as well. */
  rival: boolean
  placeKnown: boolean
  /** Whether more than the name says that it belongs to its place. */
  placeSure: boolean
  near: string
  origin: readonly number[]
}

/** What is made of a name field by field. */
interface Writing {
  from: Recovered
  weighing: Weighing
  said: ReadonlyMap<string, Candidate>
  /** Whether dates or topic say that the name belongs to its place; and whether any date is in it. */
  placeRight: boolean
  hasDates: boolean
  /** Whether anything in the name tells that it is meant for this place. */
  told: boolean
  fields: FieldReading[]
  written: FieldValues
}

const quoted = (
  { name, origin, recognised: { tokens } }: Recovered,
  candidate: Candidate,
): string =>
  name.slice(origin[tokens[candidate.from]?.from ?? 0], origin[tokens[candidate.to - 1]?.to ?? 0])

const fitOf = (said: Candidate | undefined, wanted: FieldValue | undefined): number | null =>
  said?.dates ? fitDates(said.dates, wanted).fit : null
/** From here on dates are those of the place, or begin as they do. */
const fits = 1.5

/**
 * Writes a recovered name by its format: what the place knows from the place, the instructor's own words as they stand;
 * with how sure that is, and why. What is written is read back first.
 */
export const writeAnew = (recovered: Recovered): NameJudgement => {
  const { format, name, plan, values, choice, left, place } = recovered
  const said = new Map(choice.chosen.map((candidate) => [candidate.slot, candidate]))
  const dateFits = plan.fields.flatMap(({ field, step }) =>
    step.type === 'range' || step.type === 'date'
      ? (fitOf(said.get(field), values[field]) ?? [])
      : [],
  )
  const topicRight =
    left.text !== '' &&
    typeof values.topic === 'string' &&
    foldName(left.text).text === foldName(values.topic).text
  const writing: Writing = {
    from: recovered,
    weighing: new Weighing(),
    said,
    fields: [],
    written: {},
    hasDates: dateFits.length > 0,
    placeRight: topicRight || dateFits.some((fit) => fit >= fits),
    told:
      topicRight ||
      choice.chosen.some(({ field, how }) => field !== null && how !== 'not-asked') ||
      plan.fixed.some((word, i) => word.length > 3 && said.has(`fixed:${i}`)),
  }
  const { weighing, fields, written } = writing
  for (const planned of plan.fields) {
    const refusal = writeOne(writing, planned)
    if (refusal) return unreadable([...weighing.reasons, refusal], fields, place)
  }
  weighWords(writing)
  const takesOwnWords = plan.fields.some(isOwn)
  if (!writing.told && !(takesOwnWords && left.text !== '' && recovered.placeKnown))
    return unreadable([{ code: 'nothing-recognised' }], fields, place)
  // Nothing says that it belongs here but that it stands here.
  if (!writing.told)
    weighing.because(
      plan.fields.some(({ labelled, after }) => labelled && after.length === 0)
        ? factors.untoldLabelled
        : factors.untold,
    )

  const mended = renderName(format, written).text
  if (mended === name)
    return {
      verdict: 'follows',
      fields: readName(format, name, values)?.readings ?? fields,
      differences: [],
      mended,
      confidence: 1,
      reasons: [],
      place,
    }
  if (!readsBack(format, mended, values, left.text))
    return unreadable([...weighing.reasons, { code: 'would-not-read' }], fields, place)
  const { reasons, confidence } = weighing
  if (confidence < leastConfidence) return unreadable(reasons, fields, place)
  const saysWhy = reasons.some((reason) => reason.code !== 'own-words-kept')
  return {
    verdict: 'mendable',
    fields,
    differences: [],
    mended,
    confidence,
    reasons: saysWhy ? reasons : [{ code: 'written-otherwise' }, ...reasons],
    place,
  }
}

const isOwn = ({ field, step }: PlannedField): boolean =>
  definitionOf(field).own === true && step.type === 'text'

/** Writes one field and weighs it. @returns why nothing can be written at all, or null */
const writeOne = (writing: Writing, planned: PlannedField): Reason | null => {
  const { said, weighing, fields, written } = writing
  const { values, left } = writing.from
  const { field, step, optional } = planned
  const wanted = values[field]
  const wantedText =
    wanted === undefined || wanted === '' ? null : writeField(field, step.style, wanted)
  if (wanted !== undefined) written[field] = wanted
  if (isOwn(planned)) {
    fields.push({
      field,
      state: left.text === '' ? 'absent' : 'right',
      text: left.text,
      expected: null,
      isPrompt: false,
      value: null,
    })
    if (left.text !== '') written[field] = left.text
    else if (wantedText !== null)
      weighing.because(factors.topicSupplied, { code: 'supplied', field, text: wantedText })
    else if (!optional) weighing.because(factors.topicMissing, { code: 'no-own-words' })
    return null
  }
  const candidate = said.get(field)
  if (candidate) return writeSaid(writing, planned, candidate, wanted, wantedText)
  fields.push({
    field,
    state: 'absent',
    text: '',
    expected: wantedText,
    isPrompt: false,
    value: null,
  })
  if (wantedText !== null)
    weighing.because(suppliedFactor(field, step.type, writing.told, writing.placeRight), {
      code: 'supplied',
      field,
      text: wantedText,
    })
  else if (!optional)
    weighing.because(
      factors.unknownMissing * suppliedFactor(field, step.type, writing.told, writing.placeRight),
    )
  return null
}

/** A field that stands in the name: right, wrong, or the only source of its value. */
const writeSaid = (
  writing: Writing,
  { field, step }: PlannedField,
  candidate: Candidate,
  wanted: FieldValue | undefined,
  wantedText: string | null,
): Reason | null => {
  const { weighing, fields, written } = writing
  const text = quoted(writing.from, candidate)
  const right =
    wanted === undefined ||
    (candidate.dates ? (fitOf(candidate, wanted) ?? 0) >= fits : isValue(candidate, wanted))
  fields.push({
    field,
    state: right ? 'right' : 'wrong',
    text,
    expected: right ? null : wantedText,
    isPrompt: false,
    value: numberIn(candidate.value),
  })
  weighing.because(howFactors[candidate.how], howReason(candidate, field))
  if (wanted === undefined) {
    const value = candidate.dates
      ? valueOfDates(candidate, step.type)
      : step.type === 'term'
        ? text
        : candidate.value
    if (value === null) return { code: 'no-such-place' }
    written[field] = value
  } else if (!right) {
    if (field === 'kind') return { code: 'another-kind', text }
    weighing.because(wrongFactor(writing, step.type, candidate, wanted), {
      code: 'wrong',
      field,
      said: text,
      expected: wantedText ?? '',
    })
  }
  return null
}

const wrongFactor = (
  { placeRight, hasDates, from: { placeSure } }: Writing,
  type: PlannedField['step']['type'],
  candidate: Candidate,
  wanted: FieldValue,
): number => {
  if (type === 'integer')
    return placeSure
      ? factors.placeWrong
      : placeRight
        ? factors.numberWrongPlaceRight
        : hasDates
          ? factors.numberAgainstDates
          : factors.numberWrong
  if (candidate.dates)
    return (fitOf(candidate, wanted) ?? -1) >= 1 ? factors.datesDaysOff : factors.datesWrong
  return factors.valueWrong
}

/** Whether the format asks for days that the name does not say. */
const lacksDates = ({ from: { plan }, said }: Writing): boolean =>
  plan.fields.some(({ field, step }) => step.type === 'range' && !said.has(field))

/** Weighs the words of the format, what was left out, and what is left over. */
const weighWords = (writing: Writing): void => {
  const { said, weighing, from } = writing
  const { plan, choice, left, rival, near } = from
  plan.fixed.forEach((word, i) => {
    const candidate = said.get(`fixed:${i}`)
    if (candidate) weighing.because(howFactors[candidate.how], howReason(candidate, null))
    else if (word.length > 3) weighing.because(factors.fixedMissing)
  })
  for (const candidate of choice.chosen)
    if (candidate.slot.startsWith('out:'))
      weighing.because(howFactors[candidate.how], {
        code: 'left-out',
        what:
          candidate.how === 'copy' || candidate.how === 'bare-copy'
            ? 'copy'
            : candidate.how === 'class-section'
              ? 'class-section'
              : 'not-asked',
        text: quoted(from, candidate),
      })
  if (!plan.fields.some(isOwn)) {
    if (left.words > 0)
      weighing.because(factors.wordLeft ** left.words, {
        code: 'left-out',
        what: 'words',
        text: left.text,
      })
  } else if (left.text !== '') {
    weighing.because(1, { code: 'own-words-kept', text: left.text })
    if (lacksDates(writing) && compactRangesSaid(tokensOf(left.text), near).length > 0)
      weighing.because(factors.rangeLeft)
    if (left.joined) weighing.because(factors.joined, { code: 'own-words-joined' })
  }
  if (left.strayMarks) weighing.because(factors.strayMarks, { code: 'stray-marks' })
  if (rival) weighing.because(factors.rival, { code: 'several-places' })
}

const numberIn = (value: FieldValue | null): FieldReading['value'] =>
  typeof value === 'number' || isNumberSpan(value ?? undefined)
    ? (value as FieldReading['value'])
    : null

const isValue = (said: Candidate, wanted: FieldValue): boolean => {
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

/** The reading of a mended name, if it is right and has the instructor's words whole. */
const readsBack = (
  format: NamingFormat,
  mended: string,
  values: FieldValues,
  own: string,
): NameReading | null => {
  const reading = readName(format, mended, values)
  if (reading?.follows !== 'exact') return null
  return reading.readings.every(
    (reading) =>
      reading.state !== 'wrong' &&
      (!definitionOf(reading.field).own || reading.isPrompt || own === '' || reading.text === own),
  )
    ? reading
    : null
}
