import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Conformance, WaiverQueue } from '@wickerframe/contract'
import type { CheckResult } from '@wickerframe/core'
import { exampleCourse, exampleFacts, exampleTemplate } from '@wickerframe/core/testing'
import { setRoles } from '../people/people.ts'
import { putTerm } from '../terms/terms.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'
import { carryWaivers } from './carryWaivers.ts'
import { tellOfEnds } from './tellOfEnds.ts'

const { department, term } = exampleFacts()
const rule = 'must-part-hidden'
let college: PrivateCollege
let designer: Client
/** Two courses of one department, and one of another. */
let ids: [one: number, two: number, other: number]

const addHidden = async (platformId: string, more: object = {}): Promise<number> => {
  const { course } = exampleCourse()
  course.id = platformId
  for (const { children } of course.modules)
    for (const child of children) if (child.kind !== 'module') child.published = false
  const id = await college.addCourse(course, more)
  await designer.post(`/api/courses/${id}/version`, { template: exampleTemplate().key, version: 1 })
  return id
}
beforeAll(async () => {
  college = await startPrivateCollege()
  const person = await college.person('designer')
  designer = await college.as(person)
  await college.release(exampleTemplate(), person)
  ids = [
    await addHidden('one'),
    await addHidden('two'),
    await addHidden('other', { department: 'GAL' }),
  ]
  await designer.post('/api/checks', { courses: ids })
  await college.work()
})
afterAll(() => college.stop())
beforeEach(async () => {
  await college.pool.query('DELETE FROM waivers')
  await college.pool.query(`UPDATE courses
    SET held_anew_at = NOW(3)`)
  await designer.post('/api/checks', { courses: ids })
  await college.work()
})

const give = (more: object = {}, client = designer) =>
  client.post('/api/waivers', { rule, reason: 'The dean agreed', ...more })
const resultOf = async (id: number, query = ''): Promise<CheckResult> =>
  (await designer.get(`/api/courses/${id}${query}`)).body.result
/** Whether nothing of the rule is open in each of the three. */
const excused = async (query = ''): Promise<boolean[]> =>
  Promise.all(
    ids.map(async (id) =>
      (await resultOf(id, query)).findings
        .filter((finding) => finding.rule === rule)
        .every(({ places }) => places.every(({ waived }) => waived)),
    ),
  )
const queue = async (client = designer): Promise<WaiverQueue> =>
  (await client.get('/api/waivers')).body

