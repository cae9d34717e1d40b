import { strandAt, type Strand } from '@wickerframe/core'
import type { ConformanceRow } from '@wickerframe/contract'
import { plural } from '../../../controls/controls.tsx'
import type { Band, OpenAt } from './bands.ts'
import type { Layout } from './layout.ts'

/** How each strand is told in words, for the legend and for those who do not see it. */
export const strandWords: Readonly<Record<Strand, string>> = {
  met: 'met',
  'open-must': 'open must',
  'open-should': 'open should',
  waived: 'waived',
  'cannot-tell': 'could not be told',
  'not-due-yet': 'not due yet',
  'not-applicable': 'not applicable',
}

/** Where a column stands: `Week 2, overview`. */
export const columnWords = ({ columns }: Layout, column: number): string => {
  const shown = columns[column]
  return shown ? `${shown.group}, ${shown.title}` : ''
}

/** A crossing of a course, in words. */
export const crossingWords = (
  { code, title }: ConformanceRow,
  layout: Layout,
  letters: string,
  column: number,
): string =>
  `${code} ${title}: ${columnWords(layout, column)}: ${strandWords[strandAt(letters, column)]}`

/** A crossing of a band, in words. */
export const bandWords = (
  { title, rows, ready }: Band,
  layout: Layout,
  open: readonly OpenAt[],
  column: number,
): string => {
  const { must = 0, should = 0 } = open[column] ?? {}
  return `${title}, ${ready} of ${rows.length} ready: ${columnWords(layout, column)}: ${
    must + should === 0 ? 'open in no course' : openWords({ must, should }, rows.length)
  }`
}

/** `open in 12 courses (6 %), in 3 more as a should` */
export const openWords = ({ must, should }: OpenAt, courses: number): string =>
  [
    ...(must > 0
      ? [`open in ${plural(must, 'course')} (${Math.round((100 * must) / courses)} %)`]
      : []),
    ...(should > 0
      ? [
          must > 0
            ? `in ${should} more as a should`
            : `open as a should in ${plural(should, 'course')}`,
        ]
      : []),
  ].join(', ')
