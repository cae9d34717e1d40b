import { describe, expect, it } from 'vitest'
import { readCourseValues } from './courseValues.ts'
import { readRoster } from './roster.ts'

const read = (text: string) => readCourseValues(new TextEncoder().encode(text))

describe('a table of values for courses', () => {
  it('is read as it is pasted from a spreadsheet: tabs, short day names, spans of weeks', () => {
    const { rows, errors } = read(
      'Course\tRoom\tMeeting days\tTopic 1\tTopic 3\tUnit 1\nNAV 110 03\tPilot House 2\tTue, Thu\tCharts, and why\t\t1–4\n',
    )
    expect(errors).toEqual([])
    expect(rows).toEqual([
      {
        line: 2,
        course: 'NAV 110 03',
        room: 'Pilot House 2',
        meetingDays: ['tuesday', 'thursday'],
        topics: { 1: 'Charts, and why' },
        units: [{ number: 1, firstWeek: 1, lastWeek: 4 }],
      },
    ])
  })
  it('and as CSV, with quoted commas; an empty cell says nothing', () => {
    expect(read('course,room,topic 2\nks-1,,"Knots, bends"\n').rows).toEqual([
      { line: 2, course: 'ks-1', topics: { 2: 'Knots, bends' }, units: [] },
    ])
  })
  it.each([
    ['course,colour\nks-1,red', 'colour', /no such column/],
    ['room\nA', 'course', /must have the column/],
    ['course,meeting days\nks-1,someday', 'meeting days', /weekdays/],
    ['course,unit 1\nks-1,9-4', 'unit 1', /weeks it covers/],
    ['course,instructor e-mail\nks-1,nobody', 'instructor e-mail', /e-mail/],
    ['course,room\n,A', 'course', /which course/],
    ['course,topic 61\nks-1,A', 'topic 61', /1 to 60/],
  ])('%j is refused at its line and column', (text, column, reason) => {
    const { errors } = read(text)
    expect(errors).toHaveLength(1)
    expect(errors[0]).toMatchObject({ column, reason: expect.stringMatching(reason) })
  })
})

describe('roster rows that name no course', () => {
  const header =
    'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status\n'
  const rows = (sections: string[]) =>
    header +
    sections
      .map(
        (section) =>
          `NAV 110,Coastal Navigation,spring-2027,,${section},own,,,on-campus,15,teaching`,
      )
      .join('\n')
  const made = (how: 'each' | 'shared') =>
    readRoster(new TextEncoder().encode(rows(['01', '02'])), how).courses.map((course) => [
      course.platformId,
      course.classSections.join(),
    ])
  it('get one each, or one for all of a course, under an id that is the same every time', () => {
    expect(made('each')).toEqual([
      ['spring-2027-nav-110-01', '01'],
      ['spring-2027-nav-110-02', '02'],
    ])
    expect(made('shared')).toEqual([['spring-2027-nav-110-on-campus', '01,02']])
    expect(made('shared')).toEqual(made('shared'))
  })
  it('are refused where courses are not to be made', () => {
    expect(readRoster(new TextEncoder().encode(rows(['01']))).errors[0]).toMatchObject({
      column: 'platform course id',
    })
  })
})
