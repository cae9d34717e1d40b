import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoToday } from '@wickerframe/demo'
import { change, rowsOf } from '@wickerframe/storage'
import { checkStored } from '@wickerframe/server/checks/checkThread'
import { findClashes } from '@wickerframe/server/courses/cohort'
import { startTestBed, type TestBed } from './testBed.ts'

let bed: TestBed
let ids: number[]
beforeAll(async () => {
  bed = await startTestBed({ courses: 24 })
  ids = (
    await rowsOf<{ id: number }>(
      bed.pool,
      `SELECT courses.id
       FROM courses
       JOIN snapshots ON snapshots.course_id = courses.id
       WHERE template_id IS NOT NULL
       ORDER BY courses.id`,
    )
  ).map((row) => row.id)
})
afterAll(() => bed.stop())

const stored = async (): Promise<Map<number, string>> =>
  new Map(
    (
      await rowsOf<{ course_id: number; all: string }>(
        bed.pool,
        `SELECT course_id, CONCAT(readiness, counts, findings, rest, crossings) AS \`all\`
         FROM check_results`,
      )
    ).map((row) => [row.course_id, row.all]),
  )
const checkAnew = async (sets: readonly (readonly number[])[]) => {
  await change(bed.pool, 'DELETE FROM check_results')
  for (const set of sets) await checkStored(bed.pool, set, demoToday, demoToday)
  return stored()
}

describe('courses checked together', () => {
  it('come out as each by itself', async () => {
    expect(ids.length).toBeGreaterThan(16)
    const together = await checkAnew([ids])
    expect(together.size).toBe(ids.length)
    expect(await checkAnew(ids.map((id) => [id]))).toEqual(together)
  })

  it('are known when nothing changed, and only the one that did is checked again', async () => {
    await checkAnew([ids])
    const [first = 0] = ids
    await change(
      bed.pool,
      `UPDATE snapshots
       SET digest = SHA2('another', 256)
       WHERE course_id = ?`,
      [first],
    )
    const answers = await checkStored(bed.pool, ids, demoToday, demoToday)
    expect(
      [...answers]
        .filter(([, answer]) => answer.state !== 'known')
        .map(([id, answer]) => [id, answer.state]),
    ).toEqual([[first, 'checked']])
  })

  it('one that cannot be read fails by itself, one that is gone is told, and the others are checked', async () => {
    const [first = 0] = ids
    const gone = Math.max(...ids) + 1000
    const [kept] = await rowsOf<{ document: string }>(
      bed.pool,
      `SELECT document
       FROM snapshots
       WHERE course_id = ?`,
      [first],
    )
    await change(bed.pool, 'DELETE FROM check_results')
    await change(
      bed.pool,
      `UPDATE snapshots
       SET document = '{}'
       WHERE course_id = ?`,
      [first],
    )
    const answers = await checkStored(bed.pool, [...ids, gone], demoToday, demoToday)
    await change(
      bed.pool,
      `UPDATE snapshots
       SET document = ?
       WHERE course_id = ?`,
      [kept?.document ?? '', first],
    )
    expect(answers.get(first)).toMatchObject({
      state: 'failed',
      message: expect.stringContaining(`the snapshot of course ${first} cannot be read`),
    })
    expect(answers.get(gone)).toEqual({ state: 'gone' })
    expect(ids.slice(1).map((id) => answers.get(id)?.state)).toEqual(
      ids.slice(1).map(() => 'checked'),
    )
  })
})

describe('names that courses share', () => {
  it('are looked for in the course’s own term only, also after it moved to another', async () => {
    const [row] = await rowsOf<{
      own: number
      other: number
      name: string
      term: string
      away: string
    }>(
      bed.pool,
      `SELECT own.course_id AS own, other.course_id AS other, own.name, own.term_code AS term,
         terms.code AS away
       FROM cohort_names AS own
       JOIN cohort_names AS other
         ON other.folded_hash = own.folded_hash
         AND other.kind = own.kind
         AND other.term_code = own.term_code
         AND other.course_id > own.course_id
       JOIN terms ON terms.code <> own.term_code
       WHERE own.kind = 'calendar-name'
       LIMIT 1`,
    )
    if (!row) throw new Error('no two demo courses of a term share a calendar name')
    const shares = async () =>
      (await findClashes(bed.pool, [row.own]))
        .get(row.own)
        ?.some((clash) => clash.name === row.name) ?? false
    const move = (term: string) =>
      change(
        bed.pool,
        `UPDATE courses
         SET term_code = ?
         WHERE id = ?`,
        [term, row.own],
      )
    expect(await shares()).toBe(true)
    await move(row.away)
    expect(await shares()).toBe(false)
    await move(row.term)
    expect(await shares()).toBe(true)
  })
})
