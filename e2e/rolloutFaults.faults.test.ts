import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  blockRegions,
  bodiesOfBase,
  bodyOf,
  everyCourseItem,
  everyModule,
  missingBodies,
  type Base,
  type Change,
  type Course,
} from '@wickerframe/core'
import type {
  CourseSummary,
  MadeCourses,
  RunDetail,
  ShapeGroup,
  TemplateDraft,
} from '@wickerframe/contract'
import { seededRandom } from '@wickerframe/demo'
import { findBase } from '@wickerframe/server/rollouts/bases'
import { courseBodies } from '@wickerframe/server/snapshots/courseBodies'
import { change, rowsOf } from '@wickerframe/storage'
import type { StartedProcess } from '@wickerframe/scripts/processes'
import { runOf, versionOrder } from './rollouts.ts'
import { startTestBed, until, type Client, type TestBed } from './testBed.ts'

const courses = 200
const kills = 25
const template = 'lifeboat-standard'

let bed: TestBed
let designer: Client

/** A template small enough for hundreds of courses, with every sort of change in its second version. */
const document = {
  schema: 'wickerframe.template/1',
  key: template,
  title: 'Lifeboat Standard',
  naming: { courseName: '{code} {title} · {classSection}', courseLabel: '{code}' },
  home: {
    name: '{code} home',
    blocks: [
      { kind: 'fixed-text', key: 'notice', html: '<p>Muster at the slipway.</p>' },
      { kind: 'fill-in', key: 'hours', prompt: 'When can students see you?' },
    ],
  },
  parts: [
    {
      kind: 'module',
      key: 'start',
      name: 'Start here',
      position: 'first',
      items: [
        {
          kind: 'page',
          key: 'welcome',
          name: 'Welcome to {code}',
          blocks: [
            { kind: 'fixed-text', key: 'rule', html: '<p>Lifejackets on, always.</p>' },
            { kind: 'fill-in', key: 'hello', prompt: 'Tell students who you are.' },
          ],
        },
        {
          kind: 'page',
          key: 'gone',
          name: 'Old drill sheet',
          blocks: [{ kind: 'fixed-text', key: 'sheet', html: '<p>Drill one.</p>' }],
        },
      ],
    },
    {
      kind: 'module',
      key: 'week',
      name: 'Week {week} · {topic}',
      repeat: { per: 'week', from: 1, to: 2 },
      items: [
        { kind: 'discussion', key: 'talk', name: 'Discussion {week}' },
        {
          kind: 'assignment',
          key: 'work',
          name: 'Drill {week}',
          settings: { points: 10, due: { from: 'week-end', days: 0, time: '23:59' } },
        },
      ],
    },
  ],
}

beforeAll(async () => {
  bed = await startTestBed({ courses: 2, leaseSeconds: 3 })
  designer = await bed.as('designer@kestrelsound.example')
  expect((await designer.post('/api/templates', document)).status).toBe(200)
  expect(
    (await designer.post(`/api/templates/${template}/release`, { revision: 0, note: 'First' }))
      .body,
  ).toMatchObject({ version: 1 })
})
afterAll(() => bed.stop())

/** Pairs of courses that are to end up the same: one without faults, one with. */
const makeTwins = async (): Promise<{ calm: CourseSummary[]; rough: CourseSummary[] }> => {
  const rows = (prefix: string) =>
    Array.from(
      { length: courses },
      (_, i) =>
        `SAF 150,Liferaft & Flare Drill,autumn-2026,first-half,${prefix}${i},own,,,on-campus,8,teaching`,
    )
  const header =
    'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status\n'
  const { body } = await designer.post<MadeCourses>(
    '/api/courses/made?how=each',
    header + [...rows('C'), ...rows('R')].join('\n'),
    { 'content-type': 'text/csv' },
  )
  expect([body.errors, body.made.length]).toEqual([[], 2 * courses])
  const all = (await designer.get<CourseSummary[]>('/api/courses')).body
  const sorted = (prefix: string) =>
    all
      .filter((course) => course.classSections[0]?.startsWith(prefix))
      .sort((a, b) => Number(a.classSections[0]?.slice(1)) - Number(b.classSections[0]?.slice(1)))
  return { calm: sorted('C'), rough: sorted('R') }
}
const snapshot = async (course: CourseSummary): Promise<Course> =>
  (await bed.connector(`/courses/${course.platformId}/snapshot`)) as Course

