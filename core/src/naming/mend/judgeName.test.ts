import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  formatOf,
  judgeName,
  longestName,
  readName,
  reasonWords,
  renderName,
  type FieldValues,
  type NameContext,
} from '../index.ts'
import { propertyRuns } from '../../testing/propertyRuns.testing.ts'

const dates = (first: string, last: string) => ({ first, last })
const week3: FieldValues = {
  code: 'NAV 110',
  title: 'Coastal Navigation',
  term: 'Autumn 2026',
  week: 3,
  number: 3,
  dates: dates('2026-09-14', '2026-09-20'),
  start: '2026-09-14',
  end: '2026-09-20',
}
const at = (...places: FieldValues[]): NameContext => ({
  places,
  near: '2026-08-31',
  classSections: ['01', '02'],
})
const byWeek = 'Week {week} · {dates} · {topic}'
const mend = (format: string, name: string, context = at(week3)) =>
  judgeName(formatOf(format), name, context)

describe('a name that follows', () => {
  it('is left as it is, surely', () => {
    expect(mend(byWeek, 'Week 3 · Sep 14 – Sep 20 · Tides')).toMatchObject({
      verdict: 'follows',
      mended: 'Week 3 · Sep 14 – Sep 20 · Tides',
      confidence: 1,
      reasons: [],
    })
  })
  it.each([
    ['Week 3 · Sep 14 - Sep 20 · Tides', ['dashes']],
    ['Week 3 ·  Sep 14 – Sep 20 · Tides', ['spaces']],
    ['WEEK 3 · Sep 14 – Sep 20 · Tides', ['case']],
    ['Week\u00a03 · Sep 14 – Sep 20 · Tides', ['compatibility']],
    ['Ｗｅｅｋ ３ · Sep 14 – Sep 20 · Tides', ['compatibility']],
    ['week 03 · Sep 14 - Sep 20 · Tides', ['dashes', 'case', 'zeros']],
  ])('%s: only small differences, named', (name, differences) => {
    expect(mend(byWeek, name)).toMatchObject({
      verdict: 'small-differences',
      differences,
      mended: 'Week 3 · Sep 14 – Sep 20 · Tides',
    })
  })
  it('with its prompt standing follows, and says what is absent', () => {
    expect(mend(byWeek, 'Week 3 · Sep 14 – Sep 20 · [topic]')).toMatchObject({
      verdict: 'follows',
      fields: [{ state: 'right' }, { state: 'right' }, { field: 'topic', state: 'absent' }],
    })
  })
})

describe('mending', () => {
  it.each([
    ['wk 3 - tides (9/14 to 9/20)', 'tides'],
    ['3rd week: Tides', 'Tides'],
    ['Week three, Tides', 'Tides'],
    ['WEEK III Tides', 'Tides'],
    ['Tides (week 3, 14/09 – 20/09)', 'Tides'],
    ['Week 3 Sept. 14th–20th Tides', 'Tides'],
    ['Week 3, 14 Sept to 20 Sept: Tides', 'Tides'],
    ['Week 3 2026-09-14 – 2026-09-20 Tides', 'Tides'],
    ['Semaine 3 (du 14 au 20 septembre) : Marées', 'Marées'],
    ['Semana 3: Mareas (14 al 20 de septiembre)', 'Mareas'],
    ['Week 3 · Sep 14 – Sep 20 · Tides (copy)', 'Tides'],
    ['Copy of Week 3: Tides', 'Tides'],
    ['Week 3: Tides (2)', 'Tides'],
    ['Week 3: Tides 101 · in March - part 2', 'Tides 101 · in March - part 2'],
    ['Week 3: 2 tides, 3-point fixes, 5-10 knots', '2 tides, 3-point fixes, 5-10 knots'],
    ['wk 3: make a copy of the log', 'make a copy of the log'],
  ])('%s', (name, topic) => {
    const judged = mend(byWeek, name)
    expect(judged).toMatchObject({
      verdict: 'mendable',
      mended: `Week 3 · Sep 14 – Sep 20 · ${topic}`,
    })
    expect(judged.confidence).toBeGreaterThan(0.8)
    expect(judged.reasons.map(reasonWords).join()).not.toBe('')
  })
  it('says what is right, wrong and absent', () => {
    expect(
      mend(byWeek, 'Wk 3: Tides').fields.map((field) => [field.field, field.state, field.expected]),
    ).toEqual([
      ['week', 'right', null],
      ['dates', 'absent', 'Sep 14 – Sep 20'],
      ['topic', 'right', null],
    ])
    expect(mend(byWeek, 'Week 3 · Sep 15 – Sep 21 · Tides').fields[1]).toMatchObject({
      state: 'wrong',
      text: 'Sep 15 – Sep 21',
      expected: 'Sep 14 – Sep 20',
    })
  })
  it('takes a class section out of the name of a merged course', () => {
    expect(
      mend('{code} {title} · {term}', 'NAV 110-01 Coastal Navigation · Autumn 2026'),
    ).toMatchObject({
      mended: 'NAV 110 Coastal Navigation · Autumn 2026',
      reasons: [{ code: 'left-out', what: 'class-section', text: '-01' }],
    })
  })
  it('is less sure where the number is another’s, and hardly where the dates are as well', () => {
    const number = mend(byWeek, 'Week 4: Tides')
    const both = mend(byWeek, 'Week 4 · Sep 21 – Sep 27 · Tides')
    expect(number.confidence).toBeLessThan(0.8)
    expect(both.confidence).toBeLessThan(number.confidence)
  })
})

