import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { everyCourseItem, ownPrefix, type Course } from '@wickerframe/core'
import { exampleCourse } from '@wickerframe/core/testing'
import { startPrivateSchema, type PrivateSchema } from '../testing/privateSchema.testing.ts'
import { collectBodies, coursesToTidy, tidyCourse } from './bodyCollector.ts'
import { courseBodies, inTransactionNaming, nameBodies, unnamedBodies } from './courseBodies.ts'
import { savePageBodies } from './pageBodies.ts'
import {
  bodiesOfSnapshot,
  findSnapshot,
  listSnapshots,
  prepareSnapshot,
  storeSnapshot,
} from './snapshots.ts'

let schema: PrivateSchema
let courses: number[]
beforeAll(async () => {
  schema = await startPrivateSchema()
  courses = await schema.addCourses(3)
})
afterAll(() => schema.stop())
beforeEach(async () => {
  for (const table of ['course_bodies', 'snapshots', 'page_bodies', 'cohort_names'])
    await schema.pool.query(`DELETE FROM ${table}`)
  await schema.pool.query(`UPDATE courses
    SET bodies_known_at = NULL`)
})

/** The example, without what only the program itself records in it. */
const read = (edit: (course: Course) => void = () => undefined): Course => {
  const { course } = exampleCourse()
  for (const { item } of everyCourseItem(course)) delete item.recordedAs
  const bare = JSON.parse(
    JSON.stringify(course, (name, value) => (name === 'recordedAs' ? undefined : value)),
  ) as Course
  edit(bare)
  return bare
}
const keep = async (id: number, course: Course): Promise<void> => {
  const prepared = prepareSnapshot(course)
  await inTransactionNaming(schema.pool, prepared.bodies.html, (database) =>
    storeSnapshot(database, id, prepared),
  )
}
const count = async (table: string): Promise<number> =>
  Number(
    (
      await schema.rows<{ count: number }>(`SELECT COUNT(*) AS count
        FROM ${table}`)
    )[0]?.count,
  )
const [first = 0, second = 0, third = 0] = [0, 1, 2]
const at = (i: number): number => courses[i] ?? 0
const tidyAll = async (): Promise<void> => {
  for (const id of courses) await tidyCourse(schema.pool, id)
}

describe('what was read of a course', () => {
  it('is found again as it was, page by page', async () => {
    const course = read()
    await keep(at(first), course)
    const found = (await findSnapshot(schema.pool, at(first)))?.course
    expect({ ...found, readAt: '' }).toEqual({ ...course, readAt: '' })
    expect(Date.parse(found?.readAt ?? '')).toBe(Date.parse(course.readAt))
  })
  it('keeps a page that many courses have once, with what is each course’s own beside it', async () => {
    await keep(at(first), read())
    const pages = await count('page_bodies')
    await keep(
      at(second),
      read((course) => {
        const text = JSON.stringify(course).replaceAll('/courses/example/', '/courses/another/')
        Object.assign(course, JSON.parse(text), { id: 'another' })
      }),
    )
    expect(await count('page_bodies')).toBe(pages)
    const links = JSON.stringify((await findSnapshot(schema.pool, at(second)))?.course)
    expect(links).toContain('/courses/another/')
    expect(links).not.toContain('/courses/example/')
  })
  it('of which a page is missing is none: never an empty page', async () => {
    await keep(at(first), read())
    const html = '<p>A page that this process has not read before.</p>'
    await keep(
      at(second),
      read((course) => {
        const page = everyCourseItem(course).find(({ item }) => item.html !== null)
        if (page) page.item.html = html
      }),
    )
    const [stored] = await schema.rows<{ document: string }>(
      `SELECT document
       FROM snapshots
       WHERE course_id = ?`,
      [at(second)],
    )
    const [lost = ''] = bodiesOfSnapshot(stored?.document ?? '')
    await schema.pool.query(
      `UPDATE snapshots
       SET document = REPLACE(document, ?, ?)
       WHERE course_id = ?`,
      [lost, 'f'.repeat(64), at(second)],
    )
    expect(await findSnapshot(schema.pool, at(second))).toBeNull()
    expect(await findSnapshot(schema.pool, at(first))).not.toBeNull()
    expect((await listSnapshots(schema.pool, courses)).size).toBe(2)
  })
  it('that is stored in a form nobody can read is an error that names the course', async () => {
    await keep(at(first), read())
    await schema.pool.query(`UPDATE snapshots
      SET document = '{"schema":"wickerframe.course/2"}'`)
    await expect(findSnapshot(schema.pool, at(first))).rejects.toThrow(`course ${at(first)}`)
  })
})