describe('a waiver for many courses', () => {
  it.each<[what: string, reach: object, reached: boolean[]]>([
    ['every course', {}, [true, true, true]],
    ['a department', { department }, [true, true, false]],
    ['the courses under a template', { template: exampleTemplate().key }, [true, true, true]],
    ['a term', { term: term.code }, [true, true, true]],
    ['a department that has none', { department: 'SEA' }, [false, false, false]],
  ])('for %s excuses the rule there and nowhere else, at once', async (_, reach, reached) => {
    expect(await excused()).toEqual([false, false, false])
    const { status, body } = await give(reach)
    expect([status, body.courses]).toEqual([200, reached.filter(Boolean).length])
    await college.work()
    expect(await excused()).toEqual(reached)
  })
  it('for a list of courses excuses it in those', async () => {
    expect((await give({ courses: [ids[0], ids[2]] })).body.courses).toBe(2)
    await college.work()
    expect(await excused()).toEqual([true, false, true])
  })
  it('of a part excuses whatever is wrong there, in every week', async () => {
    const parts = new Set(
      (await resultOf(ids[0])).findings
        .filter((finding) => finding.rule === rule)
        .flatMap(({ places }) => places.map(({ place }) => place.part)),
    )
    const [part] = parts
    expect(parts.size).toBeGreaterThan(1)
    await give({ rule: null, part })
    await college.work()
    const open = (await resultOf(ids[0])).findings.flatMap(({ places }) =>
      places.flatMap(({ waived, place }) => (waived ? [] : [place.part])),
    )
    expect(open).not.toContain(part)
    expect(open.length).toBeGreaterThan(0)
  })
  it('reaches a course that comes later, and nothing before its first day or after its last', async () => {
    await give({ department, from: '2026-09-20', until: '2026-09-30' })
    const late = await addHidden(`late-${Date.now()}`)
    await designer.post('/api/checks', { courses: [late] })
    await college.work()
    const open = async (asOf: string) => {
      await designer.post('/api/checks', { courses: [late], asOf })
      await college.work()
      return (await resultOf(late, `?asOf=${asOf}`)).counts.waived > 0
    }
    expect([
      await open('2026-09-19'),
      await open('2026-09-20'),
      await open('2026-09-30'),
      await open('2026-10-01'),
    ]).toEqual([false, true, true, false])
    await college.pool.query(
      `UPDATE courses
       SET status = ?
       WHERE id = ?`,
      ['set-aside', late],
    )
  })
  it('is withdrawn once, and excuses nothing from then on', async () => {
    await give()
    await college.work()
    const [waiver] = (await queue()).inForce
    const away = () => designer.post(`/api/waivers/${waiver?.id}/withdraw`)
    expect((await away()).body.courses).toBeGreaterThanOrEqual(3)
    await college.work()
    expect(await excused()).toEqual([false, false, false])
    expect((await away()).status).toBe(409)
    expect((await queue()).past).toMatchObject([{ id: waiver?.id, state: 'withdrawn' }])
  })
  it('leaves courses shown as they were until each is checked again, and says of how many', async () => {
    const weave = async (): Promise<Conformance> => (await designer.get('/api/conformance')).body
    const before = await weave()
    await give({ department })
    expect(await weave()).toEqual({ ...before, checkedAgain: 2 })
    expect(await excused()).toEqual([false, false, false])
    await college.work()
    expect(await weave()).toMatchObject({ checkedAgain: 0, unchecked: 0 })
    expect(await excused()).toEqual([true, true, false])
  })
  it('that is cancelled before courses are checked again leaves them untold, not wrongly told', async () => {
    await give({ department })
    await college.work()
    const [waiver] = (await queue()).inForce
    const { run } = (await designer.post(`/api/waivers/${waiver?.id}/withdraw`)).body
    await designer.post(`/api/runs/${run}/cancel`)
    expect((await designer.get('/api/conformance')).body).toMatchObject({
      checkedAgain: 0,
      unchecked: 2,
      rows: [{ id: ids[2] }],
    })
  })
  it('asks the platform nothing when courses are checked again for it', async () => {
    for (const id of ['one', 'two', 'other'])
      college.platform.instead('snapshot', {
        state: 'refused',
        status: 404,
        code: 'gone',
        detail: `no ${id}`,
      })
    const { run } = (await give()).body
    await college.work()
    expect((await designer.get(`/api/runs/${run}`)).body.counts.failed).toBe(0)
    expect(await excused()).toEqual([true, true, true])
    for (const id of ids) await college.platform.connector.snapshot(String(id))
  })
  it('of one term goes on in the next only where that is said', async () => {
    const next = {
      ...term,
      code: 'spring-2027',
      title: 'Spring 2027',
      firstDay: '2027-01-11',
      lastDay: '2027-05-01',
    }
    await putTerm(college.pool, { ...next, breaks: [], holidays: [], sessions: [], otherDates: [] })
    const later = await addHidden('later', { term: next.code })
    const counts = async (more: object) => {
      await college.pool.query('DELETE FROM waivers')
      return (await give({ term: term.code, ...more })).body.courses
    }
    const once = await counts({})
    expect(await counts({ carried: true })).toBe(once + 1)
    await college.pool.query('DELETE FROM waivers')
    await college.pool.query(
      `UPDATE courses
       SET status = ?
       WHERE id = ?`,
      ['set-aside', later],
    )
  })
  it.each<[what: string, request: object, status: number, says: RegExp]>([
    ['neither rule nor part', { rule: null }, 400, /expected a rule, or a part/],
    ['a rule there is not', { rule: 'no-such-rule' }, 400, /no-such-rule/],
    ['a day that is gone', { from: '2026-09-01' }, 400, /\/from/],
    ['an end before its beginning', { from: '2026-09-20', until: '2026-09-19' }, 400, /\/until/],
    ['a term there is not', { term: 'never' }, 404, /term/],
    ['a template there is not', { template: 'never' }, 404, /template/],
    ['no reason', { reason: ' ' }, 400, /reason/],
  ])('is not given with %s', async (_, request, status, says) => {
    const answer = await give(request)
    expect([answer.status, answer.body.detail]).toEqual([status, expect.stringMatching(says)])
    expect((await queue()).inForce).toEqual([])
  })
  it('is given and withdrawn by designers, each in the departments they look after', async () => {
    const person = await college.person('designer', 'galley')
    await setRoles(college.pool, person.id, ['designer'], ['GAL'])
    const galley = await college.as(person)
    expect([
      (await give({}, galley)).status,
      (await give({ department }, galley)).status,
      (await give({ courses: [ids[0], ids[2]] }, galley)).status,
      (await give({ department: 'GAL' }, galley)).status,
    ]).toEqual([403, 403, 404, 200])
    await give({ department })
    const seen = (await queue(galley)).inForce
    expect(seen.map(({ reach, mayDecide }) => [reach.department, mayDecide])).toEqual(
      expect.arrayContaining([
        ['GAL', true],
        [department, false],
      ]),
    )
    const foreign = seen.find(({ mayDecide }) => !mayDecide)
    expect((await galley.post(`/api/waivers/${foreign?.id}/withdraw`)).status).toBe(403)
    for (const role of ['instructor', 'reviewer', 'contributor'] as const)
      expect((await give({}, await college.as(await college.person(role)))).status).toBe(403)
  })
})