describe('what cannot be told', () => {
  it.each([
    ['{code} · Quiz {number}: {topic}', 'NAV 205 · Quiz 3: Tides', 'another-course'],
    ['{code} · Quiz {number}: {topic}', 'Assignment 3: Tides', 'another-kind'],
    ['{code} {title} · {term}', 'Boats with Sunniva', 'nothing-recognised'],
    [byWeek, 'x'.repeat(longestName + 1), 'too-long'],
  ])('%s, %s: no guess', (format, name, code) => {
    const judged = mend(format, name)
    expect([judged.verdict, judged.mended, judged.confidence]).toEqual(['unreadable', null, 0])
    expect(judged.reasons.map((reason) => reason.code)).toContain(code)
  })
})

describe('a place that is not known', () => {
  const weeks = [1, 2, 3, 4].map((week): FieldValues => ({
    week,
    dates: dates(
      `2026-09-${String(week * 7).padStart(2, '0')}`,
      `2026-09-${String(week * 7 + 2).padStart(2, '0')}`,
    ),
    ...(week === 2 ? { topic: 'Leading marks' } : {}),
  }))
  it('is told by the number, the dates or the topic', () => {
    expect(mend(byWeek, 'wk 3: Tides', at(...weeks)).place).toBe(2)
    expect(mend(byWeek, 'Sept 28: Tides', at(...weeks)).place).toBe(3)
    expect(mend(byWeek, 'Leading marks', at(...weeks)).place).toBe(1)
  })
  it('is not guessed', () => {
    expect(mend(byWeek, 'Tides', at(...weeks))).toMatchObject({
      verdict: 'unreadable',
      place: null,
    })
    expect(mend(byWeek, 'week 9: Tides', at(...weeks))).toMatchObject({ verdict: 'unreadable' })
  })
})

describe('always', () => {
  const formats = [
    byWeek,
    '{code} · Quiz {number}: {topic}',
    'Week {week}{? · {topic}?}',
    '{topic} (week {week})',
    '{code} {title} · {term}',
    '{week, 00} {topic}',
    '{dates, MMM d–d}: {topic}',
    'Reading for week {week}: {topic}',
  ].map(formatOf)
  const piece = fc.constantFrom(
    'wk',
    'Week',
    'week',
    '3',
    '4',
    'iii',
    'three',
    ' ',
    ' - ',
    ': ',
    ' · ',
    '(',
    ')',
    'Sep 14',
    '9/14',
    '–',
    '20',
    'to',
    'Tides',
    'NAV 110',
    'NAV 205',
    'quiz',
    'copy',
    '(2)',
    'Autumn 2026',
    'F26',
    'the',
    'of',
    '“x”',
    'é',
    'e\u0301',
    '１',
    '[topic]',
    '{',
    '**',
    'ª',
    '°',
  )
  const typed = fc.array(piece, { minLength: 1, maxLength: 12 }).map((pieces) => pieces.join(''))
  it('a mended name reads as right, and mending it again changes nothing', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...formats),
        fc.oneof(typed, fc.string({ maxLength: 60 })),
        (format, name) => {
          const judged = judgeName(format, name, at(week3))
          if (judged.mended === null) return
          const reading = readName(format, judged.mended, week3)
          expect(reading?.follows).toBe('exact')
          expect(reading?.readings.filter((field) => field.state === 'wrong')).toEqual([])
          expect(judgeName(format, judged.mended, at(week3))).toMatchObject({
            verdict: 'follows',
            mended: judged.mended,
            confidence: 1,
          })
        },
      ),
      propertyRuns(),
    )
  }, 30_000)
  it('a right name stays as it is, whatever the topic holds', () => {
    const topic = fc
      .string({ minLength: 1, maxLength: 40 })
      .map((text) => text.normalize('NFKC').replace(/\s+/g, ' ').trim())
      .filter((text) => /^\p{L}.*[\p{L}\p{N}]$/u.test(text) && !/\bcop(?:y|ie|ia)\b/i.test(text))
    fc.assert(
      fc.property(topic, (words) => {
        const name = renderName(formatOf(byWeek), { ...week3, topic: words }).text
        expect(mend(byWeek, name).mended).toBe(name)
      }),
      propertyRuns(),
    )
  })
})