describe('bodies that a course names', () => {
  it('come back whole under their ids, and only to the course that named them', async () => {
    const course = read()
    const html = '<p><a href="/courses/example/items/7">Week 1</a> and more</p>'
    const bodies = courseBodies()
    const id = bodies.idOf(html)
    const ready = bodies.ready([id], ownPrefix(course))
    await inTransactionNaming(schema.pool, ready.html, (database) =>
      nameBodies(database, at(first), ready.named),
    )
    expect(await unnamedBodies(schema.pool, at(first), [id])).toEqual([])
    expect(await unnamedBodies(schema.pool, at(second), [id])).toEqual([id])
    const mine = courseBodies()
    await mine.load(schema.pool, at(first), [id])
    expect(mine.htmlOf(id)).toBe(html)
    const theirs = courseBodies()
    await theirs.load(schema.pool, at(second), [id])
    expect(theirs.htmlOf(id)).toBeUndefined()
  })
  it('are kept again where they were taken out between keeping and naming', async () => {
    const course = read((course) => {
      const page = everyCourseItem(course).find(({ item }) => item.html !== null)
      if (page) page.item.html = '<p>Taken out in between.</p>'
    })
    const prepared = prepareSnapshot(course)
    await savePageBodies(schema.pool, prepared.bodies.html)
    await schema.pool.query('DELETE FROM page_bodies')
    await inTransactionNaming(schema.pool, prepared.bodies.html, (database) =>
      storeSnapshot(database, at(first), prepared),
    )
    expect((await findSnapshot(schema.pool, at(first)))?.course.modules).toEqual(course.modules)
  })
  it('are refused to be taken out by the database while a course names them', async () => {
    await keep(at(first), read())
    await expect(schema.pool.query('DELETE FROM page_bodies')).rejects.toMatchObject({
      code: 'ER_ROW_IS_REFERENCED_2',
    })
  })
})

describe('the collector', () => {
  it('takes out what no course names any more, and nothing else', async () => {
    await keep(
      at(first),
      read((course) => {
        const page = everyCourseItem(course).find(({ item }) => item.html !== null)
        if (page) page.item.html = '<p>Only here, and only once.</p>'
      }),
    )
    await keep(at(first), read())
    await tidyAll()
    expect(await collectBodies(schema.pool, 1000, 0)).toBe(1)
    expect((await findSnapshot(schema.pool, at(first)))?.course.modules).toEqual(read().modules)
    expect(await collectBodies(schema.pool, 1000, 0)).toBe(0)
  })
  it('takes out nothing before the names of every course are known, nor what was put in lately', async () => {
    await savePageBodies(schema.pool, new Map([['a'.repeat(64), '<p>Nobody names me</p>']]), true)
    expect(await collectBodies(schema.pool, 1000, 0)).toBe(0)
    await tidyAll()
    expect(await collectBodies(schema.pool, 1000, 24)).toBe(0)
    expect(await collectBodies(schema.pool, 1000, 0)).toBe(1)
  })
  it('looks first at courses it never looked at, and not again for a while', async () => {
    await tidyCourse(schema.pool, at(second))
    expect(await coursesToTidy(schema.pool, 10, 24)).toEqual([at(first), at(third)])
    await tidyAll()
    expect(await coursesToTidy(schema.pool, 10, 24)).toEqual([])
  })
  it('leaves a course that another one is at, and says so', async () => {
    const connection = await schema.pool.getConnection()
    await connection.beginTransaction()
    await connection.query(
      `SELECT id
       FROM courses
       WHERE id = ?
       FOR UPDATE`,
      [at(first)],
    )
    expect(await tidyCourse(schema.pool, at(first))).toBeNull()
    await connection.rollback()
    connection.release()
    expect(await tidyCourse(schema.pool, at(first))).toBe(0)
  })
  it('takes nothing out of a course of which something cannot be read', async () => {
    await keep(at(first), read())
    const named = await count('course_bodies')
    await schema.pool.query(
      `INSERT INTO course_bases (course_id, document)
       VALUES (?, ?)
       ON DUPLICATE KEY UPDATE document = VALUES(document)`,
      [at(first), Buffer.from('no base')],
    )
    await expect(tidyCourse(schema.pool, at(first))).rejects.toThrow()
    expect(await count('course_bodies')).toBe(named)
    await schema.pool.query('DELETE FROM course_bases')
  })
})
