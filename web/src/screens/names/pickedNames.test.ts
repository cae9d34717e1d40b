import { describe, expect, it } from 'vitest'
import { pickedNames } from './pickedNames.ts'
import type { Judged } from './protocol.ts'
import { formatEdit, formatOf, listedNames } from './useNamesBench.ts'
import { exampleTemplate } from '@wickerframe/core/testing'

const judged = (mended: string | null, confidence: number): Judged => ({
  verdict: mended === null ? 'unreadable' : 'mendable',
  mended,
  confidence,
  reasons: [],
})
const names = ['wk 1', 'wk 2', 'Week 3', 'misc', 'wk 5'].map((name) => ({ name }))
const verdicts = [
  judged('Week 1', 0.99),
  judged('Week 2', 0.5),
  judged('Week 3', 1),
  judged(null, 0),
  undefined,
]
const picked = (...flipped: number[]) => [...pickedNames(names, verdicts, new Set(flipped))]

describe('names that are picked to be renamed', () => {
  it('are those that are surely mended, and differ', () => {
    expect(picked()).toEqual([0])
  })
  it('are changed by hand both ways', () => {
    expect(picked(0)).toEqual([])
    expect(picked(1)).toEqual([0, 1])
  })
  it('are never those that cannot be mended, need not be, or are not looked at yet', () => {
    expect(picked(2, 3, 4)).toEqual([0])
  })
})

describe('names that somebody types', () => {
  it.each([
    ['', []],
    [' \n\n ', []],
    ['wk 1\r\n  wk 2  \nwk 3', ['wk 1', 'wk 2', 'wk 3']],
  ])('%j are %j', (typed, listed) => {
    expect(listedNames(typed).map(({ name }) => name)).toEqual(listed)
  })
})

describe('the format of a part', () => {
  it.each(['course', 'home-page', 'week', 'welcome'])(
    'of %s is changed where it stands',
    (part) => {
      const format = formatOf(exampleTemplate(), part)
      expect(format).toBeTruthy()
      const edit = formatEdit(part, format ?? '', 'Other')
      expect(edit).toMatchObject({ edit: 'set-field', was: format, value: 'Other' })
    },
  )
  it('that is not there is none', () => {
    expect(formatOf(exampleTemplate(), 'no-such')).toBeNull()
  })
})
