import { describe, expect, it } from 'vitest'
import type { WeaveGroup } from '@wickerframe/core'
import type { ConformanceRow } from '@wickerframe/contract'
import { conformanceRow } from '../../../testing/answers.testing.ts'
import { bandsOf, linesOf, openAt } from './bands.ts'
import { columnAt, foldedKey, layoutOf, shownLetters, weeksNear } from './layout.ts'
import { bandStrokes, courseStrokes, warpStrokes } from './strokes.ts'
import { bandWords, crossingWords, openWords } from './words.ts'

const group = (key: string, title: string, ...parts: string[]): WeaveGroup => ({
  key,
  title,
  columns: parts.map((part) => ({ key: `${key}/${part}`, title: part })),
})
/** Home, six weeks of two parts, the course: fifteen columns. */
const groups = [
  group('home', 'Home', 'banner', 'welcome'),
  ...[1, 2, 3, 4, 5, 6].map((week) => group(`week:${week}`, `Week ${week}`, 'overview', 'quiz')),
  group('course', 'Course', 'dates'),
]
const met = 'm'.repeat(15)
const openIn = (...places: readonly (readonly [place: number, letter: string])[]): string =>
  [...met].map((letter, i) => places.find(([place]) => place === i)?.[1] ?? letter).join('')
const row = (id: number, more: Partial<ConformanceRow> = {}): ConformanceRow =>
  conformanceRow(id, { code: 'NAV 110', title: 'Coastal Navigation', strands: met, ...more })

describe('bands', () => {
  const rows = [
    row(1, { weeks: 8, department: 'SAF' }),
    row(2, { weeks: 16, openMusts: 1, readiness: 'not-ready', owner: '' }),
    row(3, { weeks: 16, openMusts: 4, readiness: 'not-ready' }),
    row(4, { weeks: 10, code: 'NAV 100' }),
  ]
  it.each([
    ['department', ['NAV', 'SAF']],
    ['template', ['Harbour Standard']],
    ['instructor', ['nobody', 'Sunniva Drake']],
    ['length', ['8 weeks', '10 weeks', '16 weeks']],
  ] as const)('stand by %s, in the order that people read', (banding, titles) => {
    expect(bandsOf(rows, banding, 'code').map(({ title }) => title)).toEqual(titles)
  })
  it('hold every course once, the worst first, and count those that are ready', () => {
    const [nav] = bandsOf(rows, 'department', 'musts')
    expect(nav?.rows.map(({ id }) => id)).toEqual([3, 2, 4])
    expect(nav?.ready).toBe(1)
    expect(bandsOf(rows, 'department', 'code')[0]?.rows.map(({ id }) => id)).toEqual([4, 2, 3])
  })
  it('are lines, and their courses are where they are open', () => {
    const bands = bandsOf(rows, 'department', 'code')
    expect(linesOf(bands, new Set(['SAF'])).map(({ band, row }) => row?.id ?? band.key)).toEqual([
      'NAV',
      'SAF',
      1,
    ])
  })
  it('count a course at a column once, as what is worse', () => {
    expect(openAt(['mX', 'sX', 'ms', 'wn'], 2)).toEqual([
      { must: 0, should: 1 },
      { must: 2, should: 1 },
    ])
  })
})

