import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { ChosenMend, MendableRule } from '@wickerframe/contract'
import { everyCourseItem, type Course } from '@wickerframe/core'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
const hideWelcome = (course: Course): void => {
  for (const child of course.modules[0]?.children ?? [])
    if (child.kind !== 'module' && child.name.startsWith('Welcome')) child.published = false
}
beforeEach(() => college.readWith(hideWelcome))

const welcome = () => {
  const course = college.platform.courses.get('example')
  const found =
    course && everyCourseItem(course).find(({ item }) => item.name.startsWith('Welcome'))
  if (!course || !found) throw new Error('the platform has the page')
  return { course, item: found.item }
}
const mendable = async (): Promise<ChosenMend> => {
  const { findings } = await college.result()
  const place = findings.find(({ rule }) => rule === 'must-part-hidden')?.places[0]
  if (!place?.mend) throw new Error('it can be mended')
  return { fingerprint: place.fingerprint, digest: place.digest }
}
const run = async (id: number) => (await college.people.designer.get(`/api/runs/${id}`)).body
const mend = async (mends: ChosenMend[], who: 'designer' | 'instructor' = 'instructor') =>
  college.people[who].post(`${college.about}/mends`, { mends })

describe('a mend', () => {
  it('that whoever teaches the course chose is done at once, and the check after it says so', async () => {
    const { body } = await mend([await mendable()])
    await college.work()
    expect((await run(body.run)).tasks[0]).toMatchObject({
      state: 'done',
      message: expect.stringContaining('1 mended'),
      mends: [{ message: expect.stringContaining('Welcome'), changes: [expect.any(String)] }],
    })
    expect(welcome().item.published).toBe(true)
    expect((await college.result()).findings.map(({ rule }) => rule)).not.toContain(
      'must-part-hidden',
    )
  })
  it('whose evidence changed since it was chosen is left', async () => {
    const chosen = await mendable()
    const { body } = await mend([{ ...chosen, digest: 'what was seen then' }])
    await college.work()
    expect((await run(body.run)).tasks[0].message).toMatch(/nothing to mend; 1 left as they are/)
    expect(welcome().item.published).toBe(false)
  })
  it('of what is not open any more is refused before anything is begun', async () => {
    const chosen = await mendable()
    await college.readWith()
    expect((await mend([chosen])).status).toBe(409)
    const none = await mend([{ fingerprint: 'f'.repeat(16), digest: 'x' }])
    expect([none.status, none.body.type]).toEqual([409, expect.stringContaining('not-open')])
  })
  it('of another’s course is not there to be done', async () => {
    const stranger = await college.as(await college.person('instructor', 'stranger'))
    const answer = await stranger.post(`${college.about}/mends`, { mends: [await mendable()] })
    expect(answer.status).toBe(404)
    expect(
      (await college.people.reviewer.post(`${college.about}/mends`, { mends: [await mendable()] }))
        .status,
    ).toBe(403)
  })
})

describe('mends in many courses', () => {
  it('are listed by rule, planned, and written when the plan is approved', async () => {
    const listed: MendableRule[] = (await college.people.designer.get('/api/mends')).body
    const rule = listed.find(({ rule }) => rule === 'must-part-hidden')
    expect(rule).toMatchObject({ places: 1 })
    const [only] = (await college.people.designer.get('/api/mends?rule=must-part-hidden')).body
    expect(only.courses[0].mends[0]).toMatchObject(await mendable())
    const courses = [{ course: college.course, mends: [await mendable()] }]
    const planned = await college.people.designer.post('/api/mends', { courses })
    await college.work()
    expect(welcome().item.published).toBe(false)
    await college.people.designer.post(`/api/runs/${planned.body.run}/approve`)
    await college.work()
    expect(welcome().item.published).toBe(true)
  })
  it('are of each course once, of courses that are there, and of rules that are', async () => {
    const one = { course: college.course, mends: [await mendable()] }
    const asked = (courses: object[]) => college.people.designer.post('/api/mends', { courses })
    expect((await asked([one, one])).status).toBe(400)
    expect((await asked([{ ...one, course: 999_999 }])).status).toBe(404)
    expect((await college.people.designer.get('/api/mends?rule=no-such')).status).toBe(400)
  })
})
