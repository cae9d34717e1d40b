import { describe, expect, it } from 'vitest'
import { partsOfListed, problemsOfRow, readListed, type ListedRow } from './index.ts'

/** Rows as a drawing: two spaces for each step, then what is said of them. */
const drawn = (text: string, html?: string): string[] =>
  readListed(text, html).rows.map(
    ({ depth, kind, name, repeats, due, points, strength }) =>
      '  '.repeat(depth) +
      [kind, name, repeats, due, points, strength].filter((said) => said !== '').join(' | '),
  )

describe('a list that becomes rows', () => {
  it('is nested as it is indented, and what holds others is a module', () => {
    expect(
      drawn('Start here\n  Welcome\n  Syllabus quiz\n\nHarbour\n\tTides\n\t\tTable of tides\nWind'),
    ).toEqual([
      'module | Start here',
      '  page | Welcome',
      '  assessment | Syllabus quiz',
      'module | Harbour',
      '  module | Tides',
      '    page | Table of tides',
      'page | Wind',
    ])
  })
  it.each([
    ['bullets', '• Start\n\t◦ Welcome\n• Wind'],
    ['a dash under a line', 'Start\n- Welcome\nWind'],
    ['numbers and letters', '1. Start\na) Welcome\n2. Wind'],
    ['numbers that tell how deep', '1 Start\n1.1 Welcome\n2 Wind'.replace(/^(\d) /gm, '$1. ')],
    ['numbers and bullets', '1) Start\n   - Welcome\n2) Wind'],
  ])('is read with %s, which are no part of a name', (_, text) => {
    expect(drawn(text)).toEqual(['module | Start', '  page | Welcome', 'page | Wind'])
  })
  it.each([
    ['Syllabus quiz', 'assessment'],
    ['Mid-term', 'assessment'],
    ['Discussion of the final exam', 'discussion'],
    ['Forum: introduce yourself', 'discussion'],
    ['Lab report', 'assignment'],
    ['Lab 3: Bearings', 'event'],
    ['Visit to the lighthouse', 'event'],
    ['Exam sitting', 'event'],
    ['Quiz report', 'assignment'],
    ['Essay about the test of the hull', 'assignment'],
    ['Slides', 'file'],
    ['chart.pdf', 'file'],
    ['https://tides.example/today', 'web-link'],
    ['Contest of knots', 'page'],
    ['Overview', 'page'],
    ['[discussion] Knots', 'discussion'],
    ['[sic] Knots', 'page'],
  ])('takes “%s” for a part of the kind %s', (name, kind) => {
    expect(readListed(name).rows.map((row) => row.kind)).toEqual([kind])
  })
  it.each([
    ['Weeks 1–15', 'Week {week}', 'each week, 1 to 15'],
    ['Unit 2 to 5: a look back', 'Unit {unit}: a look back', 'each unit, 2 to 5'],
    ['Reading (each week)', 'Reading', 'each week'],
    ['Log, every other week', 'Log', 'even weeks'],
    ['Weekly log', 'Weekly log', 'each week'],
    ['Lab report × 3', 'Lab report', '3 times'],
    ['Drill (2 times)', 'Drill', '2 times'],
    ['Weeks 9–3', 'Weeks 9–3', ''],
    ['Each week', 'Each week', ''],
  ])('takes from “%s” the name %s and the repeat “%s”', (text, name, repeats) => {
    expect(readListed(text).rows).toMatchObject([{ name, repeats }])
  })
  it('has one row for those that differ by their number, and says so', () => {
    const text = [1, 2, 3]
      .map(
        (n) =>
          `Week ${n}: ${['Harbour', 'Tides', 'Wind'][n - 1]}\n  Overview of week ${n}\n  Quiz ${n}`,
      )
      .join('\n')
    expect(drawn(text)).toEqual([
      'module | Week {week}: {topic} | each week, 1 to 3',
      '  page | Overview of week {week}',
      '  assessment | Quiz {week}',
    ])
    expect(readListed(text).notes).toEqual([
      '3 rows that differ by their number became one that repeats.',
      'What 3 of them were about is a field now: each course says it for itself.',
    ])
  })
  it('keeps rows apart that differ by more than their number', () => {
    expect(drawn('Week 1\n  Quiz\nWeek 2\n  Essay\nWeek 4\n  Essay')).toHaveLength(6)
    expect(drawn('Week 1 by the harbour\nWeek 2 at sea')).toHaveLength(2)
    expect(drawn('Chapter 3\nChapter 4')).toHaveLength(2)
  })
  it('counts those that are no weeks', () => {
    expect(drawn('Chapter 1\nChapter 2')).toEqual(['page | Chapter {number} | 2 times'])
  })
  it('does not repeat in a week what is said to come each week', () => {
    expect(drawn('Weeks 1-8\n  Reading (each week)\n  Log, every other week')).toEqual([
      'module | Week {week} | each week, 1 to 8',
      '  page | Reading',
      '  assignment | Log | even weeks',
    ])
  })
  it('leaves prose and what is too much out, and says so', () => {
    const long = 'word '.repeat(100)
    const many = Array.from({ length: 450 }, (_, i) => `Page ${'x'.repeat(i % 7)}${i}`).join('\n')
    expect(readListed(`Welcome\n${long}`)).toMatchObject({
      rows: [{ name: 'Welcome' }],
      notes: ['1 paragraph too long for a name: left out.'],
    })
    expect(readListed(many).rows).toHaveLength(400)
    expect(readListed(many).notes).toEqual(['Only the first 400 lines are taken; 50 more are not.'])
    expect(readListed('')).toEqual({ rows: [], notes: [] })
  })
})

