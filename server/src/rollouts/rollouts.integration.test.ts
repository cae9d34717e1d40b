import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { RolloutOrder } from '@wickerframe/contract'
import { everyCourseItem, everyModule, type Course, type PlanStep } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import type { Person } from '../people/people.ts'
import {
  editDraft,
  findDraftRevision,
  releaseDraft,
  retireVersion,
} from '../templates/templates.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'

let college: PrivateCollege
let designer: Client
let person: Person
beforeAll(async () => {
  college = await startPrivateCollege()
  person = await college.person('designer')
  designer = await college.as(person)
  await college.release(exampleTemplate(), person)
  await editDraft(
    college.pool,
    key,
    [
      {
        edit: 'set-field',
        part: 'checklist',
        field: ['name'],
        was: 'Week {week} checklist',
        value: 'Week {week}: before you cast off',
      },
    ],
    person,
  )
  const revision = (await findDraftRevision(college.pool, key)) ?? 0
  expect((await releaseDraft(college.pool, key, revision, 'Renamed', person)).state).toBe(
    'released',
  )
})
afterAll(() => college.stop())

const { key } = exampleTemplate()
let shells = 0
let course: number
let platformId: string
beforeEach(async () => {
  platformId = `shell-${++shells}`
  await college.platform.connector.create(platformId, 'New course')
  const made = college.platform.courses.get(platformId)
  if (!made) throw new Error('the platform made it')
  course = await college.addCourse(made)
})

const version = (number: number): RolloutOrder => ({
  mode: 'version',
  template: key,
  version: number,
  only: null,
  except: [],
  restore: { fixedText: false, missingParts: false },
  adopt: false,
})
const plan = async (order: RolloutOrder, more: object = {}): Promise<number> => {
  const { status, body } = await designer.post('/api/rollouts', {
    order,
    courses: [course],
    ...more,
  })
  expect([status, body.detail]).toEqual([200, undefined])
  await college.work()
  return body.run
}
const run = async (id: number) => (await designer.get(`/api/runs/${id}`)).body
const approve = async (id: number, more: object = {}) => {
  const answer = await designer.post(`/api/runs/${id}/approve`, more)
  await college.work()
  return answer
}
const deploy = async (number: number): Promise<number> => {
  const id = await plan(version(number))
  await approve(id)
  expect((await run(id)).tasks[0]).toMatchObject({ state: 'done' })
  return id
}
const there = (): Course => {
  const found = college.platform.courses.get(platformId)
  if (!found) throw new Error('the course is on the platform')
  return found
}
const names = (): string[] => everyCourseItem(there()).map(({ item }) => item.name)
const edit = (change: (course: Course) => void): void => {
  const course = structuredClone(there())
  change(course)
  college.platform.courses.set(platformId, {
    ...course,
    revision: `${Number(course.revision) + 1}`,
  })
}
const history = async () => (await designer.get(`/api/courses/${course}`)).body.history

