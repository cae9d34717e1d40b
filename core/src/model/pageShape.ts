import { shareSurviving } from '../page/index.ts'
import type { Chunk } from './chunks.ts'

/** A page of one repetition: what stands in it, and the words that differ between repetitions by rule. */
export interface PageVersion {
  chunks: readonly Chunk[]
  /** Words to be written as a field, longest first: `[words, {field}]`. */
  fields: readonly (readonly [string, string])[]
}

/** A stretch of the page that recurs, or a place where every repetition says something else. */
export interface PageStretch {
  what: 'fixed' | 'varies'
  /** Recurring HTML with fields, for what is fixed; for what varies, the wording that recurs while it is unfilled, or empty. */
  html: string
  /** The heading over what varies, where it recurs. */
  label: string
  /** What stands there in the repetitions, as examples; at most three. */
  examples: string[]
  kind: 'text' | 'rich-text' | 'list' | 'image' | 'table'
  /** Share of the repetitions that bear it out. */
  support: number
  level: number | null
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
/** Words that are a field's value become the field, where they stand as whole words. */
const withFields = (text: string, fields: PageVersion['fields']): string =>
  fields.reduce(
    (now, [words, field]) =>
      words === ''
        ? now
        : now.replace(
            new RegExp(`(?<![\\p{L}\\d{])${escaped(words)}(?![\\p{L}\\d}])`, 'gu'),
            field,
          ),
    text,
  )

interface Row {
  /** Text with fields, under which repetitions agree. */
  text: string
  chunks: (Chunk | null)[]
  html: string
}

const leastSupport = 0.6
const alike = 0.75

/** Longest common run of recurring texts in every page, by how often each recurs: the rows that stand in order. */
const recurringRows = (pages: readonly PageVersion[]): Row[] => {
  const rows: Row[] = []
  const texts = pages.map((page) => page.chunks.map((chunk) => withFields(chunk.text, page.fields)))
  const counts = new Map<string, number>()
  for (const own of texts)
    for (const text of new Set(own)) counts.set(text, (counts.get(text) ?? 0) + 1)
  const wanted = Math.max(2, Math.ceil(pages.length * 0.35))
  const places = new Map<string, number>()
  for (const own of texts)
    own.forEach((text, i) =>
      places.set(text, (places.get(text) ?? 0) + i / Math.max(1, own.length)),
    )
  const recurring = [...counts]
    .filter(([, count]) => count >= wanted)
    .map(([text, count]) => ({ text, count, place: (places.get(text) ?? 0) / count }))
    .sort((a, b) => a.place - b.place)
  for (const { text } of recurring) {
    const chunks = pages.map((page, i) => page.chunks[texts[i]?.indexOf(text) ?? -1] ?? null)
    const first = chunks.findIndex((chunk) => chunk !== null)
    const html = withFields(chunks[first]?.html ?? '', pages[first]?.fields ?? [])
    rows.push({ text, chunks, html })
  }
  // A word changed in one repetition does not make another text of it.
  for (const row of rows)
    pages.forEach((page, i) => {
      if (row.chunks[i] !== null) return
      const taken = new Set(rows.map((other) => other.chunks[i]))
      const near = page.chunks.find(
        (chunk, j) =>
          !taken.has(chunk) &&
          chunk.tag === row.chunks.find((chunk) => chunk !== null)?.tag &&
          (texts[i]?.[j] ?? '').length > 20 &&
          shareSurviving(row.text, texts[i]?.[j] ?? '') >= alike &&
          shareSurviving(texts[i]?.[j] ?? '', row.text) >= alike,
      )
      if (near) row.chunks[i] = near
    })
  return withoutAlternatives(rows)
}

/** Texts that stand in the same place of different repetitions are answers to one question: only the commonest stays a row. */
const withoutAlternatives = (rows: readonly Row[]): Row[] => {
  const kept: Row[] = []
  const count = (row: Row) => row.chunks.filter((chunk) => chunk !== null).length
  for (const row of rows) {
    const before = kept.at(-1)
    const apart =
      before !== undefined &&
      row.chunks.every((chunk, i) => chunk === null || before.chunks[i] === null)
    const headings = [row, before].some((side) =>
      side?.chunks.some((chunk) => chunk !== null && chunk.level !== null),
    )
    if (
      !before ||
      !apart ||
      headings ||
      count(row) + count(before) < row.chunks.length * leastSupport
    )
      kept.push(row)
    else if (count(row) > count(before)) kept[kept.length - 1] = row
  }
  return kept
}

const kindOf = (chunks: readonly Chunk[]): PageStretch['kind'] => {
  const count = (test: (chunk: Chunk) => boolean) => chunks.filter(test).length
  if (chunks.length === 0) return 'rich-text'
  if (count((chunk) => chunk.hasImage && chunk.text === '') > chunks.length / 2) return 'image'
  if (count((chunk) => chunk.tag === 'table') > chunks.length / 2) return 'table'
  if (count((chunk) => chunk.tag === 'ul' || chunk.tag === 'ol') >= chunks.length / 2) return 'list'
  return count((chunk) => chunk.text.length > 160) > 0 ? 'rich-text' : 'text'
}

/**
 * Tells what of a repeated page is fixed and what varies: a text that recurs word for word (but for numbers, dates and
 * topics that go with the repetition) is fixed; a place where repetitions differ is one to fill in. A wording that
 * recurs while other repetitions have something else in its place is the prompt of such a place.
 */
export const pageShape = (pages: readonly PageVersion[]): PageStretch[] => {
  const rows = recurringRows(pages)
  const total = pages.length
  const gapsOf = (page: PageVersion, i: number): Chunk[][] => {
    // What stands between the rows, before the first and after the last.
    const gaps: Chunk[][] = Array.from({ length: rows.length + 1 }, () => [])
    let row = 0
    const rowAt = new Map(
      rows.flatMap((row, at) => (row.chunks[i] ? [[row.chunks[i], at] as const] : [])),
    )
    for (const chunk of page.chunks) {
      const at = rowAt.get(chunk)
      if (at !== undefined) row = at + 1
      else gaps[row]?.push(chunk)
    }
    return gaps
  }
  const gaps = pages.map(gapsOf)
  const stretches: PageStretch[] = []
  const gapAt = (at: number): Chunk[] => gaps.flatMap((gap) => gap[at] ?? [])
  const filledAt = (at: number): number => gaps.filter((gap) => (gap[at]?.length ?? 0) > 0).length
  const varies = (at: number, html: string, support: number): PageStretch => ({
    what: 'varies',
    html,
    label: '',
    examples: [...new Set(gapAt(at).map((chunk) => chunk.text))].slice(0, 3),
    kind: kindOf(gapAt(at)),
    support,
    level: null,
  })
  const used = new Set<number>()
  if (filledAt(0) >= Math.max(2, total * 0.5)) {
    stretches.push(varies(0, '', filledAt(0) / total))
    used.add(0)
  }
  rows.forEach((row, at) => {
    const there = row.chunks.filter((chunk) => chunk !== null).length
    const lacking = pages.map((_, i) => i).filter((i) => row.chunks[i] === null)
    // Where it lacks, does something else stand in its place?
    const replaced = lacking.filter(
      (i) => (gaps[i]?.[at + 1]?.length ?? 0) > 0 || (gaps[i]?.[at]?.length ?? 0) > 0,
    )
    const sample = row.chunks.find((chunk) => chunk !== null)
    if (!sample) return
    const isPrompt =
      sample.level === null &&
      lacking.length > 0 &&
      replaced.length >= lacking.length * 0.6 &&
      there / total < 0.95
    if (isPrompt) {
      const gap = gapAt(at + 1).length >= gapAt(at).length ? at + 1 : at
      if (used.has(gap)) return
      used.add(gap)
      stretches.push({
        ...varies(gap, sample.text, (there + replaced.length) / total),
        kind: kindOf([...gapAt(gap)]),
      })
      return
    }
    if (there >= Math.max(2, Math.ceil(total * leastSupport)))
      stretches.push({
        what: 'fixed',
        html: row.html,
        label: '',
        examples: [],
        kind: 'rich-text',
        support: there / total,
        level: sample.level,
      })
    if (!used.has(at + 1) && filledAt(at + 1) >= Math.max(2, total * 0.4)) {
      used.add(at + 1)
      stretches.push(varies(at + 1, '', filledAt(at + 1) / total))
    }
  })
  // A recurring heading right above a place that varies is that place's label.
  return stretches.flatMap((stretch, i): PageStretch[] => {
    const next = stretches[i + 1]
    if (
      stretch.what === 'fixed' &&
      stretch.level !== null &&
      stretch.level >= 3 &&
      next?.what === 'varies'
    )
      return []
    const before = stretches[i - 1]
    return stretch.what === 'varies' &&
      before?.what === 'fixed' &&
      before.level !== null &&
      before.level >= 3
      ? [{ ...stretch, label: before.html.replace(/<[^>]+>/g, '') }]
      : [stretch]
  })
}
