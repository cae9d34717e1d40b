/**
 * Measures checking many courses end to end: from the database, in two threads, into the database, in a process of its own.
 * A course has 150 items and 60 pages of 250 kB, three pages in ten its own. `npm run bench:checks` prints 500, 1,000, 2,000
 * and 4,000 courses; COUNTS=500,2000 others. A benchmark, not a test: it prints and asserts nothing, but says when a full
 * re-check gives other results.
 */
import { parseFragment } from 'parse5'
import { everyCourseItem, ownPrefix, withoutOwn, type Course } from '@wickerframe/core'
import { demoTemplate, demoToday, factsOfRoster, makeRoster, rosterCsv } from '@wickerframe/demo'
import { readRoster } from '@wickerframe/interchange'
import { rowsOf } from '@wickerframe/storage'
import { fork } from 'node:child_process'
import { once } from 'node:events'
import { fileURLToPath } from 'node:url'
import { startTestBed } from '@wickerframe/e2e/testBed'
import { importRoster } from '@wickerframe/server/roster/roster'
import { inTransactionNaming } from '@wickerframe/server/snapshots/courseBodies'
import { prepareSnapshot, storeSnapshot } from '@wickerframe/server/snapshots/snapshots'
import type { CheckingAnswer, CheckingQuestion } from './checking.ts'
import { sizedCourse } from './sizedCourse.ts'

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0)
const lengthOf = (pages: readonly string[]): number => sum(pages.map((html) => html.length))

const template = demoTemplate('harbour-standard.json')
const counts = (process.env['COUNTS'] ?? '500,1000,2000,4000').split(',').map(Number)
const most = Math.max(...counts)
const bed = await startTestBed({ courses: 1 })

const keep = async (id: number, course: Course): Promise<void> => {
  const prepared = prepareSnapshot(course)
  await inTransactionNaming(bed.pool, prepared.bodies.html, (database) =>
    storeSnapshot(database, id, prepared),
  )
}

const rows = makeRoster(most * 3).filter((row) => row.weeks === 16 || row.weeks === 15)
const facts = new Map(
  factsOfRoster(rows)
    .slice(0, most)
    .map(({ platformCourseId, facts }) => [platformCourseId, facts]),
)
if (facts.size < most) throw new Error(`the roster has ${facts.size} courses of 15 or 16 weeks`)
const read = readRoster(Buffer.from(rosterCsv(rows)))
await importRoster(bed.pool, read.courses, () => ({}), 'bench')
const ids = (
  await rowsOf<{ id: number; platform_id: string }>(
    bed.pool,
    `SELECT id, platform_id
     FROM courses
     ORDER BY id`,
    [],
  )
).filter((row) => facts.has(row.platform_id))
await bed.pool.query(
  `UPDATE courses
   SET template_id = (SELECT id FROM templates WHERE template_key = 'harbour-standard'), version = 1`,
)
const courseOf = (n: number): Course => {
  const platformId = ids[n]?.platform_id ?? ''
  const known = facts.get(platformId)
  if (!known) throw new Error(`the roster has no course ${platformId}`)
  return sizedCourse(platformId, template, known, n)
}

/** For each course how many characters of pages it has that no course before it has; of every tenth those pages as well. */
const lengths: number[] = []
const samples: string[][] = []
const seen = new Set<string>()
for (const [n, { id }] of ids.entries()) {
  const course = courseOf(n)
  const prefix = ownPrefix(course)
  const fresh = everyCourseItem(course)
    .flatMap(({ item }) => (item.html === null ? [] : [withoutOwn(item.html, prefix).html]))
    .filter((html) => !seen.has(html) && seen.add(html))
  lengths.push(lengthOf(fresh))
  if (n % 10 === 0) samples.push(fresh)
  await keep(id, course)
}
/** Seconds parse5 alone takes for the pages of so many courses, told from every tenth: asked right before and after what it is compared with, since machines change their speed. */
const parseSeconds = (count: number): number => {
  const pages = samples.slice(0, Math.ceil(count / 10)).flat()
  const start = performance.now()
  for (const html of pages) parseFragment(html)
  return (((performance.now() - start) / 1000) * sum(lengths.slice(0, count))) / lengthOf(pages)
}
console.log(
  `${ids.length} courses stored, ${seen.size} distinct pages (${(seen.size / ids.length).toFixed(1)} a course), ${(sum(lengths) / 1e6).toFixed(0)} MB of HTML`,
)
seen.clear()
// Once over, so that its code is warm.
parseSeconds(most)

const results = async (): Promise<Map<number, string>> =>
  new Map(
    (
      await rowsOf<{ course_id: number; findings: string }>(
        bed.pool,
        `SELECT course_id, MD5(findings) AS findings
         FROM (
           SELECT course_id, findings,
             ROW_NUMBER() OVER (PARTITION BY course_id ORDER BY told_at DESC, id DESC) AS place
           FROM check_results
         ) AS ranked
         WHERE place = 1`,
        [],
      )
    ).map((row) => [row.course_id, row.findings]),
  )

/** A process that checks as the worker does, with two threads. */
const startChecking = () => {
  const child = fork(fileURLToPath(new URL('checking.ts', import.meta.url)), {
    execArgv: ['--import', 'tsx'],
    env: { ...process.env, ...bed.environment },
  })
  return {
    check: async (courseIds: readonly number[]): Promise<CheckingAnswer> => {
      child.send({
        courseIds: [...courseIds],
        asOf: demoToday,
        today: demoToday,
      } satisfies CheckingQuestion)
      const [answer] = (await once(child, 'message')) as [CheckingAnswer]
      if (answer.failed) console.log(`  failed: ${answer.failed}`)
      return answer
    },
    stop: async () => {
      child.disconnect()
      await once(child, 'exit')
    },
  }
}

for (const count of counts) {
  await bed.pool.query('DELETE FROM check_results')
  const chosen = ids.slice(0, count).map(({ id }) => id)
  const checking = startChecking()
  const before = parseSeconds(count)
  const cold = await checking.check(chosen)
  const parse = (before + parseSeconds(count)) / 2
  for (let n = 0; n < count; n += 100) {
    const course = courseOf(n)
    const [first] = course.modules
    if (first) first.name = `${first.name}!`
    await keep(ids[n]?.id ?? 0, course)
  }
  const again = await checking.check(chosen)
  const incremental = await results()
  await checking.stop()
  await bed.pool.query('DELETE FROM check_results')
  const fresh = startChecking()
  await fresh.check(chosen)
  await fresh.stop()
  const full = await results()
  const differing = [...full].filter(([id, findings]) => incremental.get(id) !== findings).length
  console.log(
    `${String(count).padStart(5)} courses: cold ${cold.seconds.toFixed(1)} s (${(count / cold.seconds).toFixed(0)} a second; ${(cold.seconds / parse).toFixed(1)} times parse5 alone on one core, ${parse.toFixed(1)} s), peak ${cold.peakMegabytes} MB, ${((1000 * cold.cpuSeconds) / count).toFixed(0)} ms of processor time a course; after 1 % changed ${again.seconds.toFixed(2)} s (${((100 * again.seconds) / cold.seconds).toFixed(1)} % of cold, ${again.known} known), ${differing} results differ from a full check`,
  )
  // As it was before the change.
  for (let n = 0; n < count; n += 100) await keep(ids[n]?.id ?? 0, courseOf(n))
}
await bed.stop()
