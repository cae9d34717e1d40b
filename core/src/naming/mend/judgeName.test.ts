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

describe('how sure a mended name is, as the bench says it, and why', () => {
  /** As people read it: from 0.9 on sure, from 0.8 fairly sure and picked for them, from 0.6 doubtful, below a guess. */
  const certainty = (confidence: number): string =>
    confidence >= 0.9
      ? 'sure'
      : confidence >= 0.8
        ? 'fairly'
        : confidence >= 0.6
          ? 'doubtful'
          : 'a guess'
  const quiz = '{code} · Quiz {number}: {topic}'
  const due = 'Week {week}, due {due}: {topic}'
  it.each<[string, string, FieldValues, string, string]>([
    [byWeek, 'Week 3 - Sep 14-20 - Tides', {}, 'sure', 'written-otherwise'],
    [byWeek, 'wk 3: Tides', {}, 'sure', 'shortened week, supplied dates'],
    [byWeek, 'NAV 110 Week 3: Tides', {}, 'sure', 'supplied dates, left-out'],
    [byWeek, 'Week 3 · Sep 14 – Sep 20 · Tides (copy)', {}, 'sure', 'left-out'],
    [byWeek, 'Week 3 · Sep 15 – Sep 21 · Tides', {}, 'sure', 'wrong dates'],
    [byWeek, 'Week 3 · Mar 2 – Mar 8 · Tides', {}, 'fairly', 'wrong dates'],
    [byWeek, 'Week 4 · Sep 14 – Sep 20 · Tides', {}, 'fairly', 'wrong week'],
    [byWeek, '**Week 3** Tides', {}, 'fairly', 'supplied dates, stray-marks'],
    [byWeek, 'Tides (week 3) of the sound', {}, 'doubtful', 'supplied dates, own-words-joined'],
    [byWeek, 'Module 3: Tides', {}, 'doubtful', 'another-stretch week, supplied dates'],
    [byWeek, 'Week 3', {}, 'a guess', 'supplied dates, no-own-words'],
    [byWeek, 'Week 3 · [topic] · Sep 14 – Sep 20', {}, 'a guess', 'no-own-words'],
    [byWeek, 'Week 4: Tides', {}, 'a guess', 'wrong week, supplied dates'],
    [byWeek, 'Tides', {}, 'a guess', 'supplied week, supplied dates'],
    // A topic that is known tells the place, and may be put where none stands.
    [byWeek, 'Week 4: Tides', { topic: 'Tides' }, 'fairly', 'wrong week, supplied dates'],
    [byWeek, 'Sep 14 – Sep 20', { topic: 'Tides' }, 'fairly', 'supplied week, supplied topic'],
    [quiz, 'Quiz 3 Tides', {}, 'sure', 'supplied code'],
    [quiz, 'NAV 110 Tides quiz', {}, 'doubtful', 'supplied number'],
    ['{code} {title} · {term}', 'Coastal Navigation', {}, 'sure', 'supplied code, supplied term'],
    [
      '{minutes}-minute talk: {topic}',
      'Talk: Tides',
      { minutes: 30 },
      'doubtful',
      'supplied minutes',
    ],
    ['Week {week}{? · {topic}?}', 'wk 3', {}, 'sure', 'shortened week'],
    ['Reading for week {week}: {topic}', 'Week 3: Tides', {}, 'fairly', 'written-otherwise'],
    [due, 'Week 3: Tides', { due: '2026-09-18' }, 'sure', 'supplied due'],
    [due, 'Week 3, due Sep 19: Tides', { due: '2026-09-18' }, 'sure', 'wrong due'],
  ])('%s, %s, knowing %j: %s; %s', (format, name, known, sure, why) => {
    const { confidence, reasons } = mend(format, name, at({ ...week3, ...known }))
    expect([
      certainty(confidence),
      reasons
        .filter(({ code }) => code !== 'own-words-kept')
        .map((reason) =>
          'field' in reason && reason.field ? `${reason.code} ${reason.field}` : reason.code,
        )
        .join(', '),
    ]).toEqual([sure, why])
  })
  it('says of each field how it stood', () => {
    expect(
      mend(byWeek, 'wk 4: Tides').fields.map(({ field, state, text, expected, isPrompt }) => [
        field,
        state,
        text,
        expected,
        isPrompt,
      ]),
    ).toEqual([
      ['week', 'wrong', 'wk 4', '3', false],
      ['dates', 'absent', '', 'Sep 14 – Sep 20', false],
      ['topic', 'right', 'Tides', null, false],
    ])
  })
})

