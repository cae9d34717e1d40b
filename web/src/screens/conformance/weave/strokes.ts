import { scaleSqrt } from 'd3'
import type { OpenAt } from './bands.ts'
import type { Layout } from './layout.ts'

/** What of a line is drawn in which colour: SVG paths. What is met is light, what is open is heavy. */
export interface Strokes {
  /** Met: a thin line through. */
  met: string
  must: string
  should: string
  waived: string
  notDue: string
  untold: string
}

export const courseHeight = 22
export const bandHeight = 46

/** The standing strands, behind everything: one for each column. */
export const warpStrokes = ({ columns }: Layout, height: number): string =>
  columns.map(({ x }) => `M${x} 0V${height}`).join('')

/** A course’s strand woven through: at what is open it is broken, and frayed. @param letters one for each column */
export const courseStrokes = (layout: Layout, letters: string): Strokes => {
  const { columns, step } = layout
  const middle = courseHeight / 2
  const half = step / 2
  const reach = Math.min(5, half)
  const strokes = { met: '', must: '', should: '', waived: '', notDue: '', untold: '' }
  /** Neighbours that are met are one stroke. */
  let metTo = NaN
  for (let i = 0; i < columns.length; i++) {
    const x = columns[i]?.x ?? 0
    const through = `M${x - half} ${middle}h${step}`
    switch (letters[i]) {
      case 'm':
        strokes.met += Math.abs(x - half - metTo) < 0.5 ? `h${step}` : through
        metTo = x + half
        break
      case 'X':
        strokes.must += `M${x - reach - 1} ${middle - 5}l${reach} 5l-${reach} 5M${x + reach + 1} ${middle - 5}l-${reach} 5l${reach} 5`
        break
      case 's':
        strokes.should += through
        break
      case 'w':
        strokes.waived += `M${x - half} ${middle - 2}h${step}M${x - half} ${middle + 2}h${step}`
        break
      case 'n':
        strokes.notDue += `M${x - 1} ${middle}h2`
        break
      case '?':
        strokes.untold += `M${x - 2} ${middle - 3}a2.4 2.4 0 1 1 2.4 2.6v2M${x + 0.4} ${middle + 4.6}v0.4`
        break
      default:
        break
    }
  }
  return strokes
}

/** A band from afar: at each column a knot as large as the share of its courses that are open there. */
export const bandStrokes = (layout: Layout, open: readonly OpenAt[], courses: number): Strokes => {
  const middle = bandHeight / 2
  const size = scaleSqrt([0, Math.max(1, courses)], [0, bandHeight - 8])
  const wide = Math.min(8, layout.step - 2)
  const strokes = { must: '', should: '' }
  layout.columns.forEach(({ x }, i) => {
    const { must = 0, should = 0 } = open[i] ?? {}
    const kind = must > 0 ? 'must' : should > 0 ? 'should' : null
    if (kind === null) return
    const tall = Math.max(3, size(must > 0 ? must : should))
    strokes[kind] += `M${x - wide / 2} ${middle - tall / 2}h${wide}v${tall}h-${wide}z`
  })
  return {
    met: layout.groups.map(({ left, right }) => `M${left} ${middle}H${right}`).join(''),
    ...strokes,
    waived: '',
    notDue: '',
    untold: '',
  }
}
