import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  bodiesOfBase,
  everyCourseItem,
  everyItem,
  everyModule,
  type Change,
  type Course,
} from '@wickerframe/core'
import type { CourseDetail, CourseSummary, MadeCourses, TemplateDraft } from '@wickerframe/contract'
import { demoTemplate } from '@wickerframe/demo'
import { findBase } from '@wickerframe/server/rollouts/bases'
import { collectBodies, tidyCourse } from '@wickerframe/server/snapshots/bodyCollector'
import { inTransactionNaming, unnamedBodies } from '@wickerframe/server/snapshots/courseBodies'
import { findBodies, savePageBodies } from '@wickerframe/server/snapshots/pageBodies'
import { prepareSnapshot, storeSnapshot } from '@wickerframe/server/snapshots/snapshots'
import { change } from '@wickerframe/storage'
import { planRollout, versionOrder, workUntil } from './rollouts.ts'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

/*
 * Rollouts taken back from what is stored alone: every plan and every run is made by a worker of its own, which starts with
 * nothing in memory and ends with its work.
 */

let bed: TestBed
let designer: Client
const key = 'keel-standard'

beforeAll(async () => {
  bed = await startTestBed({ courses: 2 })
  designer = await bed.as('designer@kestrelsound.example')
  const template = { ...structuredClone(demoTemplate('short-course-standard.json')), key }
  expect(
    (await designer.post('/api/templates', { ...template, title: 'Keel Standard' })).status,
  ).toBe(200)
  await designer.post(`/api/templates/${key}/release`, { revision: 0, note: 'First' })
})
afterAll(() => bed.stop())

let section = 0
const newCourse = async (template = key): Promise<CourseSummary> => {
  const name = `K${++section}`
  const { body } = await designer.post<MadeCourses>(
    `/api/courses/made?how=each&template=${template}`,
    `code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status\nSAF 150,Liferaft & Flare Drill,autumn-2026,first-half,${name},own,pilar@kestrelsound.example,Pilar Hjort,on-campus,8,teaching`,
    { 'content-type': 'text/csv' },
  )
  expect(body.errors).toEqual([])
  const found = (await designer.get<CourseSummary[]>('/api/courses')).body.find((course) =>
    course.classSections.includes(name),
  )
  if (!found) throw new Error(`no course ${name}`)
  return found
}
const read = async (course: CourseSummary): Promise<Course> =>
  (await bed.connector(`/courses/${course.platformId}/snapshot`)) as Course
let edits = 0
const edit = async (course: CourseSummary, changesOf: (present: Course) => Change[]) => {
  const present = await read(course)
  const answer = await fetch(
    `${bed.platformAddress}/connector/v1/courses/${course.platformId}/change-sets`,
    {
      method: 'POST',
      headers: {
        authorization: bed.authorization,
        'content-type': 'application/json',
        'idempotency-key': `edit-of-an-instructor-${++edits}`,
      },
      body: JSON.stringify({ expectedRevision: present.revision, changes: changesOf(present) }),
    },
  )
  expect(answer.status).toBe(200)
}
const run = async (
  order: Parameters<typeof planRollout>[2],
  courses: readonly CourseSummary[],
): Promise<number> => {
  const planned = await planRollout(
    bed,
    designer,
    order,
    courses.map((course) => course.id),
  )
  await designer.post(`/api/runs/${planned.run}/approve`)
  const { tasks } = await workUntil(bed, designer, planned.run, 'done')
  // Every course that was written to was read again and is as the plan said, and nothing else of it changed.
  for (const task of tasks)
    expect(task.message).toMatch(
      /read again: \d+ pages? (?:changed as planned, \d+ )?as they were$|^\d+ parts kept as they stand$/,
    )
  return planned.run
}
/** Writes fixed texts of the draft anew, takes a part out, and releases it. */
const release = async (words: string, without: string | null): Promise<number> => {
  const { body } = await designer.get<TemplateDraft>(`/api/templates/${key}`)
  const draft = structuredClone(body.draft)
  const items = draft.parts.flatMap((part) => (part.kind === 'module' ? part.items : [part]))
  const textEdits = [draft.home, ...items].flatMap((part) =>
    ('blocks' in part ? part.blocks : []).flatMap((block) =>
      block.kind === 'fixed-text'
        ? [
            {
              edit: 'set-block',
              part: 'key' in part ? part.key : 'home',
              block: block.key,
              field: 'html',
              was: block.html,
              value: `<p>${words}</p>${block.html}`,
            },
          ]
        : [],
    ),
  )
  const answer = await designer.post<{ detail?: string }>(`/api/templates/${key}/edits`, {
    revision: body.draftRevision,
    edits: [...textEdits, ...(without === null ? [] : [{ edit: 'remove-part', part: without }])],
  })
  expect([answer.status, answer.body.detail]).toEqual([200, undefined])
  const { body: again } = await designer.get<TemplateDraft>(`/api/templates/${key}`)
  const released = await designer.post<{ version: number }>(`/api/templates/${key}/release`, {
    revision: again.draftRevision,
    note: words,
  })
  return released.body.version
}

