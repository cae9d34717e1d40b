import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Conformance, CrossingEvidence } from '@wickerframe/contract'
import { everyCourseItem, openMustsOf, type Course } from '@wickerframe/core'
import { exampleCourse } from '@wickerframe/core/testing'
import { change } from '@wickerframe/storage'
import { gistForm, listChecks } from './checkDigests.ts'
import { markHeldAnew } from './heldAnew.ts'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
beforeEach(() => college.readWith())

const task = async (run: number) =>
  (await college.people.designer.get(`/api/runs/${run}`)).body.tasks[0]
const check = async (body: object = {}): Promise<number> => {
  const answer = await college.people.designer.post(`${college.about}/check`, body)
  await college.work()
  return answer.body.run
}
const hideWelcome = (course: Course): void => {
  for (const child of course.modules[0]?.children ?? [])
    if (child.kind !== 'module' && child.name.startsWith('Welcome')) child.published = false
}
const results = async (): Promise<number> =>
  (
    await college.rows(`SELECT id
      FROM check_results`)
  ).length

describe('a check', () => {
  it('of what was checked before is not worked out again, and says so', async () => {
    const before = await results()
    expect(await task(await check())).toMatchObject({
      state: 'done',
      message: 'unchanged since the last check',
    })
    expect(await results()).toBe(before)
  })
  it('of a course that was edited tells what is wrong, and what came since the check before', async () => {
    await college.readWith(hideWelcome)
    const { result, care } = await college.detail()
    const told = result?.findings.find(({ rule }) => rule === 'must-part-hidden')
    expect(care.since?.fresh).toContain(told?.places[0]?.fingerprint)
    await college.readWith()
    expect((await college.detail()).care.since?.gone.join()).toContain('Welcome')
  })
  it('as of another day is another answer, kept beside the first', async () => {
    const now = await college.result()
    const later = await college.result('?asOf=2026-10-22')
    expect([now.asOf, later.asOf]).toEqual(['2026-09-16', '2026-10-22'])
    expect((await college.result()).findings).toEqual(now.findings)
  })
  it.each([
    [
      'is gone from the platform',
      { state: 'refused', status: 404, code: 'no-course', detail: 'no' },
      'failed',
      /the platform has no course example/,
    ],
    [
      'is refused by it',
      { state: 'refused', status: 403, code: 'no', detail: 'not yours' },
      'failed',
      /refused: not yours/,
    ],
  ] as const)(
    'of a course that %s fails with the reason, and nothing is lost',
    async (_, answer, state, message) => {
      const before = await college.detail()
      college.platform.instead('snapshot', answer)
      const ended = await task(await check())
      expect([ended.state, ended.message]).toEqual([state, expect.stringMatching(message)])
      expect((await college.detail()).result).toEqual(before.result)
    },
  )
  it('waits for a platform that is away, however long that takes: that is no attempt', async () => {
    const away = { state: 'later', afterSeconds: null, detail: 'it is being mended' } as const
    college.platform.instead('snapshot', ...Array.from({ length: 30 }, () => away))
    expect(await task(await check())).toMatchObject({ state: 'done', attempts: 1 })
  })
  it('asks again where no answer comes for a course, and is given up in the end', async () => {
    const silent = { state: 'unknown', detail: 'no whole answer in 30 seconds' } as const
    college.platform.instead('snapshot', silent)
    expect(await task(await check())).toMatchObject({ state: 'done', attempts: 2 })
    college.platform.instead('snapshot', silent, silent, silent, silent, silent)
    expect(await task(await check())).toMatchObject({
      state: 'failed',
      message: 'no whole answer in 30 seconds',
    })
  })
  it('of a course under no template reads it, and says that there is nothing to hold it against', async () => {
    const other = await college.addCourse({ ...exampleCourse().course, id: 'bare' })
    const { body } = await college.people.designer.post('/api/checks', { courses: [other] })
    await college.work()
    expect((await task(body.run)).message).toContain('under no template')
    const detail = (await college.people.designer.get(`/api/courses/${other}`)).body
    expect([detail.result, detail.snapshot.id]).toEqual([null, 'bare'])
  })
  it('of a course that one may not see is not begun', async () => {
    const stranger = await college.as(await college.person('instructor', 'stranger'))
    expect((await stranger.post(`${college.about}/check`)).status).toBe(404)
    expect((await stranger.get(college.about)).status).toBe(404)
    expect((await college.people.designer.post('/api/checks', { courses: [999_999] })).status).toBe(
      404,
    )
  })
  it('can be taken away as a file, once there is one', async () => {
    const { headers, body } = await college.people.designer.get(`${college.about}/report`)
    expect(headers.get('content-disposition')).toContain('check-example-2026-09-16.json')
    expect(body.asOf).toBe('2026-09-16')
  })
})

