import { describe, expect, it } from 'vitest'
import { changesInWords } from './changesInWords.ts'
import { courseItem, courseModule } from '../rules/example/courseParts.ts'
import { emptyCourse } from '../rules/example/exampleCourse.ts'

const course = {
  ...emptyCourse('c', 'NAV 110'),
  modules: [
    courseModule('m', 'Week 3', [
      courseItem('i', 'Overview', { html: '<p>Old</p>', work: { minutes: 30 } }),
    ]),
  ],
  settings: { language: 'en' },
}
const says = (changes: Parameters<typeof changesInWords>[0]) =>
  changesInWords(changes, course, 'America/Halifax').map(({ says }) => says)

describe('changes in words', () => {
  it('name what they change, and only what differs', () => {
    expect(
      says([
        { change: 'set-item', id: 'i', fields: { name: 'Week 3 overview', published: false } },
      ]),
    ).toEqual(['“Overview” is renamed to “Week 3 overview”', '“Overview” is hidden from students'])
    expect(
      says([{ change: 'set-item', id: 'i', fields: { work: { minutes: 30, graceMinutes: 5 } } }]),
    ).toEqual(['“Overview”: minutes of grace becomes “5”'])
    expect(
      says([{ change: 'set-course', settings: { language: 'en', joinByKey: false } }]),
    ).toEqual(['Course setting “joining by key” becomes off'])
    expect(says([{ change: 'move-item', id: 'i', module: 'm', at: null }])).toEqual([
      '“Overview” moves to the end in “Week 3”',
    ])
  })
  it('tell moments in the term’s own time', () => {
    expect(
      says([{ change: 'set-item', id: 'i', fields: { dueAt: '2026-09-21T02:59:00Z' } }]),
    ).toEqual(['“Overview” is due 2026-09-20 23:59'])
  })
  it('carry the text of a page before and after', () => {
    expect(
      changesInWords(
        [{ change: 'set-item', id: 'i', fields: { html: '<p>New</p>' } }],
        course,
        'UTC',
      )[0]?.text,
    ).toEqual({ before: '<p>Old</p>', after: '<p>New</p>' })
  })
})
