import { describe, expect, it } from 'vitest'
import { foldName, rangesNamed, classSectionsNamed } from '../index.ts'
import { cardinalOf, ordinalOf, romanOf } from '../words/numbers.ts'
import { isMistyped, isShortFor } from '../words/likeness.ts'
import { codesSaid, termsSaid, wordsSaid } from './courseWords.ts'
import { labelledNumbers, otherKindSaid } from './labelledNumbers.ts'
import { copyLeftOvers } from './leftOvers.ts'
import { leftWords } from './ownWords.ts'
import { datesSaid } from './saidDates.ts'
import { tokensOf, type Stretch } from './tokens.ts'

const near = '2026-08-31'
const taken = (name: string) => {
  const folded = foldName(name)
  return { folded, tokens: tokensOf(folded.text) }
}
const quoted = (name: string, stretch: Stretch) => {
  const { folded, tokens } = taken(name)
  return name.slice(
    folded.origin[tokens[stretch.from]?.from ?? 0],
    folded.origin[tokens[stretch.to - 1]?.to ?? 0],
  )
}

describe('dates as people write them', () => {
  // How dates are written: common practice, no source.
  it.each([
    ['Sep 14 - Sep 20', '2026-09-14', '2026-09-20'],
    ['Sept. 14th–20th', '2026-09-14', '2026-09-20'],
    ['September 14 through September 20', '2026-09-14', '2026-09-20'],
    ['14 Sept to 20 Sept', '2026-09-14', '2026-09-20'],
    ['14-20 September 2026', '2026-09-14', '2026-09-20'],
    ['Mon Sept 14 to Sun Sept 20', '2026-09-14', '2026-09-20'],
    ['9/14-9/20', '2026-09-14', '2026-09-20'],
    ['9/21-27', '2026-09-21', '2026-09-27'],
    ['14/09 au 20/09', '2026-09-14', '2026-09-20'],
    ['9/14/26 - 9/20/26', '2026-09-14', '2026-09-20'],
    ['14.9. – 20.9.', '2026-09-14', '2026-09-20'],
    ['2026-09-14 – 2026-09-20', '2026-09-14', '2026-09-20'],
    ['2026-09-14/2026-09-20', '2026-09-14', '2026-09-20'],
    ['du 14 au 20 septembre', '2026-09-14', '2026-09-20'],
    ['1er au 7 février', '2027-02-01', '2027-02-07'],
    ['del 26 de octubre al 1 de noviembre', '2026-10-26', '2026-11-01'],
    ['5–11 Oct', '2026-10-05', '2026-10-11'],
    ['Dec 28 → Jan 3', '2026-12-28', '2027-01-03'],
  ])('%s', (text, first, last) => {
    const [range] = rangesNamed(`Week 9: ${text}`, near, { first, last })
    expect(range && [range.first, range.last]).toEqual([first, last])
  })
  it.each([
    'rules 5-10',
    'version 3.4',
    'pages 12 to 31',
    'May I go',
    '40/60 oil',
    'part 2 of 3',
    'B-52 to B-54',
    '31/31 points',
  ])('%s is none', (text) => {
    expect(rangesNamed(text, near)).toEqual([])
  })
  it('may be read in two ways, and the wanted one is taken', () => {
    expect(
      rangesNamed('4/9 - 4/10', near, { first: '2026-09-04', last: '2026-10-04' })[0],
    ).toMatchObject({ first: '2026-09-04', last: '2026-10-04' })
    expect(
      rangesNamed('4/9 - 4/10', '2026-03-01', { first: '2026-04-09', last: '2026-04-10' })[0],
    ).toMatchObject({ first: '2026-04-09', last: '2026-04-10' })
  })
  it('take in the brackets and the words that lead up to them', () => {
    for (const [name, text] of [
      ['Tides (9/14 to 9/20)', '(9/14 to 9/20)'],
      ['Tides, week of Oct 5', 'week of Oct 5'],
      ['Tides from Sep 14 to Sep 20!', 'from Sep 14 to Sep 20'],
    ] as const) {
      const said = datesSaid(taken(name).tokens, near)
      expect(said.map((stretch) => quoted(name, stretch))).toContain(text)
    }
  })
})

