import * as fc from 'fast-check'
import { RE2JS } from 're2js'
import { describe, expect, it } from 'vitest'
import { distance as levenshtein } from 'fastest-levenshtein'
import {
  ambiguityOf,
  editDistance,
  formatOf,
  parseFormat,
  readName,
  renderName,
  type FieldValues,
} from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

const week: FieldValues = {
  week: 3,
  dates: { first: '2026-09-14', last: '2026-09-20' },
  topic: 'Tides',
  code: 'NAV 110',
  number: 3,
}

describe('a name written by its format', () => {
  it.each([
    ['Week {week}', { week: 3 }, 'Week 3'],
    ['{week, 00} / {topic}', { week: 3, topic: 'Tides' }, '03 / Tides'],
    ['{week, 00}', { week: 12 }, '12'],
    ['Weeks {weeks}', { weeks: { from: 3, to: 5 } }, 'Weeks 3–5'],
    ['Weeks {weeks}', { weeks: { from: 3, to: 3 } }, 'Weeks 3'],
    ['Due {due}', { due: '2026-09-20' }, 'Due Sep 20'],
    ['Week {week}{? · {topic}?}', { week: 3, topic: 'Tides' }, 'Week 3 · Tides'],
    ['Week {week}{? · {topic}?}', { week: 3 }, 'Week 3'],
    ['Week {week}{? · {topic}?}', { week: 3, topic: '' }, 'Week 3'],
    ['Week {week} · {topic}', { week: 3, topic: '' }, 'Week 3 · [topic]'],
    ['{topic} by {instructor}', { topic: 'Tides' }, 'Tides by [instructor]'],
  ] as const)('%s of %j is %s', (format, values, name) => {
    expect(renderName(formatOf(format), values).text).toBe(name)
  })
  it('says which fields had no value, in order', () => {
    expect(renderName(formatOf('{topic} {week} {code}'), { week: 3 }).unfilled).toEqual([
      'topic',
      'code',
    ])
  })
})

describe('parsing a format', () => {
  it('points at an unknown field and suggests the near one', () => {
    const result = parseFormat('Week {wek} · {topic}')
    expect(result).toMatchObject({
      ok: false,
      problems: [{ code: 'unknown-field', at: 6, suggestion: 'did you mean week?' }],
    })
  })
  it.each([
    ['Week {week', 'unclosed', 5],
    ['Week week}', 'stray-brace', 9],
    ['{? a {? b ?} ?}', 'nested-optional', 5],
    ['{week, MM}', 'bad-style', 7],
    ['   ', 'empty', 0],
    ['x'.repeat(501), 'too-long', 500],
    ['{week}'.repeat(65), 'too-many-fields', 384],
  ])('refuses %j as %s', (source, code, at) => {
    const result = parseFormat(source)
    expect(
      result.ok ? [] : result.problems.map((problem) => [problem.code, problem.at]),
    ).toContainEqual([code, at])
  })
  it('keeps escaped braces and backslashes as characters', () => {
    expect(renderName(formatOf('{{{week}}} \\{'), week).text).toBe('{3} {')
  })
  it('warns where two free fields stand side by side', () => {
    expect(ambiguityOf(formatOf('{topic} {title}'))).toContain('side by side')
    expect(ambiguityOf(formatOf('{topic} · {title}'))).toBeNull()
    expect(ambiguityOf(formatOf('{week}{number}'))).toContain('touch')
    expect(ambiguityOf(formatOf('{code} {title} · {term}'))).toBeNull()
  })
})

describe('likeness of words', () => {
  it('is the edit distance of a well-known package, where nothing can be swapped', () => {
    const word = fc.string({ maxLength: 9, unit: fc.constantFrom('a', 'b', 'c', 'd') })
    fc.assert(
      fc.property(word, word, (a, b) => {
        // fastest-levenshtein knows no swaps; counting one as a single edit can only lower the distance, by at most half.
        const plain = levenshtein(a, b)
        expect(editDistance(a, b)).toBeLessThanOrEqual(plain)
        expect(editDistance(a, b)).toBeGreaterThanOrEqual(plain / 2)
        // In words whose letters ascend nothing can be swapped.
        const [first, second] = [[...a].sort().join(''), [...b].sort().join('')]
        expect(editDistance(first, second)).toBe(levenshtein(first, second))
        expect(editDistance(a, b, 1)).toBe(Math.min(editDistance(a, b), 2))
      }),
      propertyRuns(),
    )
    expect(editDistance('weke', 'week')).toBe(1)
  })
})

describe('rendering', () => {
  it('writes fields, styles and ranges', () => {
    expect(renderName(formatOf('Week {week, 00} · {dates} · {topic}'), week).text).toBe(
      'Week 03 · Sep 14 – Sep 20 · Tides',
    )
  })
  it('writes a prompt for what has no value, and drops an optional stretch that lacks one', () => {
    expect(renderName(formatOf('Week {week}{? · {topic}?}'), { week: 1 })).toEqual({
      text: 'Week 1',
      unfilled: [],
    })
    expect(renderName(formatOf('Week {week} · {topic}'), { week: 1 })).toEqual({
      text: 'Week 1 · [topic]',
      unfilled: ['topic'],
    })
  })
})

