import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { CollegeHistory, CourseStanding, RuleUse } from '@wickerframe/contract'
import { everyCourseItem, type Course } from '@wickerframe/core'
import { inTransaction, rowsOf } from '@wickerframe/storage'
import { keepHistory } from './keptHistory.ts'
import { setRoles } from '../people/people.ts'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
beforeEach(async () => {
  for (const table of ['readiness_changes', 'finding_spells', 'history_kept'])
    await college.pool.query(`DELETE FROM ${table}`)
  await college.readWith()
})
const hideWelcome = (course: Course): void => {
  for (const { item } of everyCourseItem(course))
    if (item.name.startsWith('Welcome')) item.published = false
}
/** Whatever was kept today was kept so many days ago. */
const daysPass = async (days: number): Promise<void> => {
  await college.pool.query(
    `UPDATE readiness_changes
     SET day = DATE_SUB(day, INTERVAL ? DAY)
     ORDER BY day`,
    [days],
  )
  await college.pool.query(
    `UPDATE finding_spells
     SET came = DATE_SUB(came, INTERVAL ? DAY), went = DATE_SUB(went, INTERVAL ? DAY)`,
    [days, days],
  )
}
const standing = async (): Promise<CourseStanding> =>
  (await college.people.instructor.get(`${college.about}/standing`)).body
const ofCollege = async (): Promise<CollegeHistory> =>
  (await college.people.reviewer.get('/api/history')).body

describe('the history of a course', () => {
  it('keeps a day on which it stood otherwise, and of several checks of a day the last', async () => {
    await daysPass(5)
    await college.readWith()
    expect((await standing()).changes).toMatchObject([{ day: '2026-09-11', readiness: 'ready' }])
    await college.readWith(hideWelcome)
    await college.readWith()
    expect((await standing()).changes).toHaveLength(1)
    await college.readWith(hideWelcome)
    expect((await standing()).changes).toMatchObject([
      { day: '2026-09-11', readiness: 'ready' },
      { day: '2026-09-16', readiness: 'not-ready', openMusts: 1 },
    ])
  })
  it('says when a finding came, went and came back, though the very same check was made before', async () => {
    await college.readWith(hideWelcome)
    await daysPass(9)
    await college.readWith()
    await daysPass(3)
    await college.readWith(hideWelcome)
    const { spells } = await standing()
    const hidden = spells.filter(({ rule }) => rule === 'must-part-hidden')
    expect(hidden.map(({ rule, came, went }) => [rule, came, went])).toEqual([
      ['must-part-hidden', '2026-09-16', null],
      ['must-part-hidden', '2026-09-04', '2026-09-13'],
    ])
    expect(new Set(hidden.map(({ fingerprint }) => fingerprint)).size).toBe(1)
  })
  it('has one spell of a finding, however many checks tell it at once', async () => {
    await college.readWith(hideWelcome)
    await college.pool.query('DELETE FROM finding_spells')
    const result = await college.result()
    await Promise.all(
      Array.from({ length: 6 }, () =>
        inTransaction(college.pool, (database) =>
          keepHistory(database, [{ courseId: college.course, resultId: 1, result }], '2026-09-16'),
        ),
      ),
    )
    const { spells, changes } = await standing()
    expect(spells.map(({ fingerprint }) => fingerprint)).toEqual([
      ...new Set(spells.map(({ fingerprint }) => fingerprint)),
    ])
    expect(spells.length).toBeGreaterThan(0)
    expect(changes).toHaveLength(1)
  })
  it('is kept from a new result once: telling the same again reads no finding anew', async () => {
    await college.readWith(hideWelcome)
    const keptFrom = async () =>
      rowsOf<{ kept: number | null; latest: number }>(
        college.pool,
        `SELECT result_id AS kept, (SELECT MAX(id) FROM check_results) AS latest
         FROM history_kept`,
      )
    const [first] = await keptFrom()
    expect(first?.kept).toBe(first?.latest)
    const before = await standing()
    await college.people.designer.post(`${college.about}/check`)
    await college.work()
    expect([await keptFrom(), await standing()]).toEqual([[first], before])
  })
  it('is not changed by a check as of another day', async () => {
    await college.readWith(hideWelcome)
    const before = await standing()
    await college.people.designer.post(`${college.about}/check`, { asOf: '2026-11-20' })
    await college.work()
    expect(await standing()).toEqual(before)
  })
  it('counts the days from opening to ready', async () => {
    await college.readWith(hideWelcome)
    expect((await standing()).daysToReady).toBe(null)
    await daysPass(12)
    await college.readWith()
    expect(await standing()).toMatchObject({ opening: '2026-08-31', daysToReady: 16 })
  })
  it('of another’s course is nobody else’s', async () => {
    const other = await college.as(await college.person('instructor', 'other'))
    expect((await other.get(`${college.about}/standing`)).status).toBe(404)
  })
})

