import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { exampleCourse } from '@wickerframe/core/testing'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
beforeEach(() => college.pool.query('DELETE FROM joins_by_hand'))

const join = (what: string, expected: string, found: string) =>
  college.people.designer.post(`${college.about}/joins`, { what, expected, found })
/** Two pages of the course that stand for each other’s part. */
const twoPairs = async () => {
  const [first, second] = (await college.result()).pairs.filter(({ expected }) =>
    expected.includes('checklist'),
  )
  if (!first || !second) throw new Error('there are two checklists')
  return [first, second] as const
}

describe('a pair', () => {
  it('that was unjoined by hand is apart in the next check, and together again once that is forgotten', async () => {
    const [{ expected, found }] = await twoPairs()
    expect((await join('unjoin', expected, found)).status).toBe(200)
    expect((await college.result()).pairs).not.toContainEqual(
      expect.objectContaining({ expected, found }),
    )
    expect((await college.detail()).care.joins).toEqual([
      {
        what: 'unjoin',
        expected,
        found,
        by: 'designer@kestrelsound.example',
        at: expect.any(String),
      },
    ])
    expect((await join('forget', expected, found)).status).toBe(200)
    expect((await college.result()).pairs).toContainEqual(
      expect.objectContaining({ expected, found }),
    )
    expect((await join('forget', expected, found)).status).toBe(404)
  })
  it('joined by hand takes the place of any other join of either end', async () => {
    const [first, second] = await twoPairs()
    await join('join', first.expected, second.found)
    await join('join', second.expected, second.found)
    const joins = (await college.detail()).care.joins
    expect(joins.map(({ expected, found }) => [expected, found])).toEqual([
      [second.expected, second.found],
    ])
  })
  it('is of a part of the template and of something in the course, or it is refused by name', async () => {
    const [{ expected, found }] = await twoPairs()
    for (const [answer, where] of [
      [await join('join', 'no-such/part', found), '/expected'],
      [await join('join', expected, 'no-such-item'), '/found'],
    ] as const)
      expect([answer.status, answer.body.detail]).toEqual([400, expect.stringContaining(where)])
    expect((await college.detail()).care.joins).toEqual([])
  })
  it('is not joined by who may only look, nor in a course that was never checked', async () => {
    const [{ expected, found }] = await twoPairs()
    const put = { what: 'unjoin', expected, found }
    for (const client of [college.people.reviewer, college.people.instructor])
      expect((await client.post(`${college.about}/joins`, put)).status).toBe(403)
    const other = await college.addCourse({ ...exampleCourse().course, id: 'never-checked' })
    expect((await college.people.designer.post(`/api/courses/${other}/joins`, put)).status).toBe(
      409,
    )
  })
})