describe('numbers with their labels', () => {
  it.each([
    ['wk 3: x', 3],
    ['Week #13 x', 13],
    ['week no. 14: x', 14],
    ['Week-8-x', 8],
    ['W3 x', 3],
    ['week (6) x', 6],
    ['Week 3 of 8: x', 3],
    ['3rd week x', 3],
    ['third week x', 3],
    ['Week VI. x', 6],
    ['week twelve x', 12],
    ['2e semaine : x', 2],
    ['Deuxième semaine', 2],
    ['1.ª semana: x', 1],
    ['semana núm. 7: x', 7],
    ['Semaine n°7 x', 7],
    ['Weeek 5 x', 5],
    ['x (wk. 7)', 7],
  ])('%s says %i', (name, value) => {
    expect(labelledNumbers(taken(name).tokens, ['week']).map(({ value }) => value)).toContain(value)
  })
  it.each(['A week at sea', 'weekly', 'Week — 5 things to know', 'w 3', 'Quiz 3'])(
    '%s says none',
    (name) => {
      expect(
        labelledNumbers(taken(name).tokens, ['week']).filter(
          ({ likeness }) => likeness !== 'another-stretch',
        ),
      ).toEqual([])
    },
  )
  it('tell another kind of item from one’s own', () => {
    const own = new Set(['quiz'])
    expect(otherKindSaid(taken('Assignment 3: x').tokens, own)).toBe('assignment')
    expect(otherKindSaid(taken('Discussion: x').tokens, own)).toBe('discussion')
    expect(otherKindSaid(taken('Quiz 3: the lab coat').tokens, own)).toBeNull()
  })
})

describe('numbers in words', () => {
  // Roman numerals in their one right form; number words of three languages: common practice, no source.
  it.each([
    ['i', 1],
    ['iv', 4],
    ['ix', 9],
    ['xiv', 14],
    ['xxxix', 39],
  ])('%s is %i', (word, value) => expect(romanOf(word)).toBe(value))
  it.each(['', 'iiii', 'viiii', 'vx', 'ic', 'mix', 'x1'])('%j is no roman numeral', (word) =>
    expect(romanOf(word)).toBeNull(),
  )
  it('are known in three languages', () => {
    expect(['twelve', 'douze', 'doce'].map(cardinalOf)).toEqual([12, 12, 12])
    expect(['third', 'troisième', 'tercera'].map(ordinalOf)).toEqual([3, 3, 3])
    expect([cardinalOf('tide'), ordinalOf('last')]).toEqual([null, null])
  })
})

describe('words of the course', () => {
  const codes = (name: string) => {
    const { tokens, folded } = taken(name)
    return codesSaid(tokens, name, folded.origin, 'NAV 110').map(({ text, own }) => [text, own])
  }
  it('are its code, however spaced, and those of others of the same shape', () => {
    for (const name of ['NAV 110 x', 'NAV110 x', 'nav-110 x', 'NAV_110_x', 'x (Nav 110)'])
      expect(codes(name).map(([, own]) => own)).toEqual([true])
    expect(codes('MEN 120 Quiz 3')).toEqual([['MEN 120', false]])
    expect(codes('the 404 page')).toEqual([])
  })
  it.each([
    ['Fall 2026', 'autumn', 2026],
    ["Autumn '26", 'autumn', 2026],
    ['2027 Spring', 'spring', 2027],
    ['F26', 'autumn', 2026],
    ['Sp27', 'spring', 2027],
    ['Automne 2026', 'autumn', 2026],
    ['Otoño 2026', 'autumn', 2026],
    ['aut. 2026', 'autumn', 2026],
  ])('%s is a term', (text, season, year) => {
    expect(termsSaid(taken(`NAV 110 ${text}`).tokens)).toMatchObject([{ season, year }])
  })
  it('are its title, shortened or mistyped, and not half of it', () => {
    const share = (name: string) => wordsSaid(taken(name).tokens, 'coastal navigation')?.share ?? 0
    expect([
      share('NAV 110 Coastal Nav'),
      share('Coastal Navigtion'),
      share('Navigation'),
      share('Celestial Fixes'),
    ]).toEqual([1, 1, 0, 0])
    expect(wordsSaid(taken('drake, sunniva').tokens, 'sunniva drake', true)?.share).toBe(1)
  })
  it('are class sections that merging left behind', () => {
    const sections = ['01', '02']
    expect(classSectionsNamed('NAV 110-01 Coastal Navigation', 'NAV 110', sections)).toEqual([
      '-01',
    ])
    expect(
      classSectionsNamed('NAV 110 Coastal Navigation (sections 01 and 02)', 'NAV 110', sections),
    ).toEqual(['(sections 01 and 02)'])
    expect(classSectionsNamed('NAV 110 Coastal Navigation 101', 'NAV 110', sections)).toEqual([])
  })
})