/** The course by names: without ids, addresses and times. */
const alike = (course: Course): unknown => {
  const names = new Map(
    [...everyModule(course.modules), ...everyCourseItem(course).map(({ item }) => item)].map(
      ({ id, name }) => [id, name],
    ),
  )
  const text = JSON.stringify(course, (field, value: unknown) =>
    ['id', 'revision', 'readAt', 'url', 'recordedAs'].includes(field) ? undefined : value,
  )
  return JSON.parse(
    text.replace(/\b[im]\d{4,}\b/g, (id) => (names.get(id) ?? 'gone').replaceAll('"', '')),
  ) as unknown
}
const answered = 'Ask for Pilar at the boathouse'
/** An instructor writes into every second page, before and behind what stands there. */
const writeOn = (present: Course): Change[] =>
  everyCourseItem(present)
    .filter(({ item }) => (item.html ?? '') !== '')
    .flatMap(({ item }, i): Change[] =>
      i % 2 === 0
        ? [
            {
              change: 'set-item',
              id: item.id,
              fields: { html: `<p>${answered}.</p>${item.html}<p>${answered}, page ${i}.</p>` },
            },
          ]
        : [],
    )

describe.each([
  ['keeps marks', 0],
  ['strips marks and styles', 1],
] as const)('on a platform that %s', (_, strips) => {
  it(
    'a rollout taken back gives every page back, from what is stored alone',
    { timeout: 240_000 },
    async () => {
      await bed.misbehave('strip-attributes', strips)
      await bed.misbehave('strip-styles', strips)
      const course = await newCourse()
      await run(versionOrder(key, 1), [course])
      await edit(course, writeOn)
      const before = await read(course)
      expect(JSON.stringify(before)).toContain(answered)
      const version = await release(`Said by the college, ${strips}`, null)
      const update = await run(versionOrder(key, version), [course])
      const updated = await read(course)
      const changed = everyCourseItem(updated).filter(({ item }) =>
        item.html?.includes('Said by the college'),
      )
      expect(changed.length).toBeGreaterThan(1)
      const planned = await planRollout(bed, designer, { mode: 'undo', run: update }, [course.id])
      expect(planned.plans[0]).toMatchObject({ state: 'ready' })
      await designer.post(`/api/runs/${planned.run}/approve`)
      await workUntil(bed, designer, planned.run, 'done')
      const after = await read(course)
      expect(
        everyCourseItem(after)
          .filter(({ item }) => item.html === '')
          .map(({ item }) => item.name),
      ).toEqual([])
      expect(alike(after)).toEqual(alike(before))
      // What a later plan reads is as before, too: nothing to do under the old version, the same again under the new one.
      const { plans: old } = await planRollout(bed, designer, versionOrder(key, 1), [course.id])
      expect(old[0]?.state).toBe('nothing-to-do')
      const { plans: anew } = await planRollout(bed, designer, versionOrder(key, version), [
        course.id,
      ])
      expect(anew[0]).toMatchObject({ state: 'ready', undecided: 0 })
      // And the taking back is taken back.
      await run({ mode: 'undo', run: planned.run }, [course])
      expect(alike(await read(course))).toEqual(alike(updated))
    },
  )

  it(
    'an earlier rollout taken back after a later one leaves what the later one wrote',
    { timeout: 240_000 },
    async () => {
      await bed.misbehave('strip-attributes', strips)
      await bed.misbehave('strip-styles', strips)
      const course = await newCourse()
      await run(versionOrder(key, 1), [course])
      const first = await release(`Earlier words ${strips}`, null)
      const earlier = await run(versionOrder(key, first), [course])
      const second = await release(`Later words ${strips}`, null)
      await run(versionOrder(key, second), [course])
      const stood = JSON.stringify(await read(course)).split(`Later words ${strips}`).length
      expect(stood).toBeGreaterThan(2)
      await run({ mode: 'undo', run: earlier }, [course])
      expect(JSON.stringify(await read(course)).split(`Later words ${strips}`).length).toBe(stood)
    },
  )
})