describe('a table that becomes rows', () => {
  it('has its columns by their headings, in whatever order', () => {
    const text =
      'Due date\tWeek\tTitle\tType\tMax\nSunday 23:59\tHarbour\tQuiz on ropes\tQuiz\t10\n\tHarbour\tOverview\tPage\t\n\tSea\tLog\tPaper\t20'
    expect(drawn(text)).toEqual([
      'module | Harbour',
      '  assessment | Quiz on ropes | Sunday 23:59 | 10',
      '  page | Overview',
      'module | Sea',
      '  assignment | Log | 20',
    ])
  })
  it('has them by what stands in them where no heading tells', () => {
    expect(drawn('must\tOverview\tpage\t\nshould\tLab report\tassignment\t20')).toEqual([
      'page | Overview | must',
      'assignment | Lab report | 20 | should',
    ])
    expect(drawn('Harbour\tOverview\nHarbour\tTides\nSea\tWind')).toEqual([
      'module | Harbour',
      '  page | Overview',
      '  page | Tides',
      'module | Sea',
      '  page | Wind',
    ])
  })
  it('is read from what a spreadsheet copied as HTML', () => {
    expect(
      drawn(
        '',
        '<table><tr><td>Item</td><td>Points</td></tr><tr><td>Essay</td><td>20</td></tr></table>',
      ),
    ).toEqual(['assignment | Essay | 20'])
  })
})

describe('a list copied as HTML', () => {
  it('is nested as it stands there; headings hold what follows them', () => {
    expect(
      drawn(
        'not this',
        '<h1>Start</h1><p>Welcome</p><h2>Rules</h2><ul><li>Safety<ol><li>Vests</li></ol></li></ul><h1>Sea</h1>',
      ),
    ).toEqual([
      'module | Start',
      '  page | Welcome',
      '  module | Rules',
      '    module | Safety',
      '      page | Vests',
      'page | Sea',
    ])
  })
})

const row = (said: Partial<ListedRow>): ListedRow => ({
  depth: 0,
  kind: 'assignment',
  name: 'Essay',
  url: '',
  strength: '',
  audience: '',
  repeats: '',
  due: '',
  points: '',
  may: '',
  ...said,
})

describe('what is read of a row', () => {
  it('is written as in the outline', () => {
    const [part] = partsOfListed([
      row({
        strength: 'should',
        due: 'Sunday',
        points: '12,5',
        may: 'rename',
        repeats: 'even weeks',
      }),
    ]).parts
    expect(part).toMatchObject({
      kind: 'assignment',
      strength: 'should',
      may: { rename: true },
      repeat: { per: 'week', every: 2 },
      settings: { due: { from: 'weekday', weekday: 'sunday', time: '23:59' }, points: 12.5 },
    })
  })
  it('is told where it cannot be, and the rest of the row is taken', () => {
    const wrong = row({ strength: 'perhaps', due: 'soon', points: 'many', name: 'Essay {wek}' })
    expect(problemsOfRow(wrong)).toMatchObject({
      strength: 'must, should or may',
      points: 'a number from 0 to 10,000',
      due: expect.stringContaining('soon'),
      name: expect.stringContaining('wek'),
    })
    expect(partsOfListed([row({ due: 'soon', points: '5' })]).parts).toMatchObject([
      { settings: { points: 5 } },
    ])
  })
})
