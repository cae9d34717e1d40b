import { definitionOf, fieldNames, isDaySpan, type FieldValues } from '../fields.ts'
import { foldName } from '../fold.ts'
import type { NameReading } from '../read.ts'
import type { Recognised } from './candidates.ts'
import { chooseFor, type Choice } from './choose.ts'

/** Values that are the same wherever the name stands: those of the course. */
export const commonOf = (places: readonly FieldValues[]): FieldValues => {
  const [first = {}] = places
  if (places.length === 1) return first
  const known = keptCommon.get(places)
  if (known) return known
  const common: FieldValues = {}
  for (const field of fieldNames)
    if (definitionOf(field).of === 'course' && first[field] !== undefined)
      common[field] = first[field]
  keptCommon.set(places, common)
  return common
}
const keptCommon = new WeakMap<readonly FieldValues[], FieldValues>()

const placeFields = ['week', 'unit', 'number', 'day'] as const

/** The places at which numbers of a reading may stand; all of them when it has none. */
export const placesOfReading = (reading: NameReading, places: readonly FieldValues[]): number[] => {
  const all = places.map((_, i) => i)
  const said = reading.readings.filter(
    (reading) =>
      typeof reading.value === 'number' && placeFields.some((field) => field === reading.field),
  )
  return all.filter((i) =>
    said.every(
      ({ field, value }) =>
        places[i]?.[field] === undefined || Number(places[i]?.[field]) === value,
    ),
  )
}

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
  const put = <K>(map: Map<K, number[]>, key: K, place: number) =>
    map.set(key, [...(map.get(key) ?? []), place])
  places.forEach((values, place) => {
    for (const field of placeFields)
      if (typeof values[field] === 'number') put(byNumber, values[field], place)
    if (isDaySpan(values.dates)) put(byFirstDay, values.dates.first, place)
    if (typeof values.topic === 'string' && values.topic.length >= 4)
      topics.push({ folded: foldName(values.topic).text, place })
  })
  const index = { byNumber, byFirstDay, topics }
  keptIndices.set(places, index)
  return index
}

/** What a topic that stands in the name weighs for the place it is known by. */
const topicWeight = 2
/** A place that does nearly as well as the best makes it doubtful. */
const rivalWithin = 2

/** The place that most speaks for, what was chosen for it, and whether another place does nearly as well. */
export interface BestPlace {
  best: Choice
  /** null when nothing in the name speaks for any place. */
  place: number | null
  rival: boolean
}

/** Chooses for every place that the name may speak of, and gives the best. */
export const bestPlace = (
  recognised: Recognised,
  folded: string,
  places: readonly FieldValues[],
): BestPlace => {
  if (places.length === 1)
    return { best: chooseFor(recognised, places[0] ?? {}), place: 0, rival: false }
  const index = indexOf(places)
  const plausible = new Set<number>()
  for (const { value, dates } of recognised.candidates) {
    if (typeof value === 'number')
      for (const place of index.byNumber.get(value) ?? []) plausible.add(place)
    for (const said of dates ?? [])
      for (const place of index.byFirstDay.get(said.first) ?? []) plausible.add(place)
  }
  const byTopic = new Set(
    index.topics.flatMap((topic) => (folded.includes(topic.folded) ? [topic.place] : [])),
  )
  const ranked = [...new Set([...plausible, ...byTopic])]
    .map((place) => {
      const choice = chooseFor(recognised, places[place] ?? {})
      return {
        place,
        best: {
          chosen: choice.chosen,
          weight: choice.weight + (byTopic.has(place) ? topicWeight : 0),
        },
      }
    })
    .sort((a, b) => b.best.weight - a.best.weight || a.place - b.place)
  const [first, second] = ranked
  if (!first) return { best: { weight: 0, chosen: [] }, place: null, rival: false }
  return {
    best: first.best,
    place: first.place,
    rival: second !== undefined && first.best.weight - second.best.weight < rivalWithin,
  }
}
