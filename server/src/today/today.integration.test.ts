import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { TodayView } from '@wickerframe/contract'
import { everyCourseItem, type Course } from '@wickerframe/core'
import { exampleCourse } from '@wickerframe/core/testing'
import { markHeldAnew } from '../checks/heldAnew.ts'
import { setRoles } from '../people/people.ts'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
/** Nothing is raised, waived or told any more. */
const forgetAll = async () => {
  for (const table of ['follow_ups', 'waivers', 'messages'])
    await college.pool.query(`DELETE FROM ${table}`)
  await markHeldAnew(college.pool, college.course)
}
beforeEach(async () => {
  await forgetAll()
  await college.readWith()
})

const owner = 'sunniva.drake@kestrelsound.example'
const today = async (who: 'designer' | 'reviewer' = 'designer'): Promise<TodayView> =>
  (await college.people[who].get('/api/today')).body
const hideWelcome = (course: Course): void => {
  for (const { item } of everyCourseItem(course))
    if (item.name.startsWith('Welcome')) item.published = false
}
/** A picture that nobody can hear, in a page of week 6: only whoever teaches can say what it shows. */
const muteWeek6 = (course: Course): void => {
  for (const { item } of everyCourseItem(course))
    if (item.name === 'Week 6 overview') item.html = `${item.html}<p><img src="/chart.png"></p>`
}

describe('today', () => {
  it('names what is not ready by its class sections, with what is met first, now, and what can be done', async () => {
    await college.readWith(hideWelcome)
    const { notReady } = await today()
    expect(notReady).toMatchObject({
      count: 1,
      lines: [
        { id: college.course, by: null, mends: 1, first: expect.stringContaining('Welcome') },
      ],
    })
    expect(notReady.lines[0]?.classSections).not.toEqual([])
    const { week, weeks, term, duplicates } = await today()
    expect([week, weeks, term.code]).toEqual([3, 8, 'autumn-2026'])
    expect(duplicates.count).toBe(0)
    await college.readWith()
    expect((await today()).notReady).toEqual({ count: 0, lines: [] })
  })
  it('tells class sections that two courses have', async () => {
    const other = await college.addCourse({ ...exampleCourse().course, id: 'again' })
    expect((await today()).duplicates.lines).toMatchObject([
      {
        classSection: 'NAV 110, class section 01',
        courses: [{ id: college.course }, { id: other }],
      },
    ])
    await college.pool.query(
      `DELETE FROM courses
       WHERE id = ?`,
      [other],
    )
  })
  it('says by which day students meet what is not in order in a later week', async () => {
    await college.readWith(muteWeek6)
    const [line] = (await today()).notReady.lines
    expect(line).toMatchObject({ by: '2026-10-05', mends: 0, toRaise: 1 })
    expect(line?.first).toContain('Week 6 overview')
  })
  it('tells who waits: a waiver that is asked for, an answer, a promise whose day has passed', async () => {
    await college.readWith(hideWelcome)
    const place = (await college.result()).findings.find(({ rule }) => rule === 'must-part-hidden')
      ?.places[0]
    const fingerprints = [place?.fingerprint ?? '']
    const { designer, instructor } = college.people
    await instructor.post(`${college.about}/waivers`, { fingerprints, reason: 'We sail that week' })
    expect((await today()).waiting).toMatchObject({
      count: 1,
      lines: [
        {
          id: college.course,
          what: 'waiver-asked',
          who: 'Sunniva Drake',
          about: 'We sail that week',
        },
      ],
    })
    await college.pool.query('DELETE FROM waivers')
    await designer.post(`${college.about}/follow-ups`, { does: 'raise', fingerprints })
    expect((await today()).waiting.count).toBe(0)
    await instructor.post(`${college.about}/follow-ups`, {
      does: 'answer',
      fingerprints,
      answer: 'It is on purpose',
    })
    expect((await today()).waiting.lines).toMatchObject([
      { what: 'answer', who: 'Sunniva Drake', says: 'It is on purpose', about: place?.message },
    ])
    await instructor.post(`${college.about}/follow-ups`, {
      does: 'promise',
      fingerprints,
      by: '2026-09-20',
    })
    expect((await today()).waiting.count).toBe(0)
    await college.pool.query(`UPDATE follow_ups
      SET promised_for = '2026-09-15'`)
    expect((await today()).waiting.lines).toMatchObject([
      { what: 'promise-passed', on: '2026-09-15' },
    ])
  })
  it('tells of a waiver in the fortnight before it ends, and of no other', async () => {
    await college.readWith(hideWelcome)
    const found = (await college.result()).findings.find(({ rule }) => rule === 'must-part-hidden')
    const ask = (until: string | null) =>
      college.people.designer.post(`${college.about}/waivers`, {
        fingerprints: [found?.places[0]?.fingerprint],
        reason: `until ${until}`,
        until,
      })
    await ask(null)
    expect((await today()).waiting.count).toBe(0)
    await forgetAll()
    await college.readWith(hideWelcome)
    await ask('2026-09-30')
    expect((await today()).waiting.lines).toMatchObject([
      { what: 'waiver-ends', on: '2026-09-30', about: 'until 2026-09-30' },
    ])
    await college.pool.query(`UPDATE waivers
      SET until_date = '2026-10-01'`)
    expect((await today()).waiting.count).toBe(0)
  })
  it('shows no course of others to whoever sees only a department', async () => {
    await college.readWith(hideWelcome)
    expect((await today()).notReady.count).toBe(1)
    const person = await college.person('designer', 'galley')
    await setRoles(college.pool, person.id, ['designer'], ['ZZZ'])
    const other = await college.as(person)
    const { notReady, mendFirst } = (await other.get('/api/today')).body as TodayView
    expect([notReady.count, mendFirst]).toEqual([0, []])
  })
})