describe('what is shown of the weave', () => {
  it('is the first weeks and those with something open; the others are counted in one column', () => {
    const rows = [row(1, { strands: openIn([10, 'X']) })]
    const near = weeksNear(groups, rows)
    expect([...near].sort()).toEqual([1, 2, 3, 5])
    const { columns, groups: shown } = layoutOf(groups, near, 600)
    expect(shown.map(({ title }) => title)).toEqual([
      'Home',
      'Week 1',
      'Week 2',
      'Week 3',
      'Week 5',
      '4, 6',
      'Course',
    ])
    const folded = columns.find(({ key }) => key === foldedKey)
    expect(folded?.of).toEqual([8, 9, 12, 13])
  })
  it('loses nothing that is open, whatever is folded: of every course, at every column', () => {
    const letters = [...'mXsw?n.']
    for (let seed = 0; seed < 200; seed++) {
      const strands = Array.from(
        { length: 15 },
        (_, i) => letters[(seed * 31 + i * 17 + ((seed * i) % 5)) % letters.length],
      ).join('')
      for (const near of [null, new Set<number>(), new Set([2, 5])]) {
        const { columns } = layoutOf(groups, near, 600)
        const shown = shownLetters(strands, columns)
        expect(shown).toHaveLength(columns.length)
        expect(columns.flatMap(({ of }) => of).sort((a, b) => a - b)).toEqual(
          Array.from({ length: 15 }, (_, i) => i),
        )
        expect(shown.includes('X')).toBe(strands.includes('X'))
      }
    }
  })
  it('keeps columns apart and in their groups, and finds the one under the pointer', () => {
    const layout = layoutOf(groups, null, 600)
    layout.columns.forEach(({ x }, i) => {
      expect(columnAt(layout, x)).toBe(i)
      expect(columnAt(layout, x + layout.step * 0.3)).toBe(i)
      const before = layout.columns[i - 1]
      if (before) expect(x - before.x).toBeGreaterThanOrEqual(layout.step - 0.01)
    })
    for (const { from, to, left, right } of layout.groups)
      for (const { x } of layout.columns.slice(from, to)) {
        expect(x).toBeGreaterThan(left)
        expect(x).toBeLessThan(right)
      }
    expect(columnAt(layout, layout.width + 100)).toBe(null)
  })
  it('is wider than its place rather than too narrow to be seen, and there may be nothing', () => {
    expect(layoutOf(groups, null, 10).step).toBeGreaterThanOrEqual(6.5)
    expect(layoutOf([], null, 600).columns).toEqual([])
  })
})

describe('strokes', () => {
  const layout = layoutOf(groups, null, 600)
  it('draw each kind at its columns, and nothing where nothing applies', () => {
    const strokes = courseStrokes(layout, `Xsw?n.${'m'.repeat(9)}`)
    const count = (path: string, mark: string) => path.split(mark).length - 1
    // Nine in five groups: neighbours are one stroke.
    expect([count(strokes.met, 'M'), count(strokes.met, 'h')]).toEqual([5, 9])
    expect(count(warpStrokes(layout, 20), 'M')).toBe(15)
    expect([strokes.must, strokes.should, strokes.untold, strokes.notDue].map(Boolean)).toEqual([
      true,
      true,
      true,
      true,
    ])
    expect(count(strokes.waived, 'M')).toBe(2)
    expect(courseStrokes(layout, '.'.repeat(15))).toMatchObject({ met: '', must: '', should: '' })
  })
  it('draw a larger knot where a larger share of a band is open, and none where none is', () => {
    const tall = (must: number) => {
      const open = Array.from({ length: 15 }, (_, i) => ({ must: i === 0 ? must : 0, should: 0 }))
      return Number(/v([\d.]+)h/.exec(bandStrokes(layout, open, 100).must)?.[1] ?? 0)
    }
    expect(tall(0)).toBe(0)
    expect(tall(1)).toBeGreaterThan(0)
    expect(tall(50)).toBeGreaterThan(tall(10))
    expect(tall(100)).toBeGreaterThan(tall(50))
  })
})

describe('the weave in words', () => {
  const layout = layoutOf(groups, null, 600)
  it('tells a crossing of a course, and of a band', () => {
    const letters = openIn([2, 'X'])
    expect(crossingWords(row(1), layout, letters, 2)).toBe(
      'NAV 110 Coastal Navigation: Week 1, overview: open must',
    )
    const [band] = bandsOf([row(1, { strands: letters }), row(2)], 'department', 'code')
    if (!band) throw new Error('no band')
    const open = openAt([letters, met], 15)
    expect(bandWords(band, layout, open, 2)).toBe(
      'NAV, 2 of 2 ready: Week 1, overview: open in 1 course (50 %)',
    )
    expect(bandWords(band, layout, open, 3)).toMatch(/open in no course$/)
  })
  it.each([
    [{ must: 3, should: 0 }, 'open in 3 courses (30 %)'],
    [{ must: 1, should: 2 }, 'open in 1 course (10 %), in 2 more as a should'],
    [{ must: 0, should: 1 }, 'open as a should in 1 course'],
  ])('%o is told as %s', (open, words) => {
    expect(openWords(open, 10)).toBe(words)
  })
})
