import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Impact } from '@wickerframe/contract'
import { everyCourseItem, type CheckResult } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { setRoles } from '../people/people.ts'
import { findDraftRevision } from '../templates/templates.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'

const { key } = exampleTemplate()
const about = `/api/templates/${key}/impact`
let college: PrivateCollege
let designer: Client
const ids: number[] = []

const well = <T>({ status, body }: { status: number; body: T }): T => {
  expect([status, body]).toEqual([200, body])
  return body
}
const edit = async (edits: object[]) =>
  well(await designer.post(`/api/templates/${key}/edits`, { revision: await revision(), edits }))
const revision = async () => (await findDraftRevision(college.pool, key)) ?? 0
const hold = async (client = designer) => client.post(about, { revision: await revision() })
const impact = async (): Promise<Impact> => (await designer.get(about)).body
const rollOut = async (version: number) => {
  const { run } = well(
    await designer.post('/api/rollouts', {
      order: { mode: 'version', template: key, version },
      courses: ids,
    }),
  )
  await college.work()
  well(await designer.post(`/api/runs/${run}/approve`))
  await college.work()
}
const check = async () => {
  well(await designer.post('/api/checks', { courses: ids }))
  await college.work()
}
const resultOf = async (id: number): Promise<CheckResult> =>
  (await designer.get(`/api/courses/${id}`)).body.result

beforeAll(async () => {
  college = await startPrivateCollege()
  const person = await college.person('designer')
  designer = await college.as(person)
  await college.release(exampleTemplate(), person)
})
afterAll(() => college.stop())

describe('a draft that is held against courses', () => {
  it('is refused while no course is under its template', async () => {
    const refused = await hold()
    expect([refused.status, refused.body.type]).toEqual([
      409,
      expect.stringContaining('no-courses'),
    ])
    expect(await impact()).toBeNull()
  })

  describe('that it was rolled out to', () => {
    beforeAll(async () => {
      for (const n of [1, 2, 3]) {
        await college.platform.connector.create(`shell-${n}`, 'New course')
        const made = college.platform.courses.get(`shell-${n}`)
        if (made) ids.push(await college.addCourse(made))
      }
      await rollOut(1)
      // One instructor takes a page away, which the draft does not ask for any more.
      const course = structuredClone(college.platform.courses.get('shell-2'))
      if (!course) throw new Error('it was made')
      for (const module of course.modules)
        module.children = module.children.filter(({ name }) => name !== 'Week 2 checklist')
      college.platform.courses.set(course.id, { ...course, revision: '99' })
      await check()
      await edit([
        { edit: 'remove-part', part: 'checklist' },
        {
          edit: 'set-field',
          part: 'welcome',
          field: ['name'],
          was: everyName('welcome'),
          value: 'Come aboard',
        },
      ])
    })
    beforeEach(async () => {
      await college.pool.query('DELETE FROM impacts')
    })

    it('is told as far as it has come, and can be paused, resumed and stopped', async () => {
      const { run } = well(await hold())
      expect(await impact()).toMatchObject({ run, state: 'running', all: 3, done: 0, courses: 0 })
      well(await designer.post(`/api/runs/${run}/pause`))
      await college.work()
      expect(await impact()).toMatchObject({ state: 'paused', done: 0 })
      well(await designer.post(`/api/runs/${run}/resume`))
      await college.work()
      expect(await impact()).toMatchObject({ state: 'done', done: 3, courses: 3, unread: 0 })
    })
    it('writes nothing to the platform, nor to what courses are held to', async () => {
      const taken = college.platform.taken.length
      const before = await Promise.all(ids.map(resultOf))
      well(await hold())
      await college.work()
      expect(college.platform.taken).toHaveLength(taken)
      expect((await Promise.all(ids.map(resultOf))).map(({ template }) => template)).toEqual(
        before.map(({ template }) => template),
      )
    })
    it('takes the place of an older one, which is not worked on any further', async () => {
      const { run } = well(await hold())
      const { run: second } = well(await hold())
      await college.work()
      expect((await designer.get(`/api/runs/${run}`)).body).toMatchObject({ state: 'cancelled' })
      expect(await impact()).toMatchObject({ run: second, state: 'done', done: 3 })
      expect(
        await college.rows(`SELECT DISTINCT run_id AS run
          FROM course_impacts`),
      ).toEqual([{ run: second }])
    })
    it('is not another one than was looked at', async () => {
      const stale = await designer.post(about, { revision: (await revision()) - 1 })
      expect(stale.status).toBe(409)
    })
    it.each(['instructor', 'reviewer', 'contributor'] as const)(
      'is not held nor told by a %s',
      async (role) => {
        const other = await college.as(await college.person(role))
        expect([(await hold(other)).status, (await other.get(about)).status]).toEqual([403, 403])
      },
    )
    it('names no course to a designer of other departments, and counts it', async () => {
      well(await hold())
      await college.work()
      await college.pool.query(
        `UPDATE course_impacts
         SET impact = JSON_SET(impact, '$.now.readiness', 'ready', '$.after.readiness', 'not-ready')
         WHERE course_id = ?`,
        [ids[0]],
      )
      const person = await college.person('designer', 'galley')
      await setRoles(college.pool, person.id, ['designer'], ['GAL'])
      const theirs: Impact = (await (await college.as(person)).get(about)).body
      expect([(await impact()).stopBeingReady, theirs.stopBeingReady]).toMatchObject([
        { count: 1, courses: [{ id: ids[0] }] },
        { count: 1, courses: [] },
      ])
    })
    it('tells of a course that was never read that nothing is known of it', async () => {
      await college.pool.query(
        `DELETE FROM snapshots
         WHERE course_id = ?`,
        [ids[2]],
      )
      well(await hold())
      await college.work()
      expect(await impact()).toMatchObject({ done: 3, courses: 2, unread: 1 })
      await check()
    })
    it('comes true: once it is released and rolled out, courses stand as was foreseen', async () => {
      well(await hold())
      await college.work()
      const foreseen = await impact()
      expect(foreseen.rollout).toMatchObject({ changed: 3, undecided: 0 })
      expect(foreseen.requirements).toContainEqual(
        expect.objectContaining({ part: 'checklist', closes: 1 }),
      )
      well(
        await designer.post(`/api/templates/${key}/release`, {
          revision: await revision(),
          note: 'No checklists',
        }),
      )
      await rollOut(2)
      await check()
      const results = await Promise.all(ids.map(resultOf))
      const sum = (count: (result: CheckResult) => number) =>
        results.reduce((total, result) => total + count(result), 0)
      expect(foreseen.after).toEqual({
        ready: sum(({ readiness }) => Number(readiness !== 'not-ready')),
        openMusts: sum(({ counts }) => counts.openMusts),
        openShoulds: sum(({ counts }) => counts.openShoulds),
      })
      const first = college.platform.courses.get('shell-1')
      expect(first && everyCourseItem(first).map(({ item }) => item.name)).toContain('Come aboard')
    })
  })
})

function everyName(part: string): string {
  for (const module of exampleTemplate().parts)
    if (module.kind === 'module')
      for (const item of module.items) if (item.key === part) return item.name
  throw new Error(`the example has no ${part}`)
}
