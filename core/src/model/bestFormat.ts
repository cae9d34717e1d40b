import {
  formatOf,
  inferFormats,
  parseFormat,
  readName,
  renderName,
  type FieldValues,
} from '../naming/index.ts'

/** A name and what the fields of its place say. */
export interface PlacedName {
  name: string
  values: FieldValues
}
export interface ProposedFormat {
  format: string
  /** Share of the names that follow it with the right values. */
  share: number
  /** Names that do not follow. */
  leftOut: string[]
}

const longestLiteral = 200
/** A format that gives just this name, cut where it is very long. */
export const literalFormat = (name: string): string =>
  name
    .slice(0, longestLiteral)
    .replace(/[\\{}]/g, (character) => (character === '\\' ? '\\\\' : `${character}${character}`))

const swaps: readonly (readonly [RegExp, string])[] = [
  [/\{number\}/g, '{week}'],
  [/\{week\}/g, '{number}'],
  [/\{number\}/g, '{unit}'],
  [/\{unit\}/g, '{number}'],
  [/\{number\}/g, '{day}'],
  [/\{number, 00\}/g, '{week, 00}'],
  [/\{week, 00\}/g, '{number, 00}'],
]

/** Words of a name that are a known value become its field. */
const substituted = ({ name, values }: PlacedName): string => {
  let format = literalFormat(name)
  for (const field of ['code', 'title', 'term'] as const) {
    const value = values[field]
    if (typeof value === 'string' && value.length > 1)
      format = format.replaceAll(value, `{${field}}`)
  }
  const topic = values.topic
  if (typeof topic === 'string' && topic.length > 2) format = format.replaceAll(topic, '{topic}')
  for (const field of ['week', 'unit', 'day', 'number'] as const) {
    const value = values[field]
    if (typeof value === 'number')
      format = format.replace(new RegExp(`(?<![\\d{])${value}(?![\\d}])`), `{${field}}`)
  }
  return format
}

/**
 * The format that most names follow with the values of their own places: those inferred from the names alone, and
 * those that come of putting a field where its value stands. The plainer of two equally good ones.
 */
export const bestFormat = (names: readonly PlacedName[], near: string): ProposedFormat => {
  const first = names[0]
  if (!first) return { format: '', share: 0, leftOut: [] }
  const inferred = inferFormats(
    names.map(({ name }) => name),
    near,
  ).map(({ format }) => format)
  const put = names.slice(0, 6).map(substituted)
  const known = inferred.map((format) => {
    for (const field of ['code', 'term', 'title'] as const) {
      const value = first.values[field]
      if (typeof value === 'string' && value.length > 1)
        format = format.replaceAll(value, `{${field}}`)
    }
    return format
  })
  const base = [...new Set([...inferred, ...known, ...put])]
  const candidates = [
    ...new Set([
      ...base,
      ...base.flatMap((format) => swaps.map(([from, to]) => format.replace(from, to))),
    ]),
  ]
  const judged = candidates.flatMap((source) => {
    const parsed = parseFormat(source)
    if (!parsed.ok || source.trim() === '') return []
    const follows = names.filter(({ name, values }) => {
      const reading = readName(parsed.value, name, values)
      if (!reading || reading.readings.some((reading) => reading.state === 'wrong')) return false
      const said = reading.readings.find((reading) => reading.field === 'topic')?.text
      return (
        renderName(parsed.value, said === undefined ? values : { ...values, topic: said }).text ===
        name
      )
    })
    return [
      {
        format: source,
        share: follows.length / names.length,
        follows: new Set(follows),
        cost:
          (source.match(/\{topic\}/g)?.length ?? 0) * 20 +
          (source.match(/\{/g)?.length ?? 0) * 2 +
          (source.includes('{?') ? 15 : 0) +
          (source.includes('{number}') ? 1 : 0) -
          (source.includes('{code}') ? 4 : 0),
      },
    ]
  })
  // A looser format must explain more names to be worth it: a few words added to a few names make no field.
  const worth = (format: { share: number; cost: number }) => format.share - format.cost / 100
  const [best] = judged
    .filter(({ share }) => share > 0)
    .sort((a, b) => worth(b) - worth(a) || (a.format < b.format ? -1 : 1))
  if (!best)
    return {
      format: literalFormat(first.name),
      share: 1 / names.length,
      leftOut: names.slice(1).map(({ name }) => name),
    }
  return {
    format: formatOf(best.format).source,
    share: best.share,
    leftOut: names.filter((named) => !best.follows.has(named)).map(({ name }) => name),
  }
}
