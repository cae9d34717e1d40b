/**
 * Measures holding a draft against many deployed courses, end to end: asked of the server, worked by the worker's two threads,
 * told by the server while it goes on. A course has 150 items and 60 pages of 250 kB, three pages in ten its own; the draft
 * renames a format, asks for one more page and changes words of every home page. `npm run bench:impact` does so with 2,000
 * courses: never checked before, then checked before, then again; COUNTS=100,500 with others. On a database of its
 * own, on loopback. A benchmark, not a test: it prints and asserts nothing.
 */
import { setTimeout as wait } from 'node:timers/promises'
import {
  baseOfCourse,
  bodiesOfBase,
  emptyBase,
  expandForPlan,
  ownPrefix,
  pairCourse,
  type Course,
  type Facts,
  type TemplateEdit,
} from '@wickerframe/core'
import type { Impact } from '@wickerframe/contract'
import { demoTemplate, demoToday, factsOfRoster, makeRoster, rosterCsv } from '@wickerframe/demo'
import { startTestBed } from '@wickerframe/e2e/testBed'
import { readRoster } from '@wickerframe/interchange'
import { storeBase } from '@wickerframe/server/rollouts/bases'
import { importRoster } from '@wickerframe/server/roster/roster'
import {
  courseBodies,
  inTransactionNaming,
  nameBodies,
} from '@wickerframe/server/snapshots/courseBodies'
import { prepareSnapshot, storeSnapshot } from '@wickerframe/server/snapshots/snapshots'
import { startProcess } from '@wickerframe/scripts/processes'
import { rowsOf } from '@wickerframe/storage'
import { memoryOf } from './memory.ts'
import { sizedCourse } from './sizedCourse.ts'

const counts = (process.env['COUNTS'] ?? '2000').split(',').map(Number)
const most = Math.max(...counts)
const template = demoTemplate('harbour-standard.json')
const bed = await startTestBed({ courses: 1, leaseSeconds: 30 })
const designer = await bed.as('designer@kestrelsound.example')

/** A course as it stands right after it was deployed, as the worker would have kept it. */
const keep = async (id: number, course: Course, facts: Facts): Promise<void> => {
  const expansion = expandForPlan({ template, facts, course, base: emptyBase() })
  if (!expansion.ok) throw new Error(JSON.stringify(expansion.problems[0]))
  const placed = new Map(
    pairCourse(expansion.value, course, () => null).pairs.map(({ expected, found }) => [
      expected,
      found,
    ]),
  )
  const bodies = courseBodies()
  const base = baseOfCourse(expansion.value, course, placed, bodies, demoToday)
  const prepared = prepareSnapshot(course)
  const ready = bodies.ready(bodiesOfBase(base), ownPrefix(course))
  await inTransactionNaming(
    bed.pool,
    new Map([...prepared.bodies.html, ...ready.html]),
    async (database) => {
      await storeSnapshot(database, id, prepared)
      await nameBodies(database, id, ready.named)
      await storeBase(database, id, base)
    },
  )
}

const rows = makeRoster(most * 3).filter((row) => row.weeks === 16 || row.weeks === 15)
const facts = factsOfRoster(rows).slice(0, most)
const read = readRoster(Buffer.from(rosterCsv(rows)))
await importRoster(bed.pool, read.courses, () => ({}), 'bench')
const ids = new Map(
  (
    await rowsOf<{ id: number; platform_id: string }>(
      bed.pool,
      `SELECT id, platform_id
       FROM courses`,
      [],
    )
  ).map((row) => [row.platform_id, row.id]),
)
/** Puts the first so many courses under the template, and no other. */
const teach = async (count: number): Promise<number[]> => {
  const chosen = facts
    .slice(0, count)
    .flatMap(({ platformCourseId }) => ids.get(platformCourseId) ?? [])
  await bed.pool.query(`UPDATE courses
    SET template_id = NULL, version = NULL`)
  await bed.pool.query(
    `UPDATE courses
     SET template_id = (SELECT id FROM templates WHERE template_key = 'harbour-standard'),
       version = 1
     WHERE id IN (${chosen.join(', ')})`,
  )
  return chosen
}
for (const [n, { platformCourseId, facts: of }] of facts.entries())
  await keep(ids.get(platformCourseId) ?? 0, sizedCourse(platformCourseId, template, of, n), of)
console.log(`${facts.length} courses stored`)

const [opening] = template.parts
const like = opening?.kind === 'module' ? opening.items.find(({ kind }) => kind === 'page') : null
if (!opening || !like) throw new Error('the template begins with a module that has a page')
const edits = [
  {
    edit: 'add-part',
    parent: opening.key,
    at: 0,
    part: { ...like, key: 'house-rules', name: 'House rules' },
  },
  {
    edit: 'set-field',
    part: like.key,
    field: ['name'],
    was: like.name,
    value: `${like.name} aboard`,
  },
]
const about = `/api/templates/${template.key}`
const { body: before } = await designer.get<{ draftRevision: number }>(`${about}`)
const { status, body: edited } = await designer.post<{ revision: number }>(`${about}/edits`, {
  revision: before.draftRevision,
  edits: edits as TemplateEdit[],
})
if (status !== 200) throw new Error(JSON.stringify(edited))

const hold = async () => {
  const began = performance.now()
  const since = () => (performance.now() - began) / 1000
  await designer.post(`${about}/impact`, { revision: edited.revision })
  let first = 0
  let slowest = 0
  for (;;) {
    const asked = performance.now()
    const { body } = await designer.get<Impact>(`${about}/impact`)
    slowest = Math.max(slowest, performance.now() - asked)
    if (first === 0 && body.courses > 0) first = since()
    if (body.state === 'done') return { body, first, slowest, seconds: since() }
    await wait(500)
  }
}
const startWorker = () =>
  startProcess('server/src/worker.ts', { ...bed.environment, WORKER_CONCURRENCY: '4' })
const told = async (
  count: number,
  what: string,
  worker: Awaited<ReturnType<typeof startWorker>>,
) => {
  const { body, first, slowest, seconds } = await hold()
  console.log(
    `${String(count).padStart(5)} courses, ${what}: first figures after ${first.toFixed(1)} s, all after ${seconds.toFixed(1)} s; worker ${memoryOf(worker.child.pid, 'at most').toFixed(0)} MB at most; slowest answer of the server meanwhile ${slowest.toFixed(0)} ms; ${body.courses} foreseen, ${body.rollout.changed} to change, ${body.failed} failed`,
  )
}
for (const count of counts) {
  await teach(count)
  await bed.pool.query('DELETE FROM check_results')
  const cold = await startWorker()
  await told(count, 'never checked before', cold)
  await cold.stop()
  const worker = await startWorker()
  await told(count, 'checked before, caches empty', worker)
  await told(count, 'checked before, caches warm', worker)
  await worker.stop()
}
await bed.stop()
