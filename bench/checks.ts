/**
 * Measures checking many courses end to end: from the database, in two threads, into the database. 30 % of each course's
 * pages are its own. `npm run bench:checks` prints 500, 1,000, 2,000 and 4,000 courses; COUNTS=500,2000 others. A
 * benchmark, not a test: it prints and asserts nothing, but says when a full re-check gives other results.
 */
import { parseFragment } from 'parse5'
import { everyCourseItem, ownPrefix, withoutOwn, type Course, type CourseItem } from '@wickerframe/core'
import { demoTemplate, demoToday, factsOfRoster, makeCourse, makeRoster, rosterCsv, storyAt } from '@wickerframe/demo'
import { readRoster } from '@wickerframe/interchange'
import { rowsOf } from '@wickerframe/storage'
import { startTestBed } from '../e2e/testBed.ts'
import { bundle } from '../scripts/bundle.ts'
import { judgePool } from '../server/src/jobs/judgePool.ts'
import { importRoster } from '../server/src/repositories/roster.ts'
import { prepareSnapshot, storeSnapshot } from '../server/src/repositories/snapshots.ts'

const template = demoTemplate('harbour-standard.json')
const counts = (process.env['COUNTS'] ?? '500,1000,2000,4000').split(',').map(Number)
const most = Math.max(...counts)
const rows = makeRoster(Math.ceil(most * 1.8)).filter((row) => row.weeks === 16 || row.weeks === 15).slice(0, most)
const facts = factsOfRoster(rows)
if (rows.length < most) throw new Error(`the roster has ${rows.length} courses of 15 or 16 weeks`)

const bed = await startTestBed({ courses: 1 })
const filler = (n: number) => Array.from({ length: 6 }, (_, i) => `<h3>Part ${i + 1}</h3><p>The ${n + i}th watch writes what it saw in the log, <a href="/logs/${n}">signs it</a> and hands over. Nothing is left for later; see page ${i}.</p><ul><li>lines</li><li>lights</li></ul>`).join('')
const ownPages = (n: number) => (item: CourseItem, i: number): CourseItem => (item.html === null ? item : { ...item, html: (i * 7 + n) % 10 < 3 ? `${item.html}${filler(n)}<p>Written for course ${n}.</p>` : item.html + filler(i) })
const courseOf = (n: number, id: string): Course => {
  const own = ownPages(n)
  const known = facts[n]?.facts
  if (!known) throw new Error('the roster is too short')
  const base = makeCourse(id, template, known, storyAt(n), n)
  return { ...base, id, published: true, modules: base.modules.map((module) => ({ ...module, items: module.items.map(own) })), stray: base.stray.map(own) }
}
const read = readRoster(Buffer.from(rosterCsv(rows)))
await importRoster(bed.pool, read.courses, () => ({}), 'bench', false)
const ids = (await rowsOf<{ id: number; platform_id: string }>(bed.pool, 'SELECT id, platform_id FROM courses ORDER BY id', [])).filter((row) => rows.some((one) => one.platformCourseId === row.platform_id))
await bed.pool.query("UPDATE courses SET template_id = (SELECT id FROM templates WHERE template_key = 'harbour-standard'), version = 1")
const distinct = new Set<string>()
for (const [n, { id, platform_id }] of ids.entries()) {
  const course = courseOf(n, platform_id)
  for (const { item } of everyCourseItem(course)) if (item.html !== null) distinct.add(withoutOwn(item.html, ownPrefix(course)).html)
  const prepared = await prepareSnapshot(bed.pool, course)
  await storeSnapshot(bed.pool, id, prepared)
}
const bytes = [...distinct].reduce((sum, html) => sum + html.length, 0)
console.log(`${ids.length} courses stored, ${everyCourseItem(courseOf(0, 'x')).length} items each, ${distinct.size} distinct pages, ${(bytes / 1e6).toFixed(0)} MB of HTML`)
const start = performance.now()
for (const html of distinct) parseFragment(html)
const parseSeconds = (performance.now() - start) / 1000
console.log(`parse5 alone for the distinct pages of ${ids.length}: ${parseSeconds.toFixed(1)} s on one core`)

const file = await bundle('server/src/worker.ts')
for (const [name, value] of Object.entries(bed.environment)) process.env[name] = value
const results = async (): Promise<Map<number, string>> => new Map((await rowsOf<{ course_id: number; findings: string }>(bed.pool, 'SELECT course_id, findings FROM (SELECT course_id, findings, ROW_NUMBER() OVER (PARTITION BY course_id ORDER BY checked_at DESC, id DESC) AS place FROM check_results) AS ranked WHERE place = 1', [])).map((row) => [row.course_id, row.findings]))

for (const count of counts) {
  await bed.pool.query('DELETE FROM check_results')
  const chosen = ids.slice(0, count)
  let peak = 0
  const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 100)
  const judging = judgePool(file, 2)
  const all = async (list: readonly { id: number }[]) => {
    const began = performance.now()
    const answers = await Promise.all(list.map(({ id }) => judging.judge(id, demoToday, demoToday)))
    const failed = answers.find((answer) => answer.state === 'failed' || answer.state === 'unusable')
    if (failed) console.log(`  failed: ${JSON.stringify(failed)}`)
    return { seconds: (performance.now() - began) / 1000, known: answers.filter((answer) => answer.state === 'known').length }
  }
  const cold = await all(chosen)
  const changed = chosen.filter((_, i) => i % 100 === 0)
  for (const { id, platform_id } of changed) {
    const course = courseOf(ids.findIndex((one) => one.id === id), platform_id)
    const [first] = course.modules
    if (first) first.name = `${first.name}!`
    await storeSnapshot(bed.pool, id, await prepareSnapshot(bed.pool, course))
  }
  const again = await all(chosen)
  const incremental = await results()
  clearInterval(watch)
  await judging.stop()
  await bed.pool.query('DELETE FROM check_results')
  const fresh = judgePool(file, 2)
  await Promise.all(chosen.map(({ id }) => fresh.judge(id, demoToday, demoToday)))
  await fresh.stop()
  const full = await results()
  const differing = [...full].filter(([id, findings]) => incremental.get(id) !== findings).length
  const share = (parseSeconds * count) / ids.length
  console.log(`${String(count).padStart(5)} courses: cold ${cold.seconds.toFixed(1)} s (${(count / cold.seconds).toFixed(0)} a second; ${(cold.seconds / share).toFixed(1)} times parse5 on one core), peak ${(peak / 1024 / 1024).toFixed(0)} MB; after 1 % changed ${again.seconds.toFixed(2)} s (${((100 * again.seconds) / cold.seconds).toFixed(1)} % of cold, ${again.known} known), ${differing} results differ from a full check`)
}
await bed.stop()
