import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { NameInUse, NamesInUse } from '@wickerframe/contract'
import { everyCourseItem, type Course } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
beforeEach(() => college.readWith())

const inUse = async (part: string): Promise<NamesInUse> =>
  (await college.people.designer.get(`/api/names?template=${exampleTemplate().key}&part=${part}`))
    .body
const plan = (
  names: readonly (Pick<NameInUse, 'course' | 'what' | 'id'> & { was: string; name: string })[],
) => college.people.designer.post('/api/renames', { names })
const asNamed = ({ course, what, id, name: was }: NameInUse, name: string) => ({
  course,
  what,
  id,
  was,
  name,
})
const there = (): Course => {
  const course = college.platform.courses.get('example')
  if (!course) throw new Error('the platform has the course')
  return course
}
const itemNames = () => everyCourseItem(there()).map(({ item }) => item.name)
const approve = async (run: number) => {
  await college.people.designer.post(`/api/runs/${run}/approve`)
  await college.work()
  return (await college.people.designer.get(`/api/runs/${run}`)).body.tasks[0]
}

describe('names in use', () => {
  it('are those a part bears in every course, with what its fields should say there', async () => {
    const { names } = await inUse('checklist')
    expect(names.map(({ name }) => name)).toContain('Week 2 checklist')
    const second = names.find(({ name }) => name === 'Week 2 checklist')
    expect(second?.values).toMatchObject({ week: 2 })
    expect((await inUse('week')).names[0]).toMatchObject({ what: 'module' })
    expect((await inUse('course')).names).toMatchObject([{ what: 'course', id: 'example' }])
    expect((await inUse('no-such')).names).toEqual([])
  })
  it('are for designers', async () => {
    const { instructor, reviewer } = college.people
    for (const client of [instructor, reviewer])
      expect((await client.get('/api/names?template=x&part=course')).status).toBe(403)
  })
})

describe('renaming', () => {
  it('gives the names that were approved, of items, modules and the course, and writes nothing before', async () => {
    const [item, module, course] = [
      (await inUse('checklist')).names[0],
      (await inUse('week')).names[0],
      (await inUse('course')).names[0],
    ]
    if (!item || !module || !course) throw new Error('all three have names')
    const { body } = await plan([
      asNamed(item, 'Before you cast off'),
      asNamed(module, 'The first week'),
      asNamed(course, 'NAV 110, renamed'),
    ])
    expect(itemNames()).not.toContain('Before you cast off')
    expect(await approve(body.run)).toMatchObject({
      state: 'done',
      message: expect.stringContaining('3 names given'),
    })
    expect(itemNames()).toContain('Before you cast off')
    expect([there().name, there().modules.map(({ name }) => name)]).toEqual([
      'NAV 110, renamed',
      expect.arrayContaining(['The first week']),
    ])
  })
  it('leaves what somebody renamed or removed meanwhile, and says how many', async () => {
    const [first, second, third] = (await inUse('checklist')).names
    if (!first || !second || !third) throw new Error('there are three')
    const { body } = await plan(
      [first, second, third].map((name) => asNamed(name, `${name.name}!`)),
    )
    const edited = there()
    for (const { item } of everyCourseItem(edited)) if (item.id === first.id) item.name = 'Mine'
    for (const module of edited.modules)
      module.children = module.children.filter(({ id }) => id !== second.id)
    edited.revision += '0'
    expect((await approve(body.run)).message).toMatch(/1 name given; 2 left as they are/)
    expect(itemNames()).toContain('Mine')
    expect(itemNames()).toContain(`${third.name}!`)
  })
  it('to the name that is there already is not begun; of a course that is not there, neither', async () => {
    const [name] = (await inUse('checklist')).names
    if (!name) throw new Error('there is one')
    expect((await plan([asNamed(name, name.name)])).status).toBe(409)
    expect((await plan([{ ...asNamed(name, 'New'), course: 999_999 }])).status).toBe(404)
  })
  it('done twice over finds nothing left to rename', async () => {
    const [name] = (await inUse('checklist')).names
    if (!name) throw new Error('there is one')
    const [one, two] = [await plan([asNamed(name, 'New')]), await plan([asNamed(name, 'New')])]
    await approve(one.body.run)
    expect(await approve(two.body.run)).toMatchObject({
      state: 'done',
      message: 'nothing to rename',
    })
  })
})