describe('what copying leaves behind', () => {
  it.each([
    ['Tides (copy)', '(copy)'],
    ['Tides - Copy', 'Copy'],
    ['Copy of Tides', 'Copy of'],
    ['Tides (2)', '(2)'],
    ['Tides - copy 3', 'copy 3'],
    ['Copie de Marées', 'Copie de'],
    ['Tides (copy) and more of it in the afternoon', '(copy)'],
  ])('%s', (name, text) => {
    expect(copyLeftOvers(taken(name).tokens).map((stretch) => quoted(name, stretch))).toContain(
      text,
    )
  })
  it.each([
    'How to copy a chart',
    'Make a copy',
    'Copyright',
    '(2) Tides',
    'Tides (two)',
    'Tides (1998)',
  ])('%s: nothing', (name) => {
    expect(copyLeftOvers(taken(name).tokens)).toEqual([])
  })
})

describe('the words that are left', () => {
  const left = (name: string, ...used: string[]) => {
    const { tokens, folded } = taken(name)
    const stretches = used.map((text): Stretch => {
      const from = folded.text.indexOf(foldName(text).text)
      const at = tokens.findIndex((token) => token.from >= from)
      return { from: at, to: tokens.findIndex((token) => token.to >= from + text.length) + 1 }
    })
    return leftWords(tokens, stretches, name, folded.origin)
  }
  it('keep what is inside them, and lose the separators at their edges', () => {
    expect(left('Week 3 - Lights – red, white; and “dim”', 'Week 3').text).toBe(
      'Lights – red, white; and “dim”',
    )
    expect(left('Week 3: (Tides)', 'Week 3').text).toBe('Tides')
    expect(left('Fixes (three-point) · Week 3', 'Week 3').text).toBe('Fixes (three-point)')
    expect(left('Heights?! - week 3', 'week 3').text).toBe('Heights?!')
  })
  it('tell when they stood apart, and when stray marks stood beside them', () => {
    expect(left('Tides week 3 and fog', 'week 3')).toMatchObject({
      text: 'Tides and fog',
      joined: true,
    })
    expect(left('** Week 3: Tides', 'Week 3')).toMatchObject({ text: 'Tides', strayMarks: true })
  })
  it('are none where only small words connect what was taken', () => {
    expect(left('Overview of week 3', 'Overview', 'week 3').text).toBe('')
  })
})

describe('likeness', () => {
  it('knows slips of the finger and short forms, and not other words', () => {
    expect([
      isMistyped('wek', 'week'),
      isMistyped('overveiw', 'overview'),
      isMistyped('weak', 'week'),
      isMistyped('lab', 'lob'),
    ]).toEqual([true, true, true, false])
    expect([
      isShortFor('wk', 'week'),
      isShortFor('asgmt', 'assignment'),
      isShortFor('week', 'week'),
      isShortFor('kw', 'week'),
    ]).toEqual([true, true, false, false])
  })
})
