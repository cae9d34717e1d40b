import { scalePoint } from 'd3'
import { worstOf, type WeaveGroup } from '@wickerframe/core'
import type { ConformanceRow } from '@wickerframe/contract'

/** A column as it is shown: one of the weave, or several that are folded into one. */
export interface ShownColumn {
  key: string
  title: string
  /** What it stands in. */
  group: string
  /** Its columns of the weave, by place. */
  of: readonly number[]
  /** Where it is drawn: the middle, in pixels. */
  x: number
}
export interface ShownGroup {
  key: string
  title: string
  /** Its first column and the one after its last. */
  from: number
  to: number
  left: number
  right: number
}
export interface Layout {
  columns: readonly ShownColumn[]
  groups: readonly ShownGroup[]
  width: number
  /** Between the middles of two columns. */
  step: number
}

/** Which weeks stand by themselves; the others are counted in one column. */
export type Weeks = 'near' | 'all'
const mostWeeks = 5
const firstWeeks = 3
/** So wide is a group at least, so that its title can be read. */
const leastColumns = 3
/** The strokes of the first column reach so far to its left. */
const margin = 6
const leastStep = 6.5
const mostStep = 20

const weekOf = (key: string): number | null =>
  key.startsWith('week:') ? Number(key.slice(5)) : null

/** Weeks in which some course is open, as many as there is place for, and the first ones. */
export const weeksNear = (
  groups: readonly WeaveGroup[],
  rows: readonly ConformanceRow[],
): ReadonlySet<number> => {
  const weeks: number[] = []
  const busy: number[] = []
  let at = 0
  for (const group of groups) {
    const week = weekOf(group.key)
    const [from, to] = [at, at + group.columns.length]
    at = to
    if (week === null) continue
    weeks.push(week)
    if (rows.some(({ strands }) => /[Xs]/.test(strands.slice(from, to)))) busy.push(week)
  }
  return new Set([...busy.slice(0, mostWeeks), ...weeks.slice(0, firstWeeks)])
}

/** `5–16`, or `1, 4–6` */
const spans = (weeks: readonly number[]): string => {
  const runs: [number, number][] = []
  for (const week of weeks) {
    const last = runs.at(-1)
    if (last?.[1] === week - 1) last[1] = week
    else runs.push([week, week])
  }
  return runs.map(([from, to]) => (from === to ? String(from) : `${from}–${to}`)).join(', ')
}

/**
 * Where everything is drawn. Groups stand apart by a column's width; where all of them need more place than there is, they are wider
 * than it.
 * @param near weeks that stand by themselves; the others are folded into one column for each, or one for all
 */
export const layoutOf = (
  groups: readonly WeaveGroup[],
  near: ReadonlySet<number> | null,
  place: number,
): Layout => {
  const shown: { key: string; title: string; columns: Omit<ShownColumn, 'x'>[] }[] = []
  const folded: { weeks: number[]; of: number[] } = { weeks: [], of: [] }
  let at = 0
  for (const group of groups) {
    const week = weekOf(group.key)
    const places = group.columns.map((_, i) => at + i)
    at += group.columns.length
    if (near && week !== null && !near.has(week)) {
      folded.weeks.push(week)
      folded.of.push(...places)
      continue
    }
    if (folded.of.length > 0 && week === null) shown.push(...foldedGroup(folded))
    shown.push({
      key: group.key,
      title: group.title,
      columns: group.columns.map(({ key, title }, i) => ({
        key,
        title,
        group: group.title,
        of: [places[i] ?? 0],
      })),
    })
  }
  if (folded.of.length > 0) shown.push(...foldedGroup(folded))
  const columns = shown.flatMap((group) => group.columns)
  const slots = shown.flatMap((group, i) => [
    ...(i > 0 ? [`gap ${i}`] : []),
    ...group.columns.map(({ key }) => key),
    ...Array.from(
      { length: Math.max(0, leastOf(group.key) - group.columns.length) },
      (_, n) => `room ${i} ${n}`,
    ),
  ])
  const step = Math.max(
    leastStep,
    Math.min(mostStep, (place - 2 * margin) / Math.max(1, slots.length)),
  )
  const width = 2 * margin + step * slots.length
  const x = scalePoint(slots, [margin + step / 2, width - margin - step / 2])
  let from = 0
  return {
    columns: columns.map((column) => ({ ...column, x: x(column.key) ?? 0 })),
    groups: shown.map(({ key, title, columns: own }) => {
      const group = {
        key,
        title,
        from,
        to: from + own.length,
        left: (x(own[0]?.key ?? '') ?? 0) - step / 2,
        right:
          (x(own.at(-1)?.key ?? '') ?? 0) + step * (0.5 + Math.max(0, leastOf(key) - own.length)),
      }
      from = group.to
      return group
    }),
    width,
    step,
  }
}

/** The weeks that do not stand by themselves, once: what was given is empty then. */
const foldedGroup = (folded: { weeks: number[]; of: number[] }) => {
  const title = spans(folded.weeks)
  const of = folded.of.splice(0)
  folded.weeks.length = 0
  return [
    {
      key: foldedKey,
      title,
      columns: [{ key: foldedKey, title: 'all of them', group: `Weeks ${title}`, of }],
    },
  ]
}
const leastOf = (group: string): number => leastColumns + (group === foldedKey ? 1 : 0)
/** Not a column of the server's. */
export const foldedKey = 'weeks'

/** The letters of a course at the columns that are shown: of folded ones the worst. */
export const shownLetters = (strands: string, columns: readonly ShownColumn[]): string =>
  columns
    .map(({ of }) =>
      of.length === 1
        ? (strands[of[0] ?? 0] ?? '.')
        : worstOf(of.map((place) => strands[place] ?? '.')),
    )
    .join('')

/** The column nearest to a place from the left; null between groups. */
export const columnAt = ({ columns, step }: Layout, x: number): number | null => {
  let best: number | null = null
  let nearest = step
  columns.forEach((column, i) => {
    const away = Math.abs(column.x - x)
    if (away < nearest) {
      nearest = away
      best = i
    }
  })
  return best
}
