import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Term } from '@wickerframe/core'
import { exampleFacts } from '@wickerframe/core/testing'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'
import { findTerm, putTerm, termRevision } from './terms.ts'

let college: CheckedCollege
const { term } = exampleFacts()
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
beforeEach(async () => {
  await putTerm(college.pool, term)
})
const address = `/api/terms/${term.code}`
const save = (edited: Term, was: string | null = termRevision(term), query = '') =>
  college.people.designer.post(`/api/terms/${edited.code}${query}`, { was, term: edited })
const stored = () => findTerm(college.pool, term.code)
const retitled = { ...term, title: 'Autumn, renamed' }
const laterBreak: Term = { ...term, firstDay: '2026-09-07', lastDay: '2026-10-30' }

describe('a term', () => {
  it('is saved from the revision that was edited, and its next edit names the new one', async () => {
    const saved = await save(retitled)
    expect(saved.status).toBe(200)
    expect(saved.body.revision).toBe(termRevision(retitled))
    expect((await college.people.reviewer.get(address)).body).toMatchObject({
      term: { title: 'Autumn, renamed' },
      revision: saved.body.revision,
      courses: [{ code: 'NAV 110', weeks: 8 }],
    })
  })
  it('that somebody else saved meanwhile is not overwritten: the answer has both', async () => {
    await save(retitled)
    const mine = await save({ ...term, title: 'Mine' })
    expect(mine.status).toBe(409)
    expect(mine.body.clash).toMatchObject({
      present: { title: 'Autumn, renamed' },
      wanted: { title: 'Mine' },
    })
    expect((await stored())?.title).toBe('Autumn, renamed')
  })
  it('edited by five at once is saved by one of them', async () => {
    const answers = await Promise.all(
      [1, 2, 3, 4, 5].map((i) => save({ ...term, title: `Autumn ${i}` })),
    )
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409, 409])
  })
  it('is made new once under a code, and never under another than its address says', async () => {
    const spring = { ...term, code: 'spring-2027', title: 'Spring' }
    expect((await save(spring, null)).status).toBe(200)
    expect((await save(spring, null)).status).toBe(409)
    const elsewhere = await college.people.designer.post(address, { was: null, term: spring })
    expect([elsewhere.status, elsewhere.body.detail]).toEqual([
      400,
      expect.stringContaining('/term/code'),
    ])
  })
  it('that its courses would not fit is refused with which and why', async () => {
    const answer = await save({ ...term, lastDay: '2026-09-25', breaks: [] })
    expect(answer.status).toBe(409)
    expect(answer.body.detail).toMatch(/NAV 110: it has 8 weeks, and the term would have \d/)
    expect(await stored()).toEqual(term)
  })
  it('shows what an edit changes in its courses, writes nothing, and is saved as shown or not at all', async () => {
    const preview = await college.people.designer.post(`${address}/preview`, { term: laterBreak })
    expect(preview.body).toMatchObject({ courses: 1, unchanged: 0 })
    const [change] = preview.body.changes
    expect(change.names[0].from).not.toBe(change.names[0].to)
    expect(change.dates.length).toBeGreaterThan(0)
    expect(await stored()).toEqual(term)
    const shown = `?shown=${preview.body.digest}`
    expect((await save({ ...laterBreak, title: 'Another' }, undefined, shown)).status).toBe(409)
    expect(await stored()).toEqual(term)
    expect((await save(laterBreak, undefined, shown)).status).toBe(200)
  })
  it('whose name alone changes leaves its courses as they are', async () => {
    const template = await college.people.designer.post(`${address}/preview`, {
      term: { ...term, holidays: [...term.holidays, { name: 'Market Day', date: '2026-09-19' }] },
    })
    expect(template.body).toMatchObject({ unchanged: 1, changes: [] })
  })
  it('is given as a calendar file with its weeks and what is free', async () => {
    const { body, headers } = await college.people.instructor.get(`${address}/calendar`)
    expect(headers.get('content-type')).toContain('text/calendar')
    expect(body).toContain('BEGIN:VCALENDAR')
    expect(body).toContain('Fall Pause')
    expect((await college.people.instructor.get('/api/terms/no-such/calendar')).status).toBe(404)
  })
  it('reads free days from a calendar file, between two days of one term', async () => {
    const file = [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//Kestrel Sound//Registrar//EN',
      'BEGIN:VEVENT',
      'UID:1@kestrelsound.example',
      'DTSTAMP:20260801T000000Z',
      'DTSTART;VALUE=DATE:20261012',
      'SUMMARY:Harvest Day',
      'END:VEVENT',
      'END:VCALENDAR',
      '',
    ].join('\r\n')
    const read = (text: string, until = '2026-12-18') =>
      college.people.designer.send(
        `/api/free-days?from=2026-08-31&until=${until}`,
        text,
        'text/calendar',
      )
    expect((await read(file)).body.holidays).toEqual([{ name: 'Harvest Day', date: '2026-10-12' }])
    expect((await read(file, '2030-01-01')).status).toBe(400)
    const none = await read('not a calendar')
    expect([none.status, none.body.detail]).toEqual([400, expect.stringContaining('expected')])
  })
  it('is edited by designers, and read by everybody who sees courses', async () => {
    const { instructor, reviewer } = college.people
    expect((await instructor.get('/api/terms')).body.map(({ code }: Term) => code)).toContain(
      term.code,
    )
    for (const client of [instructor, reviewer])
      expect((await client.post(address, { was: termRevision(term), term: retitled })).status).toBe(
        403,
      )
  })
})
