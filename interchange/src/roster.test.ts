import { describe, expect, it } from 'vitest'
import { readRoster, rosterColumns } from './index.ts'

const header = rosterColumns.filter((column) => column !== 'duty').join(',')
const row =
  'NAV 110,Coastal Navigation,autumn-2026,,01,shared,sunniva.drake@kestrelsound.example,Sunniva Drake,on-campus,16,kc-1,teaching'
const read = (...lines: string[]) => readRoster(new TextEncoder().encode(lines.join('\r\n')))

describe('a roster file', () => {
  it('gives one course for all rows of one platform course id', () => {
    const { courses, errors } = read(header, row, row.replace(',01,', ',02,'))
    expect(errors).toEqual([])
    expect(courses).toMatchObject([
      {
        platformId: 'kc-1',
        department: 'NAV',
        classSections: ['01', '02'],
        session: null,
        weeks: 16,
        instructors: [{ name: 'Sunniva Drake' }],
      },
    ])
  })
  it('is read with a byte order mark, quoted fields (RFC 4180), columns in any order and without session', () => {
    const { courses, errors } = read(
      `\ufeff${[...rosterColumns]
        .filter((column) => column !== 'session' && column !== 'duty')
        .reverse()
        .join(',')}`,
      'teaching,kc-2,8,online,"Roe, Ines",ines@kestrelsound.example,own,01,autumn-2026,"Sea ""Ice""",OSC 240',
    )
    expect(errors).toEqual([])
    expect(courses[0]).toMatchObject({
      title: 'Sea "Ice"',
      instructors: [{ name: 'Roe, Ines' }],
      weeks: 8,
    })
  })
  it('tells line, column, what was found and what is wanted', () => {
    const { courses, errors } = read(
      header,
      row,
      row.replace(',16,', ',sixteen,').replace('kc-1', 'kc-2'),
      row.replace('on-campus', 'by post').replace('kc-1', 'kc-3'),
      'too,short',
    )
    expect(courses).toHaveLength(1)
    expect(errors).toEqual([
      { line: 3, column: 'weeks', found: 'sixteen', reason: 'a whole number from 1 to 60' },
      { line: 4, column: 'modality', found: 'by post', reason: 'one of on-campus, online, hybrid' },
      { line: 5, column: '', found: '2 fields', reason: '12 fields, as in the header' },
    ])
  })
  it('refuses rows that disagree about one course, and a class section that stands twice', () => {
    expect(
      read(
        header,
        row,
        row.replace('Coastal Navigation', 'Something Else').replace(',01,', ',02,'),
        row,
      ).errors.map((error) => error.column),
    ).toEqual(['title', 'class section'])
  })
  it.each([
    ['no text', new Uint8Array([0x50, 0x4b, 3, 4, 0, 0, 0, 8, 0xff]), /text file/],
    ['nothing', new Uint8Array(), /header/],
    ['an unknown column', new TextEncoder().encode(`${header},colour\n`), /no such column/],
    [
      'a missing column',
      new TextEncoder().encode(header.replace(',weeks', '')),
      /must have the column weeks/,
    ],
    ['an open quotation mark', new TextEncoder().encode(`${header}\n"NAV`), /quot/i],
    ['nonsense', new Uint8Array(50_000).fill(120), /column|max/i],
  ])('is refused as a whole: %s', (_, bytes, reason) => {
    const { courses, errors } = readRoster(bytes)
    expect(courses).toEqual([])
    expect(errors.map((error) => error.reason).join('; ')).toMatch(reason)
  })
})

describe('people in a roster file', () => {
  const withDuty = (...people: readonly [email: string, duty: string, section?: string][]) =>
    read(
      `${header},duty`,
      ...people.map(
        ([email, duty, section = '01']) =>
          `${row.replace('sunniva.drake@kestrelsound.example,Sunniva Drake', `${email},`).replace(',01,', `,${section},`)},${duty}`,
      ),
    )
  it('several may teach one class section, and others help there', () => {
    const { courses, errors } = withDuty(
      ['a@x.example', 'instructor'],
      ['b@x.example', 'owner'],
      ['c@x.example', 'assistant'],
      ['b@x.example', '', '02'],
    )
    expect(errors).toEqual([])
    expect(courses).toMatchObject([
      {
        classSections: ['01', '02'],
        instructors: [{ email: 'a@x.example' }, { email: 'b@x.example' }],
        duties: { owner: 'b@x.example', assistants: [{ email: 'c@x.example' }] },
      },
    ])
  })
  it('a file without the column says nothing of duties, and a row without one nothing of its person', () => {
    expect(read(header, row).courses[0]?.duties).toBe(null)
    const { courses, errors } = withDuty(
      ['a@x.example', '', '01'],
      ['a@x.example', 'assistant', '02'],
    )
    expect(errors).toEqual([])
    expect(courses[0]?.duties?.assistants.map(({ email }) => email)).toEqual(['a@x.example'])
  })
  it.each<[string, [string, string, string?][], RegExp]>([
    [
      'two owners',
      [
        ['a@x.example', 'owner'],
        ['b@x.example', 'owner'],
      ],
      /line 2 names a@x/,
    ],
    [
      'another duty than before',
      [
        ['a@x.example', 'owner'],
        ['a@x.example', 'assistant', '02'],
      ],
      /owner, as line 2 says/,
    ],
    ['a duty nobody knows', [['a@x.example', 'dean']], /owner, instructor, assistant, or nothing/],
    [
      'one person twice in a class section',
      [
        ['a@x.example', ''],
        ['a@x.example', ''],
      ],
      /with the same person/,
    ],
  ])('are refused, line by line: %s', (_, people, reason) => {
    expect(
      withDuty(...people)
        .errors.map((error) => error.reason)
        .join(),
    ).toMatch(reason)
  })
})
