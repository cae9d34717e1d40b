import { area, curveStepAfter, scaleLinear, scaleUtc, stack } from 'd3'
import type { ReadinessDay } from '@wickerframe/core'

/** What courses are on a day, from below: those in order stand on the ground, what is open on top of them. */
export const layers = ['ready', 'asFarAsSeen', 'notReady'] as const
export type Layer = (typeof layers)[number]

const instant = (day: string): number => Date.parse(`${day}T00:00:00Z`)
const oneDay = 86_400_000

/** The shapes of a drawing of days: an SVG path for each layer, and where the days and counts stand. */
export const stackOf = (
  days: readonly ReadinessDay[],
  { width, height, most }: { width: number; height: number; most: number },
) => {
  const first = instant(days[0]?.day ?? '1970-01-01')
  const last = instant(days.at(-1)?.day ?? '1970-01-01')
  // A day is as wide as a day: the last has its width too.
  const x = scaleUtc([first, last + oneDay], [0, width])
  const y = scaleLinear([0, Math.max(1, most)], [height, 0])
  const drawn = area<{ day: number; from: number; to: number }>()
    .x(({ day }) => x(day))
    .y0(({ from }) => y(from))
    .y1(({ to }) => y(to))
    .curve(curveStepAfter)
  const stacked = stack<ReadinessDay, Layer>().keys(layers)([...days])
  return {
    paths: stacked.map((series) => {
      const points = series.map(([from, to], i) => ({ day: instant(days[i]?.day ?? ''), from, to }))
      const end = points.at(-1)
      return {
        layer: series.key,
        path: drawn(end ? [...points, { ...end, day: last + oneDay }] : points) ?? '',
      }
    }),
    // Of a few days it would name hours as well.
    ticks: x
      .ticks(Math.max(2, Math.floor(width / 110)))
      .filter((at) => at.getTime() % oneDay === 0)
      .map((at) => ({ at: x(at), day: at.toISOString().slice(0, 10) })),
    counts: y
      .ticks(3)
      .filter(Number.isInteger)
      .map((count) => ({ at: y(count), count })),
  }
}
