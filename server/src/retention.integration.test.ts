import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { startPrivateSchema, type PrivateSchema } from './testing/privateSchema.testing.ts'
import { forgetOld, type Retention } from './retention.ts'

let schema: PrivateSchema
let course: number

const forEver: Retention = { audit: null, messages: null, results: null, runs: null, bodies: 1 }
const count = async (table: string): Promise<number> =>
  (
    await schema.rows<{ n: number }>(`SELECT COUNT(*) AS n
      FROM ${table}`)
  )[0]?.n ?? -1
const counts = async (): Promise<Record<string, number>> =>
  Object.fromEntries(
    await Promise.all(
      ['audit', 'messages', 'check_results', 'runs', 'tasks'].map(
        async (table) => [table, await count(table)] as const,
      ),
    ),
  )
const daysAgo = (days: number) => `TIMESTAMPADD(DAY, -${days}, NOW(3))`

beforeAll(async () => {
  schema = await startPrivateSchema()
  const [id] = await schema.addCourses(1)
  course = id ?? 0
})
afterAll(() => schema.stop())
beforeEach(async () => {
  for (const table of ['messages', 'audit', 'check_results', 'deployments', 'tasks', 'runs'])
    await schema.pool.query(`DELETE FROM ${table}`)
  for (const days of [10, 100]) {
    await schema.pool.query(
      `INSERT INTO audit (at, who, what, subject)
       VALUES (${daysAgo(days)}, 'a', 'b', 'c')`,
    )
    await schema.pool.query(
      `INSERT INTO messages (recipient, sent_at, subject, body)
       VALUES ('a', ${daysAgo(days)}, 'b', 'c')`,
    )
    await schema.pool.query(
      `INSERT INTO runs (id, kind, state, title, created_by, created_at, finished_at)
       VALUES (?, 'check', 'done', 'A', 'b', ${daysAgo(days)}, ${daysAgo(days)})`,
      [days],
    )
    await schema.pool.query(
      `INSERT INTO tasks (run_id, course_id, state, next_at, message)
       VALUES (?, ?, 'failed', NOW(3), 'the platform was away')`,
      [days, course],
    )
  }
  for (const days of [300, 200, 100])
    await schema.pool.query(
      `INSERT INTO check_results (
         course_id, cache_key, as_of, checked_at, told_at, readiness, open_musts, open_shoulds,
           counts, crossings, findings, outlook, rest
       )
       VALUES (?, ?, '2026-09-16', ${daysAgo(days)}, NOW(3), 'ready', 0, 0, '', '', '', '', '')`,
      [course, String(days)],
    )
})
const all = { audit: 2, messages: 2, check_results: 3, runs: 2, tasks: 2 }

it('nothing goes without a setting', async () => {
  await forgetOld(schema.pool, forEver)
  expect(await counts()).toEqual(all)
})
it.each<[Partial<Retention>, Partial<typeof all>]>([
  [{ audit: 30 }, { audit: 1 }],
  [{ messages: 30 }, { messages: 1 }],
  [{ runs: 30 }, { runs: 1, tasks: 1 }],
  [{ results: 250 }, { check_results: 2 }],
])('what is older goes, and nothing else: %j', async (keep, left) => {
  await forgetOld(schema.pool, { ...forEver, ...keep })
  expect(await counts()).toEqual({ ...all, ...left })
})
it('the latest result of a course stays, however old it is', async () => {
  await forgetOld(schema.pool, { ...forEver, results: 1 })
  expect(
    await schema.rows(`SELECT cache_key AS of
      FROM check_results`),
  ).toEqual([{ of: '100' }])
})
it('a run that something still names stays: a deployment, what it undid, a message', async () => {
  const { pool } = schema
  const deploy = (number: number, run: number, undoneBy: number | null) =>
    pool.query(
      `INSERT INTO deployments (
         course_id, number, run_id, deployed_at, deployed_by, engine, idempotency_key, parts,
           expansion, undone_by
       )
       VALUES (?, ?, ?, NOW(3), 'a', 'b', ?, 1, '', ?)`,
      [course, number, run, `key ${number}`, undoneBy],
    )
  await deploy(1, 10, null)
  await deploy(2, 10, 100)
  await forgetOld(pool, { ...forEver, runs: 1 })
  expect(await count('runs')).toBe(2)
  await pool.query('DELETE FROM deployments')
  await pool.query(`UPDATE messages
    SET run_id = 100, subject = id`)
  await forgetOld(pool, { ...forEver, runs: 1 })
  expect(
    await schema.rows(`SELECT id
      FROM runs`),
  ).toEqual([{ id: 100 }])
})
it('a run that goes on is never old', async () => {
  await schema.pool.query(`UPDATE runs
    SET state = 'paused'`)
  await forgetOld(schema.pool, { ...forEver, runs: 1 })
  expect(await count('runs')).toBe(2)
})
