import { bandOf, type Banding } from '@wickerframe/contract/bands'
import type { ConformanceRow } from '@wickerframe/contract'

export const orders = ['musts', 'shoulds', 'code'] as const
export type Order = (typeof orders)[number]

/** Courses that stand together. */
export interface Band {
  key: string
  title: string
  /** In the order that was asked for. */
  rows: readonly ConformanceRow[]
  ready: number
}

/** How many courses are open at a column. */
export interface OpenAt {
  must: number
  should: number
}

const before = (a: string, b: string): number =>
  a.localeCompare(b, 'en', { numeric: true, sensitivity: 'base' })

const comparing: Readonly<Record<Order, (a: ConformanceRow, b: ConformanceRow) => number>> = {
  musts: (a, b) => b.openMusts - a.openMusts || b.openShoulds - a.openShoulds,
  shoulds: (a, b) => b.openShoulds - a.openShoulds,
  code: () => 0,
}

/** Courses in bands, by name; in a band in an order, then by code. */
export const bandsOf = (
  rows: readonly ConformanceRow[],
  banding: Banding,
  order: Order,
): Band[] => {
  const bands = new Map<string, ConformanceRow[]>()
  for (const row of rows) {
    const key = bandOf[banding](row)
    const band = bands.get(key)
    if (band) band.push(row)
    else bands.set(key, [row])
  }
  return [...bands]
    .sort(([a], [b]) => before(a, b))
    .map(([key, of]) => ({
      key,
      title: key,
      rows: of.sort(
        (a, b) =>
          comparing[order](a, b) || (a.code < b.code ? -1 : a.code > b.code ? 1 : a.id - b.id),
      ),
      ready: of.filter(({ readiness }) => readiness === 'ready').length,
    }))
}

/** How many courses are open at each column: at musts, and at nothing worse than shoulds. @param letters of each course */
export const openAt = (letters: readonly string[], columns: number): OpenAt[] => {
  const open = Array.from({ length: columns }, (): OpenAt => ({ must: 0, should: 0 }))
  for (const of of letters)
    for (let i = 0; i < columns; i++) {
      const at = open[i]
      if (!at) continue
      if (of[i] === 'X') at.must += 1
      else if (of[i] === 's') at.should += 1
    }
  return open
}

/** One line of the weave: a band, or a course of an open one. */
export type Line = { band: Band; row: ConformanceRow | null }

/** The lines from top to bottom. */
export const linesOf = (bands: readonly Band[], open: ReadonlySet<string>): Line[] =>
  bands.flatMap((band): Line[] => [
    { band, row: null },
    ...(open.has(band.key) ? band.rows.map((row) => ({ band, row })) : []),
  ])