describe('reading', () => {
  const format = formatOf('Week {week} · {dates} · {topic}')
  it('keeps the instructor’s own words exactly', () => {
    expect(
      readName(format, 'Week 3 · Sep 14 – Sep 20 · Tides 101 · in March', week)?.readings.at(-1)
        ?.text,
    ).toBe('Tides 101 · in March')
  })
  it('tells small differences from another form', () => {
    expect(readName(format, 'week\u00a03 · Sep 14 - Sep 20  · Tides', week)?.follows).toBe(
      'small-differences',
    )
    expect(readName(format, 'Ｗｅｅｋ 3 · Sep 14 – Sep 20 · Tides', week)?.follows).toBe(
      'small-differences',
    )
    expect(readName(format, 'wk 3 - Tides', week)).toBeNull()
  })
  it('says which value is wrong and what was expected', () => {
    const wrong = readName(format, 'Week 4 · Sep 15 – Sep 21 · Tides', week)?.readings.filter(
      (reading) => reading.expected !== null,
    )
    expect(wrong?.map(({ field, text, expected }) => [field, text, expected])).toEqual([
      ['week', '4', '3'],
      ['dates', 'Sep 15 – Sep 21', 'Sep 14 – Sep 20'],
    ])
  })
  it('is the inverse of rendering for topics that hold anything but the separator at their edge', () => {
    const topic = fc
      .string({ minLength: 1, maxLength: 60 })
      .map((text) => text.normalize('NFKC').replace(/\s+/g, ' ').trim())
      .filter((text) => /^[\p{L}\p{N}]/u.test(text) && !text.startsWith('['))
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), topic, (number, words) => {
        const values: FieldValues = { ...week, week: number, topic: words }
        const name = renderName(format, values).text
        const reading = readName(format, name, values)
        expect(reading?.readings.map((reading) => reading.text)).toEqual([
          String(number),
          'Sep 14 – Sep 20',
          words,
        ])
        expect(reading?.readings.every((reading) => reading.expected === null)).toBe(true)
      }),
    )
  })
  it('accepts just what the same format as a regular expression accepts (re2js as the oracle)', () => {
    const simple = formatOf('{code} · Quiz {number}: {topic}')
    const oracle = RE2JS.compile('^(.+?) · quiz (\\d+): (.+)$')
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('nav', ' · ', 'quiz ', '12', ': ', 'x', '·', ' '), {
          maxLength: 9,
        }),
        (pieces) => {
          const name = pieces.join('').replace(/ +/g, ' ').trim()
          expect(readName(simple, name, {}) !== null).toBe(oracle.matcher(name).find())
        },
      ),
      propertyRuns(),
    )
  })
  // The same language written as a regular expression for RE2, which is linear by construction.
  it.each([
    [
      'Week {week}{? · {topic}?}',
      '^week \\d{1,6}(?: · .+)?$',
      ['week ', '3', '12', ' · ', 'tides', ' ', '·', '0'],
    ],
    [
      '{start, d MMM}: {topic}',
      '^(?:[1-9]|0[1-9]|[12]\\d|3[01]) (?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec): .+$',
      ['14', ' ', 'sep', ': ', 'tides', '32', '0', 'sept', '9'],
    ],
    [
      '{kind, Lab|Reading} {number}{? ({minutes} min)?}',
      '^(?:lab|reading) \\d{1,6}(?: \\(\\d{1,6} min\\))?$',
      ['lab', 'reading', ' ', '3', ' (', '12', ' min)', 'min'],
    ],
    ['{weeks} {topic}', '^\\d+(?:-\\d+)? .+$', ['3', '-', '5', ' ', 'tides']],
    [
      'Week {week}{half}: {topic}',
      '^week \\d{1,6}[a-z]: .+$',
      ['week ', '3', 'a', 'b', ': ', 'tides', ' '],
    ],
  ])('accepts just what RE2 accepts: %s', (source, pattern, pieces) => {
    const format = formatOf(source)
    const oracle = RE2JS.compile(pattern)
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...pieces), { maxLength: 8 }), (chosen) => {
        const name = chosen.join('').replace(/ +/g, ' ').trim()
        expect([name, readName(format, name, {}) !== null]).toEqual([
          name,
          oracle.matcher(name).find(),
        ])
      }),
      propertyRuns(),
    )
  })
  it('says what is right, wrong and absent, and keeps to the bound of a text', () => {
    const bounded = formatOf('Week {week}: {topic, 2-4 words}{? ({minutes} min)?}')
    const states = (name: string) =>
      readName(bounded, name, { week: 3, minutes: 20 })?.readings.map((reading) => [
        reading.field,
        reading.state,
        reading.expected,
      ])
    expect(states('Week 3: The compass (20 min)')).toEqual([
      ['week', 'right', null],
      ['topic', 'right', null],
      ['minutes', 'right', null],
    ])
    expect(states('Week 4: Tides')).toEqual([
      ['week', 'wrong', '3'],
      ['topic', 'wrong', '2 to 4 words'],
      ['minutes', 'absent', '20'],
    ])
  })
  it('reads a code and a term by their shape, so that another’s is told whole', () => {
    const reading = readName(
      formatOf('{code} {title} · {term}'),
      'MEN 120 Diesel Propulsion I · Spring 2027',
      { code: 'NAV 110', term: 'Autumn 2026' },
    )
    expect(reading?.readings.map((reading) => [reading.text, reading.state])).toEqual([
      ['MEN 120', 'wrong'],
      ['Diesel Propulsion I', 'right'],
      ['Spring 2027', 'wrong'],
    ])
  })
  it('is refused beyond a cap: 64 fields in a format, 2,000 characters in a name', () => {
    expect(parseFormat('{topic}a'.repeat(65)).ok).toBe(false)
    expect(readName(formatOf('{topic}'), 'a'.repeat(2001), {})).toBeNull()
  })
  it('knows a weekday that is not the date’s own', () => {
    const day = formatOf('{start, EEE d MMM}')
    expect(readName(day, 'Mon 14 Sep', { start: '2026-09-14' })?.readings[0]?.state).toBe('right')
    expect(readName(day, 'Tue 14 Sep', { start: '2026-09-14' })?.readings[0]).toMatchObject({
      state: 'wrong',
      expected: 'Mon 14 Sep',
    })
  })
})