describe('the weave', () => {
  it('has a row for each course that was checked, and counts those that were not', async () => {
    await college.readWith(hideWelcome)
    await college.addCourse({ ...exampleCourse().course, id: 'unread' })
    const { body } = await college.people.reviewer.get('/api/conformance')
    expect(body.rows.map(({ id }: { id: number }) => id)).toEqual([college.course])
    const { groups, rows } = body as Conformance
    const columns = groups.flatMap((group) => group.columns)
    expect(rows[0]?.strands).toHaveLength(columns.length)
    expect(groups.length).toBeGreaterThan(3)
    expect(body).toMatchObject({
      totals: { courses: expect.any(Number), ready: 0, openMusts: expect.any(Number) },
    })
    expect(body.unchecked).toBe(body.totals.courses - 1)
    expect(body.totals.openMusts).toBeGreaterThan(0)
    expect(body.mendFirst.map(({ rule }: { rule: string }) => rule)).toContain('must-part-hidden')
  })
  it('tells what is open at a crossing, and of a course that was kept in the old way the worst of each week', async () => {
    await college.readWith(hideWelcome)
    const weave = async () =>
      (await college.people.reviewer.get('/api/conformance')).body as Conformance
    const { groups, rows } = await weave()
    const at = groups.flatMap((group) => group.columns)[rows[0]?.strands.indexOf('X') ?? -1]
    const { findings } = (
      await college.people.reviewer.get(
        `${college.about}/crossing?column=${encodeURIComponent(at?.key ?? '')}`,
      )
    ).body as CrossingEvidence
    expect(findings.map(({ strength }) => strength)).toContain('must')
    await college.pool.query(
      `UPDATE check_results
       SET crossings = ?, rewritten = UUID()`,
      [
        JSON.stringify([
          { column: 'week:1', strands: ['met', 'open-should'] },
          { column: 'week:2', strands: ['met'] },
          { column: 'home', strands: [] },
        ]),
      ],
    )
    const kept = await weave()
    expect(kept.groups.map(({ key }) => key)).toEqual(['week:1', 'week:2'])
    expect(kept.rows[0]?.strands).toBe('sm')
    await college.pool.query('DELETE FROM check_results')
  })
  it('leaves out courses that are not taught', async () => {
    await college.pool.query(
      `UPDATE courses
       SET status = 'set-aside'
       WHERE id = ?`,
      [college.course],
    )
    expect((await college.people.reviewer.get('/api/conformance')).body.rows).toEqual([])
    await college.pool.query(
      `UPDATE courses
       SET status = 'teaching'
       WHERE id = ?`,
      [college.course],
    )
  })
})