describe('the history of the college', () => {
  it('is drawn from the first day that is known, in all and by bands', async () => {
    await college.readWith(hideWelcome)
    await daysPass(4)
    await college.readWith()
    const { from, until, college: days, bands, daysToReady } = await ofCollege()
    expect([from, until]).toEqual(['2026-09-12', '2026-09-16'])
    expect(days.map(({ notReady, ready }) => [notReady, ready])).toEqual([
      [1, 0],
      [1, 0],
      [1, 0],
      [1, 0],
      [0, 1],
    ])
    expect(bands.map((band) => band.days)).toEqual([days])
    expect(daysToReady).toEqual([16])
  })
  it('is of those courses that one sees', async () => {
    const person = await college.person('reviewer', 'chair')
    await setRoles(college.pool, person.id, ['reviewer'], ['ZZZ'])
    const { body } = await (await college.as(person)).get('/api/history')
    expect(body).toMatchObject({ bands: [], daysToReady: [], neverReady: 0 })
    expect((await college.people.instructor.get('/api/history')).status).toBe(403)
  })
})

describe('how a rule fared', () => {
  const rule = 'must-part-hidden'
  const use = async (client = college.people.designer): Promise<RuleUse> => {
    const found = ((await client.get('/api/rules/use')).body as RuleUse[]).find(
      ({ id }) => id === rule,
    )
    if (!found) throw new Error('every rule is told')
    return found
  }
  const hidden = async () => {
    const [place] = (await college.result()).findings.flatMap((finding) =>
      finding.rule === rule ? finding.places : [],
    )
    if (!place) throw new Error('the hidden page is told')
    return place
  }
  beforeEach(async () => {
    for (const table of ['waivers', 'follow_ups']) await college.pool.query(`DELETE FROM ${table}`)
    await college.pool.query(`UPDATE courses
      SET held_anew_at = NOW(3)`)
    await college.readWith(hideWelcome)
  })
  it('counts places found and open, and those that stand open for a fortnight', async () => {
    expect(await use()).toMatchObject({ found: 1, courses: 1, open: 1, openLong: 0 })
    await daysPass(13)
    expect(await use()).toMatchObject({ openLong: 0 })
    await daysPass(1)
    expect(await use()).toMatchObject({ openLong: 1, planned: 0, otherwise: 0 })
  })
  it('tells those mended by a plan from those that somebody mended', async () => {
    await college.readWith()
    expect(await use()).toMatchObject({ found: 1, open: 0, planned: 0, otherwise: 1 })
    await college.readWith(hideWelcome)
    const { fingerprint, digest } = await hidden()
    const { status, body } = await college.people.designer.post(`${college.about}/mends`, {
      mends: [{ fingerprint, digest }],
    })
    expect([status, body]).toEqual([200, body])
    await college.work()
    await college.readWith()
    // The same place came and went twice; the plan mended what is this place.
    expect(await use()).toMatchObject({ found: 2, open: 0 })
    expect((await use()).planned).toBeGreaterThan(0)
  })
  it('counts what was waived as neither mended nor gone', async () => {
    await college.people.designer.post(`${college.about}/waivers`, {
      fingerprints: [(await hidden()).fingerprint],
      reason: 'At sea',
    })
    expect(await use()).toMatchObject({ waived: 1, open: 0, otherwise: 0 })
  })
  it('counts what was answered for', async () => {
    const { fingerprint } = await hidden()
    const about = `${college.about}/follow-ups`
    const said = [
      await college.people.designer.post(about, { does: 'raise', fingerprints: [fingerprint] }),
      await college.people.instructor.post(about, {
        does: 'answer',
        fingerprints: [fingerprint],
        answer: 'It is right so',
      }),
    ]
    expect(said.map(({ status }) => status)).toEqual([200, 200])
    expect(await use()).toMatchObject({ answered: 1 })
  })
  it('has those first that most speaks against', async () => {
    await college.people.designer.post(`${college.about}/waivers`, {
      fingerprints: [(await hidden()).fingerprint],
      scope: 'rule',
      reason: 'At sea',
    })
    const all: RuleUse[] = (await college.people.reviewer.get('/api/rules/use')).body
    expect(all[0]?.id).toBe(rule)
    expect((await college.people.instructor.get('/api/rules/use')).status).toBe(403)
  })
})