describe('the queue of waivers', () => {
  it('has those asked for, those in force by their end, and those past, each with what it is about', async () => {
    const [teaching] = exampleFacts().instructors
    const instructor = await college.as(
      await college.person('instructor', teaching?.email.split('@')[0]),
    )
    const [place] = (await resultOf(ids[0])).findings.flatMap((finding) =>
      finding.rule === rule ? finding.places : [],
    )
    const ask = { fingerprints: [place?.fingerprint], reason: 'We meet at sea' }
    expect((await instructor.post(`/api/courses/${ids[0]}/waivers`, ask)).status).toBe(200)
    await give({ department, until: '2026-10-10' })
    await give({ until: '2026-09-20', reason: 'First' })
    const { asked, inForce } = await queue()
    expect(asked).toMatchObject([
      { reason: 'We meet at sea', course: { id: ids[0] }, mayDecide: true, reach: { courses: 1 } },
    ])
    expect(asked[0]?.title).not.toBe('')
    expect(inForce.map(({ until, course }) => [until, course])).toEqual([
      ['2026-09-20', null],
      ['2026-10-10', null],
    ])
    const answer = { decision: 'refuse', answer: 'Show it by Friday' }
    await designer.post(`/api/courses/${ids[0]}/waivers/${asked[0]?.id}`, answer)
    expect((await queue()).past).toMatchObject([{ state: 'refused', answer: 'Show it by Friday' }])
  })
})

describe('a waiver of a course', () => {
  const ask = async (more: object = {}) => {
    const [place] = (await resultOf(ids[0])).findings.flatMap((finding) =>
      finding.rule === rule ? finding.places.filter(({ place }) => place.week === 2) : [],
    )
    const answer = await designer.post(`/api/courses/${ids[0]}/waivers`, {
      fingerprints: [place?.fingerprint],
      reason: 'At sea',
      ...more,
    })
    expect(answer.status).toBe(200)
    return place
  }
  it('of a part excuses its rule in every week', async () => {
    const place = await ask({ scope: 'part' })
    const found = (await resultOf(ids[0])).findings.filter((finding) => finding.rule === rule)
    const places = found.flatMap((finding) => finding.places)
    const same = places.filter(({ place: { part } }) => part === place?.place.part)
    expect(same.length).toBeGreaterThan(1)
    expect(same.every(({ waived }) => waived)).toBe(true)
    expect(places.some(({ waived }) => !waived)).toBe(true)
  })
  it('is carried to the course of the next term where that was said, for the same part in the same week', async () => {
    const place = await ask({ carried: true })
    await ask({ scope: 'rule', carried: false })
    await carryWaivers(college.pool, ids[0], ids[1], '2026-12-01')
    await carryWaivers(college.pool, ids[0], ids[1], '2026-12-01')
    const rows = await college.rows(
      `SELECT scope, part, week
       FROM waivers
       WHERE course_id = ${ids[1]}`,
    )
    expect(rows).toEqual([{ scope: 'part', part: place?.place.part, week: 2 }])
    await designer.post('/api/checks', { courses: [ids[1]] })
    await college.work()
    const waived = (await resultOf(ids[1])).findings.flatMap(({ places }) =>
      places.flatMap((one) => (one.waived ? [[one.place.part, one.place.week]] : [])),
    )
    expect(waived).toEqual([[place?.place.part, 2]])
  })
  it('is told to whoever asked for it once, a fortnight before it ends', async () => {
    const [teaching] = exampleFacts().instructors
    await ask({ until: '2026-10-10' })
    await college.pool.query(
      `UPDATE waivers
       SET asked_by = ?`,
      [teaching?.email],
    )
    await college.pool.query('DELETE FROM messages')
    const told = async (today: string) => {
      await tellOfEnds(college.pool, today)
      return (
        await college.rows<{ subject: string }>(`SELECT subject
          FROM messages`)
      ).length
    }
    expect([await told('2026-09-25'), await told('2026-09-26'), await told('2026-09-27')]).toEqual([
      0, 1, 1,
    ])
  })
})