describe('a rollout', () => {
  it('writes nothing before it is approved, then what was planned, and proves it', async () => {
    const id = await plan(version(1))
    expect(there().modules).toEqual([])
    expect((await run(id)).tasks[0]).toMatchObject({ state: 'planned', plan: { state: 'ready' } })
    await approve(id)
    expect(names()).toContain('Week 1 checklist')
    expect(await run(id)).toMatchObject({ state: 'done', counts: { done: 1 } })
    expect(await history()).toMatchObject([
      { number: 1, version: 1, mode: 'version', undoneBy: null },
    ])
    expect((await history())[0].proof).toMatchObject({ state: 'proved' })
  })
  it('of plans that are not what was shown any more is not approved', async () => {
    const id = await plan(version(1))
    const refused = await approve(id, { shown: [{ course, digest: 'another' }] })
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('approve')])
    expect(there().modules).toEqual([])
    const [group] = (await designer.get(`/api/rollouts/${id}/shapes`)).body
    const shown = [{ course, digest: group.courses[0].digest }]
    expect((await approve(id, { shown })).status).toBe(200)
    expect(names()).not.toEqual([])
  })
  it('takes what was edited while it waited into a new plan, which is approved again', async () => {
    await deploy(1)
    const id = await plan(version(2))
    edit((course) => {
      const item = everyCourseItem(course).find(
        ({ item }) => item.name === 'Week 2 checklist',
      )?.item
      if (item) item.name = 'My own list'
    })
    await approve(id)
    expect((await run(id)).tasks[0].state).toBe('held')
    expect(names()).toContain('Week 1 checklist')
    await approve(id)
    expect(names()).toContain('Week 1: before you cast off')
    expect(names()).toContain('My own list')
  })
  it('whose answer is lost is asked for again under its key, and is done once', async () => {
    const id = await plan(version(1))
    college.platform.loseAnswers(2)
    const before = college.platform.taken.length
    await approve(id)
    expect(await run(id)).toMatchObject({ state: 'done', counts: { done: 1 } })
    expect(college.platform.taken.length - before).toBe(1)
    expect(await history()).toHaveLength(1)
  })
  it('the platform refuses is told with its reason, and tried again when somebody says so', async () => {
    const id = await plan(version(1))
    college.platform.instead('apply', {
      state: 'refused',
      status: 409,
      code: 'locked',
      detail: 'the course is locked for the exam',
    })
    await approve(id)
    expect((await run(id)).tasks[0]).toMatchObject({
      state: 'failed',
      message: expect.stringContaining('locked for the exam'),
    })
    expect((await designer.post(`/api/runs/${id}/retry`)).status).toBe(200)
    await college.work()
    expect((await run(id)).tasks[0].state).toBe('done')
  })
  it('is planned once what is still to come to its course has come, so that its plan holds', async () => {
    const first = await plan(version(1))
    await designer.post(`/api/runs/${first}/approve`)
    // The last of a long run: its turn comes after the plan’s.
    await college.pool.query(
      `UPDATE tasks
       SET place = 1
       WHERE run_id = ?`,
      [first],
    )
    const second = await plan(version(2))
    expect((await run(first)).tasks[0].state).toBe('done')
    await approve(second)
    expect((await run(second)).tasks[0]).toMatchObject({ state: 'done' })
    expect(names()).toContain('Week 1: before you cast off')
  })
  it('waits while the platform is away, and goes on', async () => {
    const id = await plan(version(1))
    const away = { state: 'later', afterSeconds: 0, detail: 'too many requests' } as const
    college.platform.instead('apply', away, away)
    await approve(id)
    expect((await run(id)).tasks[0]).toMatchObject({ state: 'done', attempts: 1 })
  })
  it('to a course that the platform lost cannot be planned, and says so', async () => {
    college.platform.courses.delete(platformId)
    const id = await plan(version(1))
    expect((await run(id)).tasks[0].plan).toMatchObject({
      state: 'unusable',
      reason: expect.stringContaining(platformId),
    })
    await approve(id)
    expect(await history()).toEqual([])
  })
})

describe('taking back', () => {
  it('makes a course what it was, and bringing back what it was before that', async () => {
    const before = structuredClone(there())
    const id = await deploy(1)
    const deployed = names()
    const back = await plan({ mode: 'undo', run: id })
    expect((await run(back)).title).toMatch(/^Take back: /)
    await approve(back)
    expect([there().name, there().modules]).toEqual([before.name, before.modules])
    expect(await history()).toMatchObject([{ mode: 'undo' }, { number: 1, undoneBy: back }])
    const again = await plan({ mode: 'undo', run: back })
    expect((await run(again)).title).toMatch(/^Bring back: /)
    await approve(again)
    expect(names()).toEqual(deployed)
  })
  it('keeps what an instructor wrote since', async () => {
    const id = await deploy(1)
    edit((course) => {
      const page = everyCourseItem(course).find(({ item }) => item.name === 'Week 3 overview')?.item
      if (page?.html)
        page.html = page.html.replace('In two or three sentences', 'This week we sail')
    })
    await approve(await plan({ mode: 'undo', run: id }))
    expect(
      everyCourseItem(there())
        .map(({ item }) => item.html ?? '')
        .join(),
    ).toContain('This week we sail')
  })
  it('of what did nothing, or was taken back already, is refused', async () => {
    const id = await deploy(1)
    await approve(await plan({ mode: 'undo', run: id }))
    const again = await designer.post('/api/rollouts', { order: { mode: 'undo', run: id } })
    expect([again.status, again.body.type]).toEqual([
      409,
      expect.stringContaining('nothing-to-undo'),
    ])
    expect((await designer.post(`/api/rollouts/999999/undo`)).status).toBe(404)
  })
})

