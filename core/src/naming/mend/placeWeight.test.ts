import { describe, expect, it } from 'vitest'
import type { FieldValues } from '../index.ts'
import type { Candidate } from './candidates.ts'
import { fitDates, placeWeight, sameSpan, sameTerm } from './placeWeight.ts'

const week3: FieldValues = {
  week: 3,
  weeks: { from: 3, to: 5 },
  code: 'NAV 110',
  term: 'Autumn 2026',
  dates: { first: '2026-09-14', last: '2026-09-20' },
  due: '2026-09-18',
  topic: 'Tides',
}
const range = (first: string, last: string | null = null) => ({ first, last })

describe('dates that a name says, at a place', () => {
  it.each([
    ['just so', [range('2026-09-14', '2026-09-20')], 3],
    ['the first day alone', [range('2026-09-14')], 1.5],
    ['a few days off at both ends', [range('2026-09-15', '2026-09-21')], 1],
    ['a few days off, the first day alone', [range('2026-09-11')], 1],
    ['right at one end, far off at the other', [range('2026-09-14', '2026-10-20')], -1],
    ['of another week', [range('2026-09-21', '2026-09-27')], -1],
    [
      'in two readings, of which one fits',
      [range('2026-01-09'), range('2026-09-14', '2026-09-20')],
      3,
    ],
    ['not at all', [], -1],
  ])('%s', (_, readings, fit) => {
    expect(fitDates(readings, week3.dates).fit).toBe(fit)
  })
  it('of a single day are right on that day', () => {
    expect(fitDates([range('2026-09-18')], week3.due).fit).toBe(3)
    expect(fitDates([range('2026-09-26')], week3.due).fit).toBe(-1)
  })
  it('may be anything where nothing is wanted', () => {
    expect(fitDates([range('2026-09-26')], undefined)).toMatchObject({
      reading: range('2026-09-26'),
      fit: 0.5,
    })
  })
  it('are given in the reading that fits best', () => {
    const right = range('2026-09-14', '2026-09-20')
    expect(fitDates([range('2026-01-09'), right], week3.dates).reading).toBe(right)
  })
})

describe('what a place says for a part of a name', () => {
  const weigh = (candidate: Partial<Candidate>): number =>
    placeWeight(
      {
        slot: 'x',
        from: 0,
        to: 1,
        field: null,
        how: 'plain',
        value: null,
        weight: 0,
        dates: null,
        ...candidate,
      },
      week3,
    )
  it.each<[string, Partial<Candidate>]>([
    ['its number', { field: 'week', value: 3 }],
    ['its number without a word', { field: 'week', how: 'bare', value: 3 }],
    ['its weeks', { field: 'weeks', value: { from: 3, to: 5 } }],
    ['its term, also by season and year', { field: 'term', value: 'autumn 2026' }],
    ['its dates', { field: 'dates', dates: [range('2026-09-14', '2026-09-20')] }],
    [
      'its dates where the format asks for none',
      { field: 'dates', how: 'not-asked', dates: [range('2026-09-14', '2026-09-20')] },
    ],
    [
      'its code where the format asks for none',
      { field: 'code', how: 'not-asked', value: 'NAV 110' },
    ],
    ['its week where the format asks for none', { field: 'week', how: 'not-asked', value: 3 }],
  ])('speaks for %s', (_, candidate) => {
    expect(weigh(candidate)).toBeGreaterThan(0)
  })
  it.each<[string, Partial<Candidate>]>([
    ['another number', { field: 'week', value: 4 }],
    ['other weeks', { field: 'weeks', value: { from: 1, to: 2 } }],
    ['another value', { field: 'kind', value: 'Lab' }],
    ['dates of another week', { field: 'dates', dates: [range('2026-09-21', '2026-09-27')] }],
  ])('speaks against %s', (_, candidate) => {
    const place: FieldValues = { ...week3, kind: 'Quiz' }
    expect(
      placeWeight(
        {
          slot: 'x',
          from: 0,
          to: 1,
          field: null,
          how: 'plain',
          value: null,
          weight: 0,
          dates: null,
          ...candidate,
        },
        place,
      ),
    ).toBeLessThan(0)
  })
  it('takes nothing out that the format does not ask for and that is not of the place', () => {
    for (const candidate of [
      { field: 'week', value: 4 },
      { field: 'term', value: 'spring 2025' },
      { field: 'weeks', value: { from: 1, to: 2 } },
      { field: 'dates', dates: [range('2026-09-21', '2026-09-27')] },
    ] satisfies Partial<Candidate>[])
      expect(weigh({ ...candidate, how: 'not-asked' })).toBeLessThan(-5)
  })
  it('speaks more against a wrong number that no word labels, and against one of another stretch', () => {
    const wrong = weigh({ field: 'week', value: 4 })
    expect(weigh({ field: 'week', how: 'bare', value: 4 })).toBeLessThan(wrong)
    expect(weigh({ field: 'week', how: 'another-stretch', value: 4 })).toBeLessThan(wrong)
  })
  it('says nothing of what it does not know, and of what fills no field', () => {
    expect(weigh({ field: 'number', value: 4 })).toBe(0)
    expect(weigh({ field: null, how: 'copy' })).toBe(0)
  })
  it('takes a first day alone only where it is the place’s', () => {
    expect(
      weigh({ field: 'dates', how: 'start-only', dates: [range('2026-09-14')] }),
    ).toBeGreaterThan(0)
    expect(weigh({ field: 'dates', how: 'start-only', dates: [range('2026-09-15')] })).toBeLessThan(
      -5,
    )
  })
})

it.each([
  ['autumn 2026', 'Autumn 2026', true],
  ['Autumn 2026', 'Autumn 2026', true],
  ['autumn 2025', 'Autumn 2026', false],
  ['spring 2026', 'Autumn 2026', false],
  ['autumn 2026', 'Term without a year', false],
])('%s is the term %s: %s', (said, wanted, same) => {
  expect(sameTerm(said, wanted)).toBe(same)
})
it.each([
  [{ from: 1, to: 4 }, { from: 1, to: 4 }, true],
  [{ from: 1, to: 4 }, { from: 1, to: 3 }, false],
  [{ from: 1, to: 4 }, 'Weeks 1–4', false],
  [null, { from: 1, to: 4 }, false],
])('%j and %j are the same weeks: %s', (a, b, same) => {
  expect(sameSpan(a, b)).toBe(same)
})
