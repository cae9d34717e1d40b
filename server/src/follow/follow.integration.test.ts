import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { CourseList } from '@wickerframe/contract'
import { exampleCourse } from '@wickerframe/core/testing'
import type { Answer } from '../connector/client.ts'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'
import { followPlatform } from './followPlatform.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
beforeEach(async () => {
  await college.pool.query('DELETE FROM tasks')
  await college.pool.query('DELETE FROM runs')
  await college.pool.query(`UPDATE platform_feed
    SET position = 0, holder = NULL, held_until = NULL`)
  await college.readWith()
  await college.pool.query('DELETE FROM tasks')
  await college.pool.query('DELETE FROM runs')
})

const listing = (id: string, revision: string, cursor: number) => ({
  id,
  name: id,
  status: 'teaching',
  revision,
  cursor,
})
/** The platform says next that these changed. */
const says = (cursor: number, ...courses: CourseList['courses']): void =>
  college.platform.instead('list', {
    state: 'answered',
    value: { courses, cursor },
  } as unknown as Answer<never>)
const follow = (holder = 'a worker') =>
  followPlatform(college.pool, college.platform.connector, holder)
const runs = () =>
  college.rows<{ title: string; courses: number }>(
    `SELECT runs.title, COUNT(tasks.id) AS courses
     FROM runs
     LEFT JOIN tasks ON tasks.run_id = runs.id
     GROUP BY runs.id
     ORDER BY runs.id`,
  )
const position = async () =>
  (
    await college.rows<{ position: number }>(
      `SELECT position
       FROM platform_feed`,
    )
  )[0]?.position

describe('following the platform', () => {
  it('reads and checks a course that changed there, and only that one', async () => {
    const other = { ...exampleCourse().course, id: 'other', revision: '1' }
    await college.addCourse(other)
    const course = college.platform.courses.get('example')
    if (!course) throw new Error('the platform has the course')
    course.published = false
    course.revision = 'edited'
    says(7, listing('example', 'edited', 6), listing('other', '1', 7), listing('strange', '1', 5))
    await follow()
    expect(await runs()).toEqual([{ title: '1 course changed on the platform', courses: 1 }])
    await college.work()
    expect((await college.result()).findings.map(({ rule }) => rule)).toContain(
      'course-unpublished',
    )
    expect(await position()).toBe(7)
  })
  it('keeps how the platform shows the first name of a reader, until it says otherwise', async () => {
    const told = async (readerName: string | null | undefined) => {
      college.platform.instead('list', {
        state: 'answered',
        value: { courses: [], cursor: 0, ...(readerName === undefined ? {} : { readerName }) },
      } as unknown as Answer<never>)
      await follow()
      return (await college.detail()).facts.readerName
    }
    expect(await told(undefined)).toBeUndefined()
    expect(await told('((given name))')).toBe('((given name))')
    // It says nothing of it, or cannot be understood: what is known stays.
    expect(await told(undefined)).toBe('((given name))')
    college.platform.instead('list', { state: 'unknown', detail: 'no answer' } as Answer<never>)
    await follow()
    expect((await college.detail()).facts.readerName).toBe('((given name))')
    expect(await told(null)).toBeUndefined()
  })
  it('begins nothing for what we read already, such as what we wrote ourselves', async () => {
    const revision = college.platform.courses.get('example')?.revision ?? ''
    says(3, listing('example', revision, 3))
    await follow()
    expect([await runs(), await position()]).toEqual([[], 3])
  })
  it('asks for a course that is about to be read only once, but again for one that is being read', async () => {
    says(1, listing('example', 'x1', 1))
    await follow()
    says(2, listing('example', 'x2', 2))
    await follow()
    expect(await runs()).toHaveLength(1)
    await college.pool.query(`UPDATE tasks
      SET state = 'at-work'`)
    says(3, listing('example', 'x3', 3))
    await follow()
    expect(await runs()).toHaveLength(2)
  })
  it('is done by one worker, until that is gone', async () => {
    says(1)
    await follow('first')
    says(2, listing('example', 'x', 2))
    await follow('second')
    expect([await runs(), await position()]).toEqual([[], 1])
    await college.pool.query(`UPDATE platform_feed
      SET held_until = TIMESTAMPADD(SECOND, -1, NOW(3))`)
    await follow('second')
    expect([(await runs()).length, await position()]).toEqual([1, 2])
  })
  it('loses nothing while the platform is away, stalls or refuses, and begins anew where it forgot its list', async () => {
    says(5)
    await follow()
    const away: Answer<never>[] = [
      { state: 'later', detail: 'it is away', afterSeconds: null },
      { state: 'unknown', detail: 'it took too long' },
      { state: 'refused', status: 403, code: 'role', detail: 'not now' },
    ]
    for (const answer of away) {
      college.platform.instead('list', answer)
      await follow()
      expect([await runs(), await position()]).toEqual([[], 5])
    }
    college.platform.instead('list', {
      state: 'refused',
      status: 400,
      code: 'cursor',
      detail: 'no cursor of this platform',
    })
    await follow()
    expect(await position()).toBe(0)
  })
  it('begins anew where the platform was brought back as it stood before, and reads what is other than we know', async () => {
    says(9)
    await follow()
    says(4)
    await follow()
    expect([await runs(), await position()]).toEqual([[], 0])
    says(4, listing('example', 'of yesterday', 3))
    await follow()
    expect([(await runs()).length, await position()]).toEqual([1, 4])
  })
  it('is not flooded: with much still to be read it does not ask for more', async () => {
    says(1, listing('example', 'x', 1))
    await follow()
    await college.pool.query(
      `INSERT INTO runs (kind, state, title, created_by, created_at)
       SELECT kind, state, title, created_by, created_at
       FROM runs
       JOIN (SELECT 1 FROM information_schema.columns LIMIT 120) AS many`,
    )
    await college.pool.query(
      `INSERT IGNORE INTO tasks (run_id, course_id, state, next_at)
       SELECT id, ?, 'waiting', created_at
       FROM runs`,
      [college.course],
    )
    says(2, listing('example', 'y', 2))
    await follow()
    expect(await position()).toBe(1)
  })
})
