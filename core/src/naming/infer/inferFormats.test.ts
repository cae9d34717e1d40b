import { describe, expect, it } from 'vitest'
import { inferFormats, nameClashes } from '../index.ts'

const best = (names: string[]) => inferFormats(names)[0]

describe('inferring a format', () => {
  it.each([
    [
      [
        'Week 1 · Aug 31 – Sep 6 · Charts',
        'Week 2 · Sep 7 – Sep 13 · Fog at sea',
        'Week 3 · Sep 14 – Sep 20 · Rules 5-10',
      ],
      'Week {week} · {dates} · {topic}',
    ],
    [
      [
        'Module 1: The port (8/31 - 9/6)',
        'Module 2: Berths (9/7 - 9/13)',
        'Module 3: Lines (9/14 - 9/20)',
      ],
      'Module {number}: {topic} ({dates, M/d - M/d})',
    ],
    [
      ['Unit 1 – 14 September to 20 September', 'Unit 2 – 21 September to 27 September'],
      'Unit {unit} – {dates, d MMMM to d MMMM}',
    ],
    [
      ['Lab 1 · Salt', 'Lab 2 · Heat', 'Reading 1 · Waves', 'Reading 2 · Fog · and more'],
      '{kind, Lab|Reading} {number} · {topic}',
    ],
    [
      ['Week 01 overview', 'Week 02 overview', 'Week 10 overview', 'Week 11 overview'],
      'Week {week, 00} overview',
    ],
    [
      ['Bread (12 min)', 'Clean hands (8 min)', 'Knives in 5 steps (5 min)'],
      '{topic} ({minutes} min)',
    ],
    [
      ['Semaine 1 : Marées', 'Semaine 2 : Brume', 'Semaine 3 : Le compas'],
      'Semaine {week} : {topic}',
    ],
    [
      [
        'Semaine 1 : 31 août – 6 sept. - Accueil',
        'Semaine 2 : 7 sept. – 13 sept. - Le carburant',
        'Semaine 3 : 14 sept. – 20 sept. - Injection',
      ],
      'Semaine {week} : {topic}',
    ],
    [
      ['NAV 110 · Quiz 1: Charts', 'NAV 205 · Quiz 2: Stars', 'MEN 120 · Quiz 1: Fuel'],
      '{code} · Quiz {number}: {topic}',
    ],
  ])('%j', (names, format) => {
    expect(best(names)).toMatchObject({ format, coverage: 1, outliers: [] })
  })
  it('tells coverage and outliers, best coverage first', () => {
    const inferred = inferFormats([
      'Wk 1: Ropes',
      'Wk 2: Knots',
      'Wk 3',
      'Wk 4: Winches',
      'Start here',
    ])
    expect(inferred[0]).toMatchObject({
      format: 'Wk {week}{?: {topic}?}',
      count: 4,
      coverage: 0.8,
      outliers: ['Start here'],
    })
    expect(inferred.map(({ count }) => count)).toEqual(
      inferred.map(({ count }) => count).sort((a, b) => b - a),
    )
  })
  it('proposes nothing where nothing recurs, and nothing for nothing', () => {
    expect(inferFormats([])).toEqual([])
    expect(
      inferFormats(['Ropes', 'The long way home', 'Why?']).filter(({ count }) => count > 1),
    ).toEqual([])
  })
})

describe('names that clash', () => {
  it('are those that people cannot tell apart', () => {
    expect(
      nameClashes([
        { name: 'Quiz 1 – Tides', who: 'a' },
        { name: 'quiz 1 - Tides', who: 'b' },
        { name: 'Quiz 2', who: 'c' },
      ]),
    ).toEqual([{ name: 'Quiz 1 – Tides', who: ['a', 'b'] }])
  })
})