describe('what is left to the instructor', () => {
  const left = 'left-standard'
  const spot = 'a number, and when'
  const promise = (words: string) => `<p>${words}. In a hurry, call [[${spot}]].</p>`
  const why = 'Say why students do this.'
  const leaving = () => {
    const template = { ...structuredClone(demoTemplate('short-course-standard.json')), key: left }
    for (const item of everyItem(template))
      for (const block of item.blocks) {
        if (block.key === 'answer-promise' && block.kind === 'fixed-text')
          block.html = promise('Questions are answered within a day')
        if (item.key === 'assignment' && block.key === 'brief')
          Object.assign(item, {
            blocks: [
              {
                kind: 'assignment-brief',
                key: 'brief',
                strength: 'must',
                why: `<p>${why}</p>`,
                whatToDo: '<p>Say what they do.</p>',
                handIn: '',
                judged: '',
                left: { as: 'asked', hint: 'In two sentences.' },
              },
            ],
          })
      }
    return { ...template, title: 'Left Standard' }
  }
  const standing = async (course: CourseSummary): Promise<string> =>
    everyCourseItem(await read(course))
      .map(({ item }) => item.html ?? '')
      .join('\n')
  const toldOf = async (course: CourseSummary): Promise<string[]> => {
    const { run: check } = (
      await designer.post<{ run: number }>(`/api/courses/${course.id}/check`, {})
    ).body
    await workUntil(bed, designer, check, 'done')
    const { body } = await designer.get<CourseDetail>(`/api/courses/${course.id}`)
    return (body.result?.findings ?? []).map(({ message }) => message)
  }

  it.each([0, 1])(
    'is asked for, answered, and kept through an update and its taking back (marks stripped: %i)',
    { timeout: 240_000 },
    async (strips) => {
      await bed.misbehave('strip-attributes', strips)
      await bed.misbehave('strip-styles', strips)
      await designer.post('/api/templates', leaving())
      const { body: draft } = await designer.get<TemplateDraft>(`/api/templates/${left}`)
      if (draft.versions.length === 0)
        await designer.post(`/api/templates/${left}/release`, { revision: 0, note: 'First' })
      const course = await newCourse(left)
      await run(versionOrder(left, 1), [course])
      const asked = await toldOf(course)
      expect(asked.filter((message) => message.includes(`still says “[${spot}]”`))).toHaveLength(1)
      expect(asked.some((message) => message.includes('still asks for the assignment brief'))).toBe(
        true,
      )
      await edit(course, (present) =>
        everyCourseItem(present).flatMap(({ item }): Change[] =>
          item.html?.includes(`[${spot}]`) || item.html?.includes(why)
            ? [
                {
                  change: 'set-item',
                  id: item.id,
                  fields: {
                    html: item.html
                      .replace(`[${spot}]`, '555 & ask for Pilar')
                      .replace(why, 'So that nobody runs aground.'),
                  },
                },
              ]
            : [],
        ),
      )
      const answers = await toldOf(course)
      expect(answers.filter((message) => message.includes(spot))).toEqual([])
      expect(answers.filter((message) => message.includes('changes fixed text'))).toEqual([])
      expect(
        answers.filter((message) => message.includes('still asks for the assignment brief')),
      ).not.toEqual(asked.filter((message) => message.includes('still asks for the assignment')))
      const words = `Questions are answered by the next tide ${strips}`
      const { body: now } = await designer.get<TemplateDraft>(`/api/templates/${left}`)
      const was = everyItem(now.draft)
        .flatMap(({ blocks }) => blocks)
        .find((block) => block.key === 'answer-promise')
      await designer.post(`/api/templates/${left}/edits`, {
        revision: now.draftRevision,
        edits: [
          {
            edit: 'set-block',
            part: 'welcome',
            block: 'answer-promise',
            field: 'html',
            was: was?.kind === 'fixed-text' ? was.html : null,
            value: promise(words),
          },
        ],
      })
      const { body: again } = await designer.get<TemplateDraft>(`/api/templates/${left}`)
      const { version } = (
        await designer.post<{ version: number }>(`/api/templates/${left}/release`, {
          revision: again.draftRevision,
          note: words,
        })
      ).body
      const before = await read(course)
      const update = await run(versionOrder(left, version), [course])
      expect(await standing(course)).toContain(
        `${words}. In a hurry, call 555 &amp; ask for Pilar.`,
      )
      expect(await standing(course)).toContain('So that nobody runs aground.')
      expect((await toldOf(course)).filter((message) => message.includes(spot))).toEqual([])
      await run({ mode: 'undo', run: update }, [course])
      expect(alike(await read(course))).toEqual(alike(before))
    },
  )
})