describe('a thing to mend first', () => {
  const first = async () => {
    const [action] = (await today()).mendFirst
    if (!action) throw new Error('nothing to mend')
    return action
  }
  it('whose mend is known is planned in all courses, and made once the plan is approved', async () => {
    await college.readWith(hideWelcome)
    const { rule, part, byMachine, count, courses } = await first()
    expect([byMachine, count, courses.map(({ id }) => id)]).toEqual([true, 1, [college.course]])
    const { designer } = college.people
    const { body } = await designer.post('/api/mends/of-one-thing', { rule, part })
    const planned = (await designer.get(`/api/runs/${body.run}`)).body
    expect(planned).toMatchObject({ state: 'planned', title: '1 mend in 1 course' })
    await designer.post(`/api/runs/${body.run}/approve`)
    await college.work()
    expect((await today()).mendFirst).toEqual([])
    const again = await designer.post('/api/mends/of-one-thing', { rule, part })
    expect([again.status, again.body.detail]).toEqual([
      409,
      expect.stringContaining('mended already'),
    ])
  })
  it('that somebody must answer is raised with each of them, once, and they are told', async () => {
    await college.readWith(muteWeek6)
    const { rule, part, people, byMachine } = await first()
    expect([people, byMachine]).toEqual([1, false])
    const { designer, instructor } = college.people
    const raise = async () => (await designer.post('/api/follow-ups', { rule, part })).body
    expect(await raise()).toEqual({ places: 1, courses: 1, people: 1, nobodys: 0 })
    expect(await raise()).toEqual({ places: 0, courses: 0, people: 0, nobodys: 0 })
    const messages = (await instructor.get('/api/messages')).body
    expect(messages).toMatchObject([
      {
        subject: expect.stringMatching(/^To mend in .*: one thing was raised with you$/),
        body: expect.stringContaining('Week 6 overview'),
        course: college.course,
      },
    ])
    expect((await college.detail()).care.followUps).toMatchObject([{ state: 'raised', owner }])
  })
  it('is nobody’s where nobody teaches, and that is said', async () => {
    await college.readWith(muteWeek6)
    const { rule, part } = await first()
    await college.pool.query('DELETE FROM course_people')
    await college.readWith(muteWeek6)
    const { body } = await college.people.designer.post('/api/follow-ups', { rule, part })
    expect(body).toEqual({ places: 0, courses: 0, people: 0, nobodys: 1 })
  })
  it('is raised and planned by designers only', async () => {
    await college.readWith(hideWelcome)
    const { rule, part } = await first()
    for (const who of ['instructor', 'reviewer'] as const)
      for (const route of ['/api/follow-ups', '/api/mends/of-one-thing'])
        expect((await college.people[who].post(route, { rule, part })).status).toBe(403)
    expect((await college.detail()).care.followUps).toEqual([])
  })
})