describe('a format that begins with a number and no word beside it', () => {
  const formats = [
    '{week, 00} / {topic} / {dates}',
    '{week, 00} · {topic}',
    '{week}. {topic}',
    '{week} – {topic}',
    '{week}: {topic}',
    '{week, 00}_{topic}',
    '{dates} | {week} | {topic}',
    '{code} {week, 00}: {topic}',
    '{topic} ({week})',
    '{topic} / {week}',
  ]
  const named = (format: string, week: number) =>
    renderName(formatOf(format), { ...week3, week, topic: 'Knots' }).text
  it.each(formats)(
    '%s: the number of another week is wrong, and no part of the topic',
    (format) => {
      for (const week of [1, 2, 4, 5, 12])
        expect(mend(format, named(format, week))).toMatchObject({
          mended: named(format, 3),
          reasons: expect.arrayContaining([
            expect.objectContaining({ code: 'wrong', field: 'week' }),
          ]),
        })
    },
  )
  it.each(formats)('%s: a topic that begins with a number keeps it', (format) => {
    for (const topic of ['12 angry men', '5-point bearings', '3D charts', '2 to 3 knots']) {
      const name = renderName(formatOf(format), { ...week3, topic }).text
      expect(mend(format, name)).toMatchObject({ mended: name })
      expect(mend(format, topic).mended).toContain(topic)
    }
  })
  it('takes no day of a month for its number', () => {
    expect(mend('{week, 00} {topic}', 'Knots until Sep 3').mended).toBe('03 Knots until Sep 3')
  })
})

describe('days in digits alone', () => {
  it.each([
    'Week 3 Knots 0914-0920',
    'Week 3 Knots 1409-2009',
    'Week 3 · Knots 20260914–20260920',
    'Week 3: 9.14-9.20 Knots',
    'Week 3 · Knots · 14.–20.9.',
    'Week 3 Knots (9-14 to 9-20)',
  ])('%s: are the dates where they are those of the place', (name) => {
    expect(mend(byWeek, name).mended).toBe('Week 3 · Sep 14 – Sep 20 · Knots')
  })
  it.each(['1914-1918', '1066-1087', '2.1-2.9', '0907-0913'])(
    'Knots %s: stay in the topic where they are not',
    (number) => {
      expect(mend(byWeek, `Week 3 Knots ${number}`).mended).toBe(
        `Week 3 · Sep 14 – Sep 20 · Knots ${number}`,
      )
    },
  )
  it('leaves it to a person where they may be those of another week', () => {
    expect(mend(byWeek, 'Week 3 Knots 0907-0913').confidence).toBeLessThan(0.8)
    expect(mend(byWeek, 'Week 3 Knots 1914-1918').confidence).toBeGreaterThan(0.9)
  })
})

describe('“copy” at the end of a name that follows', () => {
  it.each(['Tides copy', 'Tides copy 2', 'Marées copie'])('%s: may be left over', (topic) => {
    const judged = mend(byWeek, `Week 3 · Sep 14 – Sep 20 · ${topic}`)
    expect(judged.mended).toBe(`Week 3 · Sep 14 – Sep 20 · ${topic.split(' ')[0]}`)
    expect(judged.confidence).toBeLessThan(0.8)
  })
  it.each(['Make a copy', 'Your fair copy', 'Photocopy', 'How to copy'])(
    '%s: is a topic',
    (topic) => {
      expect(mend(byWeek, `Week 3 · Sep 14 – Sep 20 · ${topic}`).verdict).toBe('follows')
    },
  )
})

describe('a place that is known by more than the name', () => {
  const sure = { ...at(week3), placeSure: true }
  it.each([
    [byWeek, 'Week 4 · Sep 21 – Sep 27 · Tides', 'Week 3 · Sep 14 – Sep 20 · Tides'],
    [byWeek, 'Week 4: Tides', 'Week 3 · Sep 14 – Sep 20 · Tides'],
    ['{week, 00} / {topic}', '04 / Tides', '03 / Tides'],
    ['{code} · Quiz {number}: {topic}', 'NAV 205 · Quiz 3: Tides', 'NAV 110 · Quiz 3: Tides'],
    [byWeek, 'NAV 205 Week 3: Tides', 'Week 3 · Sep 14 – Sep 20 · Tides'],
  ])('%s, %s: is named for it, surely enough to propose', (format, name, right) => {
    const judged = mend(format, name, sure)
    expect(judged.mended).toBe(right)
    expect(judged.confidence).toBeGreaterThanOrEqual(0.8)
    expect(mend(format, name).confidence).toBeLessThan(0.8)
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
    '{week, 00} / {topic} / {dates}',
    '{week}. {topic}',
    '{topic} ({week})',
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
    '0914-0920',
    '05',
    ' / ',
    '.',
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
        fc.boolean(),
        (format, name, placeSure) => {
          const here = { ...at(week3), placeSure }
          const judged = judgeName(format, name, here)
          if (judged.mended === null) return
          const reading = readName(format, judged.mended, week3)
          expect(reading?.follows).toBe('exact')
          expect(reading?.readings.filter((field) => field.state === 'wrong')).toEqual([])
          expect(judgeName(format, judged.mended, here)).toMatchObject({
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
