/**
 * Measures what is asked of the whole college where everything is open: every course right after its deployment, each prompt of
 * it unanswered, so that its findings are as large as they come. Asked of a started server, the first time and again, with what
 * somebody else waits meanwhile, and the server's memory. `npm run bench:all-open` does so with 2,000 courses; COUNT=500 with
 * others. On a database of its own, on loopback. A benchmark, not a test: it prints and asserts nothing.
 */
import { setTimeout as wait } from 'node:timers/promises'
import type { CourseSummary, TodayView } from '@wickerframe/contract'
import { growTo } from '@wickerframe/e2e/largeCollege'
import { runIs, versionOrder } from '@wickerframe/e2e/rollouts'
import { startTestBed } from '@wickerframe/e2e/testBed'
import { firstRow } from '@wickerframe/storage'
import { memoryOf } from './memory.ts'

const count = Number(process.env['COUNT'] ?? '2000')
const bed = await startTestBed({ courses: 6, leaseSeconds: 30 })
const designer = await bed.as('designer@kestrelsound.example')

const memory = (when: 'now' | 'at most'): string => memoryOf(bed.server.child.pid, when).toFixed(0)

/** Asks some times, one after the other, while somebody else asks who they are. */
const timed = async (name: string, times: number, ask: () => Promise<unknown>): Promise<void> => {
  let going = true
  let longest = 0
  const other = (async () => {
    while (going) {
      const began = performance.now()
      await designer.get('/api/me')
      longest = Math.max(longest, performance.now() - began)
      await wait(20)
    }
  })()
  const took: string[] = []
  for (let time = 0; time < times; time += 1) {
    const began = performance.now()
    await ask()
    took.push((performance.now() - began).toFixed(0))
  }
  going = false
  await other
  console.log(
    `${name}: ${took.join(', ')} ms; another waits ${longest.toFixed(0)} ms at most; memory ${memory('now')} MB, ${memory('at most')} at most`,
  )
}

try {
  const worker = await bed.startWorker()
  const courses = (await designer.get<CourseSummary[]>('/api/courses')).body
    .filter(({ status, weeks }) => status === 'teaching' && weeks >= 15)
    .map(({ id }) => id)
  const { body: rollout } = await designer.post<{ run: number }>('/api/rollouts', {
    order: versionOrder('distance-standard', 1),
    courses,
  })
  await runIs(bed, rollout.run, 'planned', 600)
  await designer.post(`/api/runs/${rollout.run}/approve`)
  await runIs(bed, rollout.run, 'done', 600)
  const { body: checks } = await designer.post<{ run: number }>('/api/checks', { courses })
  await runIs(bed, checks.run, 'done', 600)
  worker.child.kill()
  await growTo(bed.pool, count)
  const sizes = await firstRow<{ courses: number; findings: number; gist: number }>(
    bed.pool,
    `SELECT COUNT(DISTINCT course_id) AS courses, AVG(CHAR_LENGTH(findings)) AS findings,
       AVG(CHAR_LENGTH(gist)) AS gist
     FROM check_results`,
    [],
  )
  console.log(
    `${sizes?.courses} checked courses; findings of one ${((sizes?.findings ?? 0) / 1000).toFixed(1)} kB, what is kept of them ${((sizes?.gist ?? 0) / 1000).toFixed(1)} kB; memory ${memory('now')} MB`,
  )
  const about = (path: string) => () => designer.get(path)
  await timed('Today', 4, about('/api/today'))
  await timed('the weave', 4, about('/api/conformance'))
  await timed('the next four weeks', 3, about('/api/conformance/ahead'))
  await timed('day by day', 3, about('/api/history?by=department'))
  await timed('the library', 3, about('/api/library'))
  await timed('what Wickerframe can mend', 3, about('/api/mends'))
  await timed(
    'names in use in 400 of them',
    2,
    about('/api/names?template=distance-standard&part=home-page'),
  )
  const [first] = (await designer.get<TodayView>('/api/today')).body.mendFirst
  if (first)
    await timed('one thing raised everywhere', 1, () =>
      designer.post('/api/follow-ups', { rule: first.rule, part: first.part, note: '' }),
    )
  await timed('Today after that', 3, about('/api/today'))
} finally {
  await bed.stop()
}
