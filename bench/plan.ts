/**
 * Measures planning alone: an update of courses that instructors have edited, and a deployment into shells, from parsed
 * documents to the plan, expansion included; on one core and on two. A benchmark, not a test: it prints and asserts nothing.
 */
import { Worker, isMainThread, parentPort, workerData } from 'node:worker_threads'
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import {
  bodyOf,
  emptyBase,
  everyCourseItem,
  everyItem,
  expandForPlan,
  planDeployment,
  readDocument,
  Template,
  type Bodies,
} from '@wickerframe/core'
import { factsOfRoster, makeDeployedCourse, makeRoster, shell, stories } from '@wickerframe/demo'

const count = 60
const seconds = 6

/** From the folder the benchmark is run in: its bundle stands elsewhere. */
const harbour = (): Template => {
  const read = readDocument(
    Template,
    JSON.parse(readFileSync('demo/templates/harbour-standard.json', 'utf8')),
  )
  if (!read.ok) throw new Error(JSON.stringify(read.problems[0]))
  return read.value
}

const sha256 = (html: string): string => createHash('sha256').update(html).digest('hex')
/** Bodies as the server keeps them: by SHA-256, worked out anew in every plan. */
const hashed = (all: ReadonlyMap<string, string>): Bodies => {
  const ids = new Map<string, string>()
  const asked = new Map<string, string>()
  return {
    idOf: (html) => {
      let id = ids.get(html)
      if (id === undefined) {
        ids.set(html, (id = sha256(html)))
        asked.set(id, html)
      }
      return id
    },
    htmlOf: (id) => asked.get(id) ?? all.get(id),
  }
}

const versionTwo = (): Template => {
  const template = harbour()
  for (const item of everyItem(template))
    for (const block of item.blocks)
      if (block.kind === 'fixed-text')
        block.html = block.html.replace('</p>', ' It is so from this term on.</p>')
  for (const item of everyItem(template).slice(0, 3)) item.name = `${item.name}, anew`
  return template
}

const prepare = () => {
  const template = harbour()
  const two = versionTwo()
  const names = Object.keys(stories)
  const courses = factsOfRoster(makeRoster(200))
    .filter(({ facts }) => facts.weeks === 16)
    .slice(0, count)
  return courses.map(({ facts, platformCourseId }, i) => {
    const { course, base, bodies } = makeDeployedCourse(
      platformCourseId,
      template,
      facts,
      names[i % names.length] ?? '',
      i + 1,
    )
    const id = (known: string | null) => (known === null ? null : sha256(bodyOf(bodies, known)))
    const parts = base.parts.map((entry) => ({
      ...entry,
      page: id(entry.page),
      blocks: entry.blocks.map((block) => ({
        ...block,
        sent: id(block.sent) ?? '',
        page: id(block.page),
      })),
    }))
    return {
      facts,
      two,
      template,
      course,
      base: { ...base, parts },
      all: new Map(Object.values(bodies.all()).map((html) => [sha256(html), html])),
      shell: shell(`new-${i}`, 'New'),
    }
  })
}

const measure = () => {
  const courses = prepare()
  const rate = (work: (course: (typeof courses)[number]) => void): number => {
    for (let i = 0; i < 3; i++) for (const course of courses) work(course)
    const start = performance.now()
    let done = 0
    while (performance.now() - start < seconds * 1000)
      work(courses[done++ % courses.length] as (typeof courses)[number])
    return (done * 1000) / (performance.now() - start)
  }
  const update = rate(({ two, facts, course, base, all }) => {
    const expansion = expandForPlan({ template: two, facts, course, base })
    if (expansion.ok)
      planDeployment({
        expected: expansion.value,
        course,
        base,
        bodies: hashed(all),
        onDate: '2026-09-16',
      })
  })
  const again = rate(({ template, facts, course, base, all }) => {
    const expansion = expandForPlan({ template, facts, course, base })
    if (expansion.ok)
      planDeployment({
        expected: expansion.value,
        course,
        base,
        bodies: hashed(all),
        onDate: '2026-09-16',
      })
  })
  const fresh = rate(({ template, facts, shell: course }) => {
    const expansion = expandForPlan({ template, facts, course, base: emptyBase() })
    if (expansion.ok)
      planDeployment({
        expected: expansion.value,
        course,
        base: emptyBase(),
        bodies: hashed(new Map()),
        onDate: '2026-09-16',
      })
  })
  return {
    update,
    again,
    fresh,
    items:
      courses.reduce((sum, { course }) => sum + everyCourseItem(course).length, 0) / courses.length,
  }
}

const inThread = (): Promise<ReturnType<typeof measure>> =>
  new Promise((resolve, reject) => {
    const worker = new Worker(new URL(import.meta.url), { workerData: 'measure' })
    worker.once('message', resolve)
    worker.once('error', reject)
  })

if (isMainThread) {
  const measured = measure()
  const told = (rates: { update: number; again: number; fresh: number }) =>
    `update ${rates.update.toFixed(0)}, unchanged version ${rates.again.toFixed(0)}, into a shell ${rates.fresh.toFixed(0)} courses a second`
  console.log(
    `Planning alone, ${count} courses of ${measured.items.toFixed(0)} items, expansion included:`,
  )
  console.log(`  on one core: ${told(measured)}`)
  const [a, b] = await Promise.all([inThread(), inThread()])
  console.log(
    `  on two cores: ${told({ update: a.update + b.update, again: a.again + b.again, fresh: a.fresh + b.fresh })} (goal: at least 100)`,
  )
} else if (workerData === 'measure') parentPort?.postMessage(measure())