describe('a plan', () => {
  it('can be read down to the text, and is decided on where somebody renamed what the version renames', async () => {
    await deploy(1)
    edit((course) => {
      const item = everyCourseItem(course).find(
        ({ item }) => item.name === 'Week 2 checklist',
      )?.item
      if (item) item.name = 'My own list'
    })
    const id = await plan(version(2))
    const { body } = await designer.get(`/api/rollouts/${id}/courses/${course}`)
    expect(body).toMatchObject({ state: 'ready', undecided: 1, code: 'NAV 110' })
    const conflict = body.steps.find(({ does }: PlanStep) => does === 'conflict')
    const decided = await designer.post(`/api/rollouts/${id}/decisions`, {
      decisions: [
        { course, instance: conflict.instance, field: conflict.fields[0].field, decision: 'take' },
      ],
    })
    expect(decided.status).toBe(200)
    await college.work()
    await approve(id)
    expect(names()).toContain('Week 2: before you cast off')
    expect(names()).not.toContain('My own list')
  })
  it('is carried out on a copy that is thrown away, and the course is as it was', async () => {
    const id = await plan(version(1))
    const { status, body } = await designer.post(`/api/rollouts/${id}/courses/${course}/rehearse`)
    expect(status).toBe(200)
    expect(there().modules).toEqual([])
    const copy = college.platform.courses.get(body.id)
    expect(everyModule(copy?.modules ?? []).length).toBeGreaterThan(5)
    expect((await designer.get('/api/rehearsals')).body).toMatchObject([{ id: body.id, course }])
    expect((await designer.post(`/api/rehearsals/${body.id}/discard`)).status).toBe(200)
    expect(college.platform.courses.has(body.id)).toBe(false)
    expect((await designer.get('/api/rehearsals')).body).toEqual([])
    expect((await designer.post(`/api/rehearsals/${body.id}/discard`)).status).toBe(404)
  })
  it('is of chosen courses, of a version that is there and not retired', async () => {
    const asked = (order: RolloutOrder, courses: number[]) =>
      designer.post('/api/rollouts', { order, courses })
    expect((await asked(version(1), [])).status).toBe(400)
    expect((await asked(version(1), [999_999])).status).toBe(404)
    expect((await asked(version(9), [course])).status).toBe(404)
    await retireVersion(college.pool, key, 1, true, person.email)
    expect((await asked(version(1), [course])).body.detail).toContain('retired')
    await retireVersion(college.pool, key, 1, false, person.email)
  })
})

describe('a standing rule', () => {
  it('says which template is meant for which courses, until it is removed', async () => {
    const put = (department: string | null) =>
      designer.post('/api/standing-rules', {
        department,
        modality: null,
        weeks: null,
        template: key,
      })
    const rules = async () => (await designer.get('/api/standing-rules')).body
    expect((await rules()).none).toContain(course)
    const { body } = await put('NAV')
    expect((await rules()).fits[0].courses).toContain(course)
    await put('ENG')
    expect((await rules()).fits[0].courses).toContain(course)
    const remove = () => designer.post(`/api/standing-rules/${body.rule}/remove`)
    expect((await remove()).status).toBe(200)
    expect((await remove()).status).toBe(404)
    expect((await rules()).none).toContain(course)
    const unknown = await designer.post('/api/standing-rules', {
      department: null,
      modality: null,
      weeks: null,
      template: 'no-such',
    })
    expect(unknown.status).toBe(404)
  })
})