describe('a page', () => {
  const pageId = async () => {
    const page = everyCourseItem((await college.detail()).snapshot as Course).find(
      ({ item }) => item.kind === 'page' && item.name.startsWith('Welcome'),
    )
    return page?.item.id ?? ''
  }
  const reworded = (course: Course): void => {
    for (const { item } of everyCourseItem(course))
      if (item.name.startsWith('Welcome') && item.html)
        item.html = item.html
          .replace('by Friday', 'by and by')
          .replace(
            '</p>',
            '</p><script>alert(1)</script><img src="http://elsewhere.example/x.png">',
          )
  }
  it('is compared block by block: what was altered comes first, word by word', async () => {
    await college.readWith(reworded)
    const { body } = await college.people.instructor.get(
      `${college.about}/items/${await pageId()}/difference`,
    )
    expect(body.blocks[0]).toMatchObject({ key: 'promise', state: 'altered' })
    expect(body.blocks[0].difference).toContainEqual({
      text: expect.stringContaining('by'),
      change: 'new',
    })
  })
  it.each(['', '/marked'])('is shown in a sandbox, with nothing active in it%s', async (how) => {
    await college.readWith(reworded)
    const { body, headers } = await college.people.instructor.get(
      `${college.about}/items/${await pageId()}${how}`,
    )
    expect(headers.get('content-security-policy')).toContain('sandbox')
    expect(body).toMatch(/by and by|<ins class="new">and by/)
    expect(body).not.toMatch(/<script|alert|elsewhere/)
  })
  it('that is not in the course is not there', async () => {
    for (const how of ['', '/marked', '/difference'])
      expect((await college.people.designer.get(`${college.about}/items/none${how}`)).status).toBe(
        404,
      )
  })
})

describe('a clock that is moved back', () => {
  it('as when a demonstration starts again, hides no later check, nor what was waived before it', async () => {
    await college.pool.query(`UPDATE check_results
      SET checked_at = '2030-01-01'`)
    await college.readWith(hideWelcome)
    const told = async () =>
      (await college.result()).findings.find(({ rule }) => rule === 'must-part-hidden')
    const fingerprint = (await told())?.places[0]?.fingerprint
    expect(fingerprint).toBeDefined()
    await college.pool.query(`UPDATE check_results
      SET checked_at = '2030-01-02'`)
    await college.people.designer.post(`${college.about}/waivers`, {
      fingerprints: [fingerprint],
      reason: 'x',
    })
    expect((await told())?.places[0]?.waived).toMatchObject({ reason: 'x' })
    await college.pool.query('DELETE FROM waivers')
  })
})

describe('what the pictures of the college are made of', () => {
  const letters = async () =>
    (await listChecks(college.pool, college.today)).get(college.course)?.crossings
  it('follows every check, also back to one that was made before', async () => {
    const before = await letters()
    await college.readWith(hideWelcome)
    const hidden = await letters()
    expect(hidden).not.toEqual(before)
    await college.readWith()
    expect(await letters()).toEqual(before)
  })
  it('is what is in the database, and of a date', async () => {
    await college.people.designer.post(`${college.about}/check`, { asOf: '2026-11-20' })
    await college.work()
    for (const asOf of ['2026-09-16', '2026-11-20', '2026-09-16']) {
      const kept = (await listChecks(college.pool, asOf)).get(college.course)
      const result = await college.result(`?asOf=${asOf}`)
      expect(kept?.openMusts).toEqual(openMustsOf(result.findings))
      expect(kept?.found).toEqual(result.findings.map(({ fingerprint }) => fingerprint))
    }
  })
  it('is the same of a result whose findings have no gist, or one of another form', async () => {
    const told = () => listChecks(college.pool, college.today)
    const gistIs = (gist: string | null, form: number | null) =>
      change(
        college.pool,
        `UPDATE check_results
         SET gist = ?, gist_form = ?, rewritten = UUID()`,
        [gist, form],
      )
    await college.readWith(hideWelcome)
    const before = await told()
    expect(before.get(college.course)?.openMusts.length).toBeGreaterThan(0)
    for (const form of [null, gistForm + 1]) {
      await gistIs(form === null ? null : '{"found":["so"]}', form)
      expect(await told()).toEqual(before)
    }
    await gistIs('{"found":["so"]}', gistForm)
    expect((await told()).get(college.course)?.found).toEqual(['so'])
    await change(college.pool, 'DELETE FROM check_results')
    await college.readWith(hideWelcome)
    expect(await told()).toEqual(before)
    await college.readWith()
  })
  it('is not there for a course that is held to something else since', async () => {
    expect(await letters()).toBeDefined()
    await markHeldAnew(college.pool, college.course)
    expect(await letters()).toBeUndefined()
  })
})
