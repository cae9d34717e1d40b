/**
 * Measures a rollout end to end: COURSES (2,000) shells filled from the Harbour Standard, against a bare client that posts the
 * same change sets at the same concurrency to courses of its own; and the memory of server and workers meanwhile. On a
 * database of its own, on loopback. A benchmark, not a test: it prints and asserts nothing.
 */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import {
  emptyBase,
  expandForPlan,
  isWorkedOut,
  keptBodies,
  planDeployment,
  type Course,
} from '@wickerframe/core'
import type { CourseSummary, MadeCourses } from '@wickerframe/contract'
import { demoTemplate, factsOfRoster, makeRoster } from '@wickerframe/demo'
import { runIs, runOf, versionOrder } from '@wickerframe/e2e/rollouts'
import { startTestBed } from '@wickerframe/e2e/testBed'
import { root } from '@wickerframe/scripts/processes'
import { memoryOf } from './memory.ts'

const courses = Number(process.env['COURSES'] ?? 2000)
const workersCount = 2
const lanes = 2 * workersCount
const folder = join(root, '.local/bench/sets')
mkdirSync(folder, { recursive: true })

/** Processor time of a process so far, in seconds (100 clock ticks a second, as Linux counts them for programs). */
const processorOf = (pid: number | undefined): number => {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? []
  return (Number(fields[11]) + Number(fields[12])) / 100
}
const bed = await startTestBed({ courses: 2, leaseSeconds: 30 })
try {
  const designer = await bed.as('designer@kestrelsound.example')
  const header =
    'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status\n'
  const rows = (prefix: string) =>
    Array.from(
      { length: courses },
      (_, i) =>
        `NAV 110,Coastal Navigation,autumn-2026,,${prefix}${i},own,pilar@kestrelsound.example,Pilar Hjort,on-campus,16,teaching`,
    )
  const made = async (prefix: string): Promise<CourseSummary[]> => {
    for (let i = 0; i < courses; i += 1000) {
      const { body } = await designer.post<MadeCourses>(
        '/api/courses/made?how=each',
        header +
          rows(prefix)
            .slice(i, i + 1000)
            .join('\n'),
        { 'content-type': 'text/csv' },
      )
      if (body.errors.length > 0) throw new Error(JSON.stringify(body.errors[0]))
    }
    return (await designer.get<CourseSummary[]>('/api/courses')).body.filter((course) =>
      course.classSections[0]?.startsWith(prefix),
    )
  }
  const started = performance.now()
  const ours = await made('W')
  const bare = await made('B')
  console.log(
    `${courses} shells made twice in ${((performance.now() - started) / 1000).toFixed(1)} s`,
  )

  // The bare client: the same change sets, worked out beforehand, read from files while it runs.
  const template = { ...demoTemplate('harbour-standard.json'), version: 1 }
  const facts = factsOfRoster(makeRoster(48)).find(({ facts }) => facts.code === 'NAV 110')?.facts
  if (!facts) throw new Error('NAV 110 is in the roster')
  let bytes = 0
  let changes = 0
  for (const [i, course] of bare.entries()) {
    const shell = (await bed.connector(`/courses/${course.platformId}/snapshot`)) as Course
    const expansion = expandForPlan({
      template,
      facts: { ...facts, classSections: course.classSections },
      course: shell,
      base: emptyBase(),
    })
    if (!expansion.ok) throw new Error('the template does not fit')
    const plan = planDeployment({
      expected: expansion.value,
      course: shell,
      base: emptyBase(),
      bodies: keptBodies(),
      onDate: '2026-09-16',
    })
    if (!isWorkedOut(plan)) throw new Error(plan.reason)
    const set = JSON.stringify({ expectedRevision: shell.revision, changes: plan.changes })
    bytes += set.length
    changes += plan.changes.length
    writeFileSync(join(folder, `${i}.json`), set)
  }
  console.log(
    `a change set: ${(changes / bare.length).toFixed(0)} changes, ${(bytes / bare.length / 1024).toFixed(0)} KB`,
  )

  const post = async (i: number): Promise<void> => {
    const answer = await fetch(
      `${bed.platformAddress}/connector/v1/courses/${bare[i]?.platformId}/change-sets`,
      {
        method: 'POST',
        headers: {
          authorization: bed.authorization,
          'content-type': 'application/json',
          'idempotency-key': `bare-${bare[i]?.platformId}`,
        },
        body: readFileSync(join(folder, `${i}.json`)),
      },
    )
    if (!answer.ok) throw new Error(`${answer.status} ${await answer.text()}`)
    await answer.arrayBuffer()
  }
  const bareClient = async (): Promise<number> => {
    const start = performance.now()
    let next = 0
    await Promise.all(
      Array.from({ length: lanes }, async () => {
        while (next < bare.length) await post(next++)
      }),
    )
    return (performance.now() - start) / 1000
  }
  const processors = (named: Record<string, number | undefined>) => {
    const before = Object.fromEntries(
      Object.entries(named).map(([name, pid]) => [name, processorOf(pid)]),
    )
    return () =>
      Object.entries(named)
        .map(
          ([name, pid]) =>
            `${name} ${(((processorOf(pid) - (before[name] ?? 0)) * 1000) / courses).toFixed(1)}`,
        )
        .join(', ')
  }
  const others = { platform: bed.platform().child.pid, mariadb: bed.mariadbPid }
  const bareUse = processors({ ...others, client: process.pid })
  const bareSeconds = await bareClient()
  console.log(`  processor time, ms a course: ${bareUse()}`)
  console.log(
    `bare client, ${lanes} at a time: ${bareSeconds.toFixed(1)} s (${(courses / bareSeconds).toFixed(1)} courses a second)`,
  )

  const workers = await Promise.all(Array.from({ length: workersCount }, () => bed.startWorker()))
  const pids = [bed.server.child.pid, ...workers.map((worker) => worker.child.pid)]
  const peaks = pids.map(() => 0)
  const early = pids.map(() => 0)
  let samples = 0
  const sampler = setInterval(() => {
    samples += 1
    pids.forEach((pid, i) => {
      const now = memoryOf(pid, 'now')
      peaks[i] = Math.max(peaks[i] ?? 0, now)
      if (samples <= 40) early[i] = Math.max(early[i] ?? 0, now)
    })
  }, 250)
  const { body } = await designer.post<{ run: number }>('/api/rollouts', {
    order: versionOrder('harbour-standard', 1),
    courses: ours.map((course) => course.id),
  })
  const planStart = performance.now()
  await runIs(bed, body.run, 'planned', 3600)
  const planSeconds = (performance.now() - planStart) / 1000
  console.log(
    `planned as a job (read from the platform, stored): ${planSeconds.toFixed(1)} s (${(courses / planSeconds).toFixed(1)} courses a second)`,
  )
  const runUse = processors({
    ...others,
    server: bed.server.child.pid,
    'worker 1': workers[0]?.child.pid,
    'worker 2': workers[1]?.child.pid,
  })
  const runStart = performance.now()
  await designer.post(`/api/runs/${body.run}/approve`)
  await runIs(bed, body.run, 'done', 3600)
  const runSeconds = (performance.now() - runStart) / 1000
  clearInterval(sampler)
  console.log(`  processor time, ms a course: ${runUse()}`)
  const detail = await runOf(designer, body.run)
  console.log(
    `rollout, ${workersCount} workers of 2: ${runSeconds.toFixed(1)} s (${(courses / runSeconds).toFixed(1)} courses a second), ${detail.counts.done} done, ${detail.counts.failed} failed`,
  )
  console.log(
    `ratio to the bare client: ${(runSeconds / bareSeconds).toFixed(2)} (goal: at most 1.4)`,
  )
  console.log(
    `memory, MB (server, workers): at most ${peaks.map((peak) => peak.toFixed(0)).join(', ')}; in the first 10 s ${early.map((peak) => peak.toFixed(0)).join(', ')} (goal: under 600, flat)`,
  )
  await Promise.all(workers.map((worker) => worker.stop()))
} finally {
  await bed.stop()
}