describe('bodies', () => {
  it('that a base names are kept, and what nobody names goes', { timeout: 120_000 }, async () => {
    const course = await newCourse()
    await run(versionOrder(key, 1), [course])
    const named = bodiesOfBase(await findBase(bed.pool, course.id))
    expect(named.length).toBeGreaterThan(20)
    expect(await unnamedBodies(bed.pool, course.id, named)).toEqual([])
    // The database itself holds them.
    await expect(
      change(
        bed.pool,
        `DELETE FROM page_bodies
         WHERE hash IN (SELECT hash FROM course_bodies WHERE course_id = ?)`,
        [course.id],
      ),
    ).rejects.toMatchObject({ code: 'ER_ROW_IS_REFERENCED_2' })
    const all = (await designer.get<CourseSummary[]>('/api/courses')).body
    for (const { id } of all) await tidyCourse(bed.pool, id)
    const nobodys = 'f'.repeat(64)
    await savePageBodies(bed.pool, new Map([[nobodys, '<p>Of nobody.</p>']]))
    expect(await collectBodies(bed.pool, 100_000, 0)).toBeGreaterThan(0)
    for (const { id } of all) {
      const still = bodiesOfBase(await findBase(bed.pool, id))
      expect(await unnamedBodies(bed.pool, id, still)).toEqual([])
    }
  })

  it('taken out by the collector just before they are named are put in again', async () => {
    const course = await newCourse()
    const like = everyCourseItem(await read(await firstDeployed()))[0]?.item
    if (!like) throw new Error('the deployed course is empty')
    const snapshot = prepareSnapshot({
      ...(await read(course)),
      stray: [{ ...like, id: 'i1', html: '<p>Between two steps.</p>' }],
    })
    const [hash = ''] = snapshot.bodies.html.keys()
    await savePageBodies(bed.pool, snapshot.bodies.html)
    await change(
      bed.pool,
      `DELETE FROM page_bodies
       WHERE hash = ?`,
      [hash],
    )
    // This process believes it to be kept.
    await inTransactionNaming(bed.pool, snapshot.bodies.html, (database) =>
      storeSnapshot(database, course.id, snapshot),
    )
    expect(await unnamedBodies(bed.pool, course.id, [hash])).toEqual([])
    expect((await findBodies(bed.pool, [hash])).get(hash)).toBe('<p>Between two steps.</p>')
  })
})
const firstDeployed = async (): Promise<CourseSummary> => {
  const found = (await designer.get<CourseSummary[]>('/api/courses')).body.find(
    (course) => course.state === 'deployed',
  )
  if (!found) throw new Error('no course is deployed')
  return found
}