/** What instructors do, the same in both of a pair; each writes a word that must be found again. */
const editsOf = (course: Course, i: number): Change[] => {
  const random = seededRandom(400 + i)
  const items = everyCourseItem(course)
  const named = (name: string) => items.find(({ item }) => item.name.startsWith(name))?.item
  const word = `kept-${i}`
  const welcome = named('Welcome')
  const [first, second, drill] = [named('Discussion 1'), named('Discussion 2'), named('Old drill')]
  const sets: (Change | null)[] = [
    welcome
      ? {
          change: 'set-item',
          id: welcome.id,
          fields: { html: (welcome.html ?? '').replace('Tell students who you are.', word) },
        }
      : null,
    random() < 0.4 && welcome
      ? {
          change: 'set-item',
          id: welcome.id,
          fields: {
            html: (welcome.html ?? '')
              .replace('Lifejackets on, always.', `Lifejackets, ${word}.`)
              .replace('Tell students who you are.', word),
          },
        }
      : null,
    random() < 0.4 && first
      ? { change: 'set-item', id: first.id, fields: { name: `Talk ${word}` } }
      : null,
    random() < 0.3 && second ? { change: 'remove-item', id: second.id } : null,
    random() < 0.3 && drill
      ? { change: 'set-item', id: drill.id, fields: { html: `<p>${word}</p>` } }
      : null,
    random() < 0.3
      ? {
          change: 'create-item',
          clientId: 'own',
          module: course.modules[1]?.id ?? '',
          at: 0,
          kind: 'page',
          fields: { name: `Mine ${word}`, html: `<p>${word}</p>` },
        }
      : null,
  ]
  return sets.flatMap((edit) => edit ?? [])
}

