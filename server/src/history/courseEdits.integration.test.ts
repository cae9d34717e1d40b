import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import type { CollegeHistory, CourseStanding, RolloutOrder } from '@wickerframe/contract'
import { everyCourseItem, type Course } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { inTransaction } from '@wickerframe/storage'
import { prepareSnapshot } from '../snapshots/snapshots.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'
import { storeRead } from './courseEdits.ts'

let college: PrivateCollege
let designer: Client
let course: number
let platformId: string
let shells = 0
const version: RolloutOrder = {
  mode: 'version',
  template: exampleTemplate().key,
  version: 1,
  only: null,
  except: [],
  restore: { fixedText: false, missingParts: false },
  adopt: false,
}
const deploy = async (order = version): Promise<number> => {
  const { body } = await designer.post('/api/rollouts', { order, courses: [course] })
  await college.work()
  await designer.post(`/api/runs/${body.run}/approve`)
  await college.work()
  expect((await designer.get(`/api/runs/${body.run}`)).body.tasks[0].state).toBe('done')
  return body.run
}
beforeAll(async () => {
  college = await startPrivateCollege()
  const person = await college.person('designer')
  designer = await college.as(person)
  await college.release(exampleTemplate(), person)
})
afterAll(() => college.stop())
beforeEach(async () => {
  platformId = `shell-${++shells}`
  await college.platform.connector.create(platformId, 'New course')
  course = await college.addCourse(there())
})

const there = (): Course => {
  const made = college.platform.courses.get(platformId)
  if (!made) throw new Error('the platform has it')
  return made
}
/** Somebody edits so many pages of the course on the platform. */
const edit = (pages: number, with_: string): void => {
  const now = structuredClone(there())
  now.revision = `${now.revision}+`
  for (const { item } of everyCourseItem(now).slice(0, pages)) item.name += with_
  college.platform.courses.set(platformId, now)
}
const read = async (): Promise<void> => {
  await designer.post(`/api/courses/${course}/check`)
  await college.work()
}
const standing = async (): Promise<CourseStanding> =>
  (await designer.get(`/api/courses/${course}/standing`)).body
const edits = async () => (await standing()).edits

it('counts what people changed, once, on the day on which it was seen', async () => {
  await deploy()
  expect(await standing()).toMatchObject({ deployed: true, edits: [] })
  await read()
  expect(await edits()).toEqual([])
  edit(3, ' (mine)')
  await read()
  await read()
  expect(await edits()).toEqual([{ day: college.today, edits: 3 }])
  edit(2, ' again')
  await read()
  expect(await edits()).toEqual([{ day: college.today, edits: 5 }])
  const { body }: { body: CollegeHistory } = await designer.get('/api/history')
  expect([body.edits.at(-1), body.deployed, body.bands.map((band) => band.edits)]).toEqual([
    { day: college.today, edits: 5, courses: 1 },
    shells,
    [5],
  ])
})
it('stores what is read also where what was read before cannot be read any more', async () => {
  await deploy()
  await college.pool.query(
    `UPDATE snapshots
     SET document = '{"schema":"of old"}', digest = 'another'
     WHERE course_id = ?`,
    [course],
  )
  edit(2, ' (mine)')
  await read()
  expect(await edits()).toEqual([])
  edit(1, ' (again)')
  await read()
  expect(await edits()).toEqual([{ day: college.today, edits: 1 }])
})
it('counts nothing in a course to which nothing was deployed', async () => {
  await designer.post(`/api/courses/${course}/version`, { template: version.template, version: 1 })
  await read()
  const now = structuredClone(there())
  now.revision = 'two'
  now.name = 'Another name'
  college.platform.courses.set(platformId, now)
  await read()
  expect(await standing()).toMatchObject({ deployed: false, edits: [] })
})
it('does not take what we wrote for what people did, and finds theirs where a plan reads the course', async () => {
  await deploy()
  edit(2, ' (mine)')
  there().modules[1]?.children.pop()
  await deploy({ ...version, restore: { fixedText: false, missingParts: true } })
  expect(await edits()).toEqual([{ day: college.today, edits: 3 }])
  await read()
  expect(await edits()).toEqual([{ day: college.today, edits: 3 }])
})
it('counts a change once, however many read the course at once', async () => {
  await deploy()
  edit(4, ' (mine)')
  const prepared = prepareSnapshot(there())
  await Promise.all(
    Array.from({ length: 5 }, () =>
      inTransaction(college.pool, (database) =>
        storeRead(database, course, prepared, college.today),
      ),
    ),
  )
  expect(await edits()).toEqual([{ day: college.today, edits: 4 }])
})
it('counts nothing while the answer to what was sent is out', async () => {
  const run = await deploy()
  edit(1, ' (ours or theirs)')
  await college.pool.query(
    `UPDATE tasks
     SET state = 'sent', idempotency_key = UUID(), payload = '{}'
     WHERE run_id = ?`,
    [run],
  )
  await inTransaction(college.pool, (database) =>
    storeRead(database, course, prepareSnapshot(there()), college.today),
  )
  expect(await edits()).toEqual([])
  await college.pool.query(
    `UPDATE tasks
     SET state = 'done', payload = NULL
     WHERE run_id = ?`,
    [run],
  )
})
