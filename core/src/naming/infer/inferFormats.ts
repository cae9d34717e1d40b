import { withoutAccents } from '../../calendar/index.ts'
import { definitionOf } from '../fields.ts'
import { longestFormat, longestName, parseFormat, type NamingFormat } from '../format.ts'
import { readName, type NameReading } from '../read.ts'
import { conceptsOf, isItemKind, isStretch } from '../words/labels.ts'
import { generalise, piecesOf, type Piece } from './generalise.ts'

/** A format that many of the names follow. */
export interface InferredFormat {
  format: string
  /** Names that follow it, small differences allowed, and their share of all. */
  count: number
  coverage: number
  /** Those that do not, in their order; at most the first thousand. */
  outliers: string[]
  /** Bits it takes to tell all names with its help (minimum description length): less is more to the point. */
  bits: number
}

const mostNames = 20_000
const mostSampled = 600
const mostCandidates = 40
const mostOutliers = 1000
/** Formats that say the names this much less shortly than the best are too loose to propose. */
const tolerance = 1.4
/** A letter of English text costs about this much, as do the marks of a format. From memory: Shannon 1951 gives 1 to 5 bits, less for more context. */
const bitsPerCharacter = 5

const fieldBits = (reading: NameReading['readings'][number]): number => {
  if (reading.state === 'absent') return 1
  switch (definitionOf(reading.field).type) {
    case 'integer':
      return 6
    case 'letter':
      return 2
    case 'date':
      return 8
    case 'range':
    case 'span':
      return 10
    case 'choice':
      return 3
    case 'term':
      return 6
    case 'code':
      return 10
    case 'text':
      return 2 + bitsPerCharacter * reading.text.length
  }
}

const sampled = (names: readonly string[]): string[] => {
  const step = Math.max(1, names.length / mostSampled)
  return Array.from(
    { length: Math.min(names.length, mostSampled) },
    (_, i) => names[Math.floor(i * step)] ?? '',
  )
}

/** Formats that generalise the names at several degrees of what counts as a fixed word, the most frequent first. */
const candidatesOf = (taken: readonly Piece[][]): string[] => {
  const counts = new Map<string, number>()
  for (const pieces of taken)
    for (const word of new Set(
      pieces.flatMap((piece) => (piece.kind === 'word' ? [piece.text.toLowerCase()] : [])),
    ))
      counts.set(word, (counts.get(word) ?? 0) + 1)
  const found = new Map<string, number>()
  for (const share of [0.1, 0.3, 0.6]) {
    const fixed = (word: string): boolean =>
      (counts.get(word) ?? 0) >= Math.max(2, share * taken.length)
    for (const pieces of taken) {
      const format = generalise(pieces, fixed)
      if (format !== null && format !== '{topic}' && !labelsNothing(format))
        found.set(format, (found.get(format) ?? 0) + 1)
    }
  }
  return [...found]
    .sort((a, b) => b[1] - a[1])
    .map(([format]) => format)
    .slice(0, mostCandidates)
}

/** `Week {topic}`: a word that should have a number after it has words, so that nothing was understood. */
const labelsNothing = (format: string): boolean => {
  const word = /(\p{L}+)[\s.:#-]*\{topic\}/u.exec(format)?.[1]
  return (
    word !== undefined &&
    !format.includes('{week') &&
    !format.includes('{number') &&
    [...conceptsOf(withoutAccents(word.toLowerCase()))].some(
      (concept) => isStretch(concept) || isItemKind(concept),
    )
  )
}

/** `Lab {number} · {topic}` and `Reading {number} · {topic}` are one format with a choice. */
const withChoices = (formats: readonly string[]): string[] => {
  const shapes = new Map<string, string[]>()
  for (const format of formats) {
    const word = /(?<![{\p{L}])(\p{L}+)(?![\p{L}}])/u.exec(
      format.replace(/\{[^}]*\}/g, (field) => ' '.repeat(field.length)),
    )
    if (!word || ![...conceptsOf(withoutAccents((word[1] ?? '').toLowerCase()))].some(isItemKind))
      continue
    const shape = `${format.slice(0, word.index)}\u0000${format.slice(word.index + (word[1]?.length ?? 0))}`
    shapes.set(shape, [...(shapes.get(shape) ?? []), word[1] ?? ''])
  }
  return [...shapes].flatMap(([shape, words]) =>
    words.length > 1 && words.length <= 8
      ? [shape.replace('\u0000', `{kind, ${words.sort().join('|')}}`)]
      : [],
  )
}

/** `Week {week}` and `Week {week}: {topic}` are one format with an optional stretch. */
const withOptionals = (formats: readonly string[]): string[] =>
  formats.flatMap((short) =>
    formats.flatMap((long) =>
      long !== short && long.startsWith(short) && /\{topic\}/.test(long.slice(short.length))
        ? [`${short}{?${long.slice(short.length)}?}`]
        : [],
    ),
  )

const withoutPadding = (format: string): string => format.replaceAll(', 00}', '}')

/**
 * Proposes naming formats from existing names by minimum description length (after Raman and Hellerstein, Potter's Wheel,
 * VLDB 2001): names are generalised, the candidates are read against all names, and those that say the names in few bits
 * are kept, best coverage first.
 * @param near a date `YYYY-MM-DD` about the time the names are from
 */
export const inferFormats = (
  allNames: readonly string[],
  near = '2026-09-01',
): InferredFormat[] => {
  const names = allNames
    .map((name) => name.trim())
    .filter((name) => name !== '' && name.length <= longestName)
    .slice(0, mostNames)
  if (names.length === 0) return []
  const taken = sampled(names).map((name) => piecesOf(name, near))
  const plain = candidatesOf(taken)
  const sources = [
    ...new Set([
      ...plain,
      ...withChoices(plain),
      ...withOptionals(plain.slice(0, 12)),
      ...plain.map(withoutPadding),
    ]),
  ].filter((source) => source.length <= longestFormat)
  const judged = sources.flatMap((source) => {
    const parsed = parseFormat(source)
    const inferred = parsed.ok ? measured(parsed.value, names) : null
    return inferred && inferred.count >= Math.min(2, names.length) ? [inferred] : []
  })
  const shortest = Math.min(...judged.map(({ bits }) => bits))
  const kept = judged.filter(({ bits }) => bits <= shortest * tolerance)
  const undominated = kept.filter(
    (format) =>
      !kept.some(
        (other) =>
          other !== format &&
          other.count >= format.count &&
          other.bits <= format.bits &&
          (other.count > format.count || other.bits < format.bits || other.format < format.format),
      ),
  )
  return undominated.sort((a, b) => b.count - a.count || a.bits - b.bits).slice(0, 8)
}

const measured = (format: NamingFormat, names: readonly string[]): InferredFormat => {
  let bits = bitsPerCharacter * format.source.length
  let count = 0
  const outliers: string[] = []
  for (const name of names) {
    const reading = readName(format, name, {})
    const plain = 2 + bitsPerCharacter * 1.3 * name.length
    const topic = reading?.readings.find((reading) => reading.field === 'topic')
    if (reading && !(topic && /^[-–—:·|,;.]/.test(topic.text))) {
      count += 1
      bits +=
        1 +
        (reading.follows === 'exact' ? 0 : 12) +
        reading.readings.reduce((sum, field) => sum + fieldBits(field), 0)
    } else {
      bits += plain
      if (outliers.length < mostOutliers) outliers.push(name)
    }
  }
  return {
    format: format.source,
    count,
    coverage: count / names.length,
    outliers,
    bits: Math.round(bits),
  }
}