/** The course without ids, times and what tells the pair apart: equal for courses that ended the same. */
const normal = (course: Course): string => {
  const names = new Map(
    [...everyModule(course.modules), ...everyCourseItem(course).map(({ item }) => item)].map(
      ({ id }, i) => [id, `#${i}`],
    ),
  )
  const text = JSON.stringify(course, (field, value: unknown) =>
    ['id', 'revision', 'readAt', 'label', 'name'].includes(field) && typeof value === 'string'
      ? field === 'name'
        ? value.replace(/ · [CR]\d+$/, '')
        : ''
      : value,
  )
  return text
    .replace(/\/courses\/[\w-]+\//g, '/')
    .replace(/\b[im]\d{4,}\b/g, (id) => names.get(id) ?? '#gone')
    .replace(/@r-[0-9a-f]+/g, '@r')
}
const applied = async (
  list: readonly CourseSummary[],
): Promise<{ sets: number; changes: number }[]> => {
  const rows = await rowsOf<{ id: string; applied_sets: number; applied_changes: number }>(
    bed.platformPool,
    `SELECT id, applied_sets, applied_changes
     FROM courses`,
  )
  const counted = new Map(
    rows.map((row) => [row.id, { sets: row.applied_sets, changes: row.applied_changes }]),
  )
  return list.map((course) => counted.get(course.platformId) ?? { sets: -1, changes: -1 })
}
const planned = async (version: number, list: readonly CourseSummary[]): Promise<number> => {
  const { body } = await designer.post<{ run: number }>('/api/rollouts', {
    order: versionOrder(template, version),
    courses: list.map(({ id }) => id),
    rule: 'keep',
  })
  await until(
    () => runOf(designer, body.run),
    (detail) => detail.state === 'planned',
    120,
  )
  return body.run
}
const planAndApprove = async (version: number, list: readonly CourseSummary[]): Promise<number> => {
  const run = await planned(version, list)
  await designer.post(`/api/runs/${run}/approve`)
  return run
}
/** Which shape the plan of each course has. */
const shapesOf = async (run: number): Promise<Map<number, string>> =>
  new Map(
    (await designer.get<ShapeGroup[]>(`/api/rollouts/${run}/shapes`)).body.flatMap((group) =>
      group.courses.map((course) => [course.course, group.shape] as const),
    ),
  )

/** The base with what each block says in the page named for it, which is what a plan reads, in place of that page's name: other words beside a block make another page of it. */
const blockByBlock = async (course: CourseSummary, base: Base): Promise<unknown> => {
  const bodies = courseBodies()
  const named = bodiesOfBase(base)
  await bodies.load(bed.pool, course.id, named)
  expect(missingBodies(named, bodies)).toEqual([])
  const parts = base.parts.map((entry) => ({
    ...entry,
    platformId: '',
    blocks: entry.blocks.map((block) => {
      if (block.page === null) return block
      const page = bodyOf(bodies, block.page)
      const looked = entry.blocks.map(({ key, sent }) => ({ key, html: bodyOf(bodies, sent) }))
      const region = blockRegions(page, looked).regions.get(block.key)
      return { ...block, page: region && page.slice(region.inner.from, region.inner.to) }
    }),
  }))
  return { ...base, parts }
}
/** Everything of a course that a later check or plan reads, without platform ids: what was removed comes back under new ones. */
const readingOf = async (
  course: CourseSummary,
): Promise<{ course: string; base: unknown; heldTo: unknown }> => {
  const base = await findBase(bed.pool, course.id)
  return {
    course: normal(await snapshot(course)),
    base: await blockByBlock(course, base),
    heldTo: (
      await rowsOf<{ template_id: number; version: number; parts_taken: string | null }>(
        bed.pool,
        `SELECT template_id, version, parts_taken
         FROM courses
         WHERE id = ?`,
        [course.id],
      )
    )[0],
  }
}
/** An instructor writes on the welcome page after the rollout. */
const editSince = async (course: CourseSummary, i: number): Promise<void> => {
  const present = await snapshot(course)
  const welcome = everyCourseItem(present).find(({ item }) => item.name.startsWith('Welcome'))?.item
  if (!welcome) throw new Error('no welcome page')
  const answer = await fetch(
    `${bed.platformAddress}/connector/v1/courses/${course.platformId}/change-sets`,
    {
      method: 'POST',
      headers: {
        authorization: bed.authorization,
        'content-type': 'application/json',
        'idempotency-key': `edit-since-of-${course.platformId}`,
      },
      body: JSON.stringify({
        expectedRevision: present.revision,
        changes: [
          {
            change: 'set-item',
            id: welcome.id,
            fields: { html: `${welcome.html ?? ''}<p>late-${i}</p>` },
          },
        ],
      }),
    },
  )
  expect(answer.status).toBe(200)
}
const ended = (run: number, seconds: number): Promise<RunDetail> =>
  until(
    () => runOf(designer, run).catch(() => ({ state: 'running' }) as RunDetail),
    (detail) => detail.state === 'done',
    seconds,
  )

let server: StartedProcess
let workers: StartedProcess[] = []

/** Sees a run to its end while everything goes wrong and processes are killed again and again; each kill hits it under way. */
const tormented = async (run: number): Promise<void> => {
  const random = seededRandom(Date.now() % 100_000)
  for (const [name, count] of [
    ['slow-answers', 900],
    ['lost-answer', 25],
    ['too-many-requests', 25],
    ['server-error', 25],
    ['edit-in-between', 5],
  ] as const)
    await bed.misbehave(name, count)
  const killed: Promise<unknown>[] = []
  const underWay: number[] = []
  for (let k = 0; k < kills; k++) {
    await new Promise((resolve) => setTimeout(resolve, 300 + random() * 900))
    // Each one hits a run that is under way.
    const still = await rowsOf<{ count: number }>(
      bed.pool,
      `SELECT COUNT(*) AS count
       FROM tasks
       WHERE run_id = ? AND state IN ('waiting', 'at-work', 'sent')`,
      [run],
    ).catch(() => [{ count: 1 }])
    underWay.push(Number(still[0]?.count))
    const which = Math.floor(random() * 4)
    if (which === 3) {
      await server.stop('SIGKILL')
      server = await bed.startServer()
    } else {
      await workers[which]?.stop('SIGKILL')
      const again = await bed.startWorker()
      workers = workers.map((worker, i) => (i === which ? again : worker))
    }
    // The database drops every connection now and then, and is away for a while once.
    if (k % 8 === 3)
      for (const { Id } of await rowsOf<{ Id: number }>(
        bed.pool,
        `SELECT ID AS Id
         FROM information_schema.PROCESSLIST
         WHERE COMMAND <> 'Killed' AND ID <> CONNECTION_ID()`,
      ))
        await change(bed.pool, `KILL CONNECTION ${Number(Id)}`).catch(() => undefined)
    if (k === 12) {
      process.kill(bed.mariadbPid, 'SIGSTOP')
      killed.push(
        new Promise((resolve) =>
          setTimeout(() => resolve(process.kill(bed.mariadbPid, 'SIGCONT')), 4000),
        ),
      )
    }
  }
  await Promise.all(killed)
  expect(
    underWay.every((count) => count > 0),
    `courses left at each kill: ${underWay.join(', ')}`,
  ).toBe(true)
  await bed.misbehave('slow-answers', 0)
  const detail = await ended(run, 300)
  expect(detail.counts).toMatchObject({ failed: 0, cancelled: 0 })
  // A plan that came out differently since somebody edited in between is approved again.
  if (detail.counts.held > 0) {
    await designer.post(`/api/runs/${run}/approve`)
    await ended(run, 120)
  }
}

describe('two hundred courses', () => {
  it(
    'end as they would without faults, whatever is killed and whenever; taken back, they are as before but for edits since',
    { timeout: 1_500_000 },
    async () => {
      const { calm, rough } = await makeTwins()
      workers = [await bed.startWorker(), await bed.startWorker(), await bed.startWorker()]
      server = bed.server
      await ended(await planAndApprove(1, [...calm, ...rough]), 240)

      for (const list of [calm, rough])
        for (let i = 0; i < list.length; i += 10)
          await Promise.all(
            list.slice(i, i + 10).map(async (course, j) => {
              const present = await snapshot(course)
              const changes = editsOf(present, i + j)
              const answer = await fetch(
                `${bed.platformAddress}/connector/v1/courses/${course.platformId}/change-sets`,
                {
                  method: 'POST',
                  headers: {
                    authorization: bed.authorization,
                    'content-type': 'application/json',
                    'idempotency-key': `edit-of-${course.platformId}`,
                  },
                  body: JSON.stringify({ expectedRevision: present.revision, changes }),
                },
              )
              expect(answer.status).toBe(200)
            }),
          )
      const { body } = await designer.get<TemplateDraft>(`/api/templates/${template}`)
      const edits = [
        {
          edit: 'set-block',
          part: 'welcome',
          block: 'rule',
          field: 'html',
          was: '<p>Lifejackets on, always.</p>',
          value: '<p>Lifejackets on from the gate.</p>',
        },
        {
          edit: 'set-field',
          part: 'talk',
          field: ['name'],
          was: 'Discussion {week}',
          value: 'Watch talk {week}',
        },
        { edit: 'set-field', part: 'work', field: ['settings', 'points'], was: 10, value: 20 },
        { edit: 'remove-part', part: 'gone' },
        {
          edit: 'add-part',
          parent: 'start',
          at: 0,
          part: {
            ...document.parts[0]?.items[0],
            key: 'new-page',
            name: 'Know your boat',
            blocks: [
              {
                kind: 'fixed-text',
                key: 'boat',
                html: '<p>It rights itself. <a href="part:welcome">Back.</a></p>',
              },
            ],
          },
        },
      ]
      expect(
        await designer.post(`/api/templates/${template}/edits`, {
          revision: body.draftRevision,
          edits,
        }),
      ).toMatchObject({ status: 200 })
      expect(
        (
          await designer.post(`/api/templates/${template}/release`, {
            revision: body.draftRevision + 1,
            note: 'Second',
          })
        ).body,
      ).toMatchObject({ version: 2 })

      await ended(await planAndApprove(2, calm), 240)

      // Now with everything going wrong, killed again and again.
      const before = await applied(rough)
      const stood = await Promise.all(rough.map(readingOf))
      const update = await planAndApprove(2, rough)
      await tormented(update)

      const [endCalm, endRough] = [
        await Promise.all(calm.map(snapshot)),
        await Promise.all(rough.map(snapshot)),
      ]
      for (const [i, course] of endRough.entries()) {
        expect(normal(course)).toBe(normal(endCalm[i] as Course))
        expect(JSON.stringify(course)).toContain(`kept-${i}`)
      }
      // The platform itself has counted: one set each, and not one change more than without faults.
      const [afterCalm, afterRough] = [await applied(calm), await applied(rough)]
      expect(afterRough.map(({ sets }, i) => sets - (before[i]?.sets ?? 0))).toEqual(
        rough.map(() => 1),
      )
      expect(afterRough).toEqual(afterCalm)
      // What we recorded is the same too: one deployment more, and bases alike.
      const deployed = await rowsOf<{ number: number; count: number }>(
        bed.pool,
        `SELECT MAX(number) AS number, COUNT(*) AS count
         FROM deployments
         JOIN courses ON courses.id = deployments.course_id
         WHERE courses.code = ? AND courses.platform_id LIKE ?
         GROUP BY course_id`,
        ['SAF 150', 'autumn-2026-first-half-saf-150-r%'],
      )
      expect(deployed.every((row) => Number(row.number) === 2 && Number(row.count) === 2)).toBe(
        true,
      )
      expect(deployed).toHaveLength(courses)

      // Then all of it is taken back, under the same torment: every course, and all that a later plan reads of it, is as it was
      // before the rollout, but for what was edited since.
      const shapes = await shapesOf(update)
      for (let i = 1; i < rough.length; i += 2) await editSince(rough[i] as CourseSummary, i)
      const { body: undo } = await designer.post<{ run: number }>(`/api/rollouts/${update}/undo`)
      await until(
        () => runOf(designer, undo.run),
        (detail) => detail.state === 'planned',
        120,
      )
      await designer.post(`/api/runs/${undo.run}/approve`)
      await tormented(undo.run)
      const now = await Promise.all(rough.map(readingOf))
      for (const [i, reading] of now.entries()) {
        // The platform puts a paragraph on a line of its own.
        const late = `<p>late-${i}</p>`
        expect(reading.course.includes(late)).toBe(i % 2 === 1)
        expect(JSON.parse(reading.course.replace(new RegExp(`(\\\\n *)?${late}`), ''))).toEqual(
          JSON.parse(stood[i]?.course ?? 'null'),
        )
        expect(reading.heldTo).toEqual(stood[i]?.heldTo)
        expect(reading.base).toEqual(stood[i]?.base)
      }
      const again = await planned(2, rough)
      const shapesNow = await shapesOf(again)
      const same = rough.filter(
        (course, i) => i % 2 === 0 && shapes.get(course.id) === shapesNow.get(course.id),
      )
      expect(same).toHaveLength(rough.length / 2)
      await Promise.all(workers.map((worker) => worker.stop()))
    },
  )
})
