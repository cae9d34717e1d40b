import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  type Change,
  type Course,
  type CourseItem,
  everyCourseItem,
  itemsIn,
} from '@wickerframe/core'
import type {
  CourseDetail,
  CoursePlan,
  CourseSummary,
  Message,
  Rehearsal,
  RunDetail,
  ShapeGroup,
  StandingRules,
  TemplateDraft,
} from '@wickerframe/contract'
import { demoTemplate } from '@wickerframe/demo'
import { planRollout, runOf, versionOrder, workUntil } from './rollouts.ts'
import { startTestBed, until, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let designer: Client
let edits = 0
const key = 'tide-standard'

/** A short template of our own, so that its versions can be made here. */
const templateOf = (): object => {
  const template = structuredClone(demoTemplate('short-course-standard.json')) as unknown as Record<
    string,
    unknown
  >
  return { ...template, key, title: 'Tide Standard' }
}

beforeAll(async () => {
  bed = await startTestBed({ courses: 6 })
  designer = await bed.as('designer@kestrelsound.example')
  expect((await designer.post('/api/templates', templateOf())).status).toBe(200)
  expect(
    (await designer.post(`/api/templates/${key}/release`, { revision: 0, note: 'First' })).body,
  ).toMatchObject({ version: 1 })
})
afterAll(() => bed.stop())

const rosterHeader =
  'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status\n'
let section = 10
/** New courses, made from roster rows, with their ids. */
const newCourses = async (count: number): Promise<CourseSummary[]> => {
  const sections = Array.from({ length: count }, () => String(++section))
  const rows = sections.map(
    (section) =>
      `SAF 150,Liferaft & Flare Drill,autumn-2026,first-half,${section},own,pilar@kestrelsound.example,Pilar Hjort,on-campus,8,teaching`,
  )
  const made = await designer.post(
    `/api/courses/made?how=each&template=${key}`,
    rosterHeader + rows.join('\n'),
    { 'content-type': 'text/csv' },
  )
  expect(made.body).toMatchObject({
    errors: [],
    made: sections.map((section) => ({ classSections: [section] })),
  })
  return (await designer.get<CourseSummary[]>('/api/courses')).body.filter(
    (course) =>
      course.code === 'SAF 150' &&
      course.classSections.some((section) => sections.includes(section)),
  )
}
const snapshot = async (course: CourseSummary): Promise<Course> =>
  (await bed.connector(`/courses/${course.platformId}/snapshot`)) as Course
const itemOf = async (course: CourseSummary, name: RegExp): Promise<CourseItem> => {
  const found = everyCourseItem(await snapshot(course)).find(({ item }) =>
    name.test(item.name),
  )?.item
  if (!found) throw new Error(`no item ${name}`)
  return found
}
/** What an instructor does on the platform. */
const edit = async (course: CourseSummary, changes: Change[]): Promise<void> => {
  const { revision } = await snapshot(course)
  const answer = await fetch(
    `${bed.platformAddress}/connector/v1/courses/${course.platformId}/change-sets`,
    {
      method: 'POST',
      headers: {
        authorization: bed.authorization,
        'content-type': 'application/json',
        'idempotency-key': `instructor-${++edits}-${Math.random().toString(36).slice(2)}`,
      },
      body: JSON.stringify({ expectedRevision: revision, changes }),
    },
  )
  expect(answer.status).toBe(200)
}
const run = async (
  course: readonly CourseSummary[],
  version: number,
  more: Parameters<typeof versionOrder>[2] = {},
): Promise<{ run: number; plans: CoursePlan[] }> => {
  const planned = await planRollout(
    bed,
    designer,
    versionOrder(key, version, more),
    course.map(({ id }) => id),
  )
  await designer.post(`/api/runs/${planned.run}/approve`)
  await workUntil(bed, designer, planned.run, 'done')
  return planned
}
/** Releases the draft with these edits of the welcome's fixed text and of a name. */
const release = async (promise: string, questions: string): Promise<number> => {
  const { body } = await designer.get<TemplateDraft>(`/api/templates/${key}`)
  const welcome = body.draft.parts
    .flatMap((part) => (part.kind === 'module' ? part.items : []))
    .find((part) => part.key === 'welcome')
  if (!welcome || welcome.kind === 'module') throw new Error('the template has a welcome')
  const block = welcome.blocks.find((block) => block.kind === 'fixed-text')
  if (!block) throw new Error('the welcome has fixed text')
  const edited = await designer.post(`/api/templates/${key}/edits`, {
    revision: body.draftRevision,
    edits: [
      {
        edit: 'set-block',
        part: 'welcome',
        block: block.key,
        field: 'html',
        was: block.kind === 'fixed-text' ? block.html : '',
        value: promise,
      },
      {
        edit: 'set-field',
        part: 'questions',
        field: ['name'],
        was: body.draft.parts
          .flatMap((part) => (part.kind === 'module' ? part.items : []))
          .find((part) => part.key === 'questions')?.name,
        value: questions,
      },
    ],
  })
  expect(edited.status, JSON.stringify(edited.body)).toBe(200)
  const again = await designer.get<TemplateDraft>(`/api/templates/${key}`)
  const released = await designer.post<{ version: number }>(`/api/templates/${key}/release`, {
    revision: again.body.draftRevision,
    note: promise.slice(0, 60),
  })
  expect(released.status, JSON.stringify(released.body)).toBe(200)
  return released.body.version
}

describe('from deployment to undo', () => {
  let course: CourseSummary
  let other: CourseSummary
  let updateRun = 0
  let before: Course

  it('deploys into courses made from roster rows, under the name the template gives, with their people enrolled', async () => {
    const [first, second] = await newCourses(2)
    course = first as CourseSummary
    other = second as CourseSummary
    expect(course.state).toBe('not-read')
    await run([course, other], 1)
    expect((await snapshot(course)).modules.length).toBeGreaterThan(5)
    expect((await designer.get<CourseDetail>(`/api/courses/${course.id}`)).body).toMatchObject({
      template: { key, version: 1 },
      history: [
        {
          number: 1,
          mode: 'version',
          version: 1,
          by: 'designer@kestrelsound.example',
          counts: { create: expect.any(Number) },
        },
      ],
    })
  })

  it('plans an update: what only the template changed, what only people changed, and what both did', async () => {
    const welcome = await itemOf(course, /^Welcome/)
    await edit(course, [
      {
        change: 'set-item',
        id: welcome.id,
        fields: {
          html: (welcome.html ?? '')
            .replace(
              /(<div data-wicker-block="[^"]*how-it-runs[^>]*>).*?(<\/div>)/s,
              '$1<p>It runs as the tide runs.</p>$2',
            )
            .replace(/Say who you are[^<]*/, 'I am Pilar, thirty years at sea.'),
        },
      },
    ])
    const checklist = await itemOf(course, /[Cc]hecklist/)
    await edit(course, [{ change: 'remove-item', id: checklist.id }])
    const version = await release('<p>The college says it anew.</p>', 'Ask the crew')
    expect(version).toBe(2)
    const { run: planned, plans } = await planRollout(bed, designer, versionOrder(key, 2), [
      course.id,
      other.id,
    ])
    updateRun = planned
    const [plan, plain] = plans
    const welcomeStep = plan?.steps.find((step) => step.part === 'welcome')
    const fates = Object.fromEntries(
      welcomeStep?.fields.map((field) => [field.field, field.does]) ?? [],
    )
    const altered = plain?.steps
      .find((step) => step.part === 'welcome')
      ?.fields.map((field) => [field.field, field.does])
    expect(altered).toEqual([[expect.stringMatching(/^block:/), 'change']])
    expect(plan?.steps.find((step) => step.part === 'questions')).toMatchObject({
      does: 'change',
      fields: [{ field: 'name', present: expect.any(String), result: 'Ask the crew' }],
    })
    expect(
      plan?.steps.some((step) => step.does === 'create' && /[Cc]hecklist/.test(step.name)),
    ).toBe(false)
    expect(Object.values(fates)).toEqual(['conflict'])
    expect(plan?.undecided).toBe(1)
    const { body: shapes } = await designer.get<ShapeGroup[]>(`/api/rollouts/${planned}/shapes`)
    expect(shapes.reduce((sum, group) => sum + group.courses.length, 0)).toBe(2)
    expect(await runOf(designer, planned)).toMatchObject({
      state: 'planned',
      counts: { planned: 2 },
    })
  })

  it('decides a conflict, runs, and keeps every word of the instructor', async () => {
    before = await snapshot(course)
    expect(
      (await designer.post(`/api/rollouts/${updateRun}/decisions`, { rule: 'keep' })).status,
    ).toBe(200)
    await workUntil(bed, designer, updateRun, 'planned')
    await designer.post(`/api/runs/${updateRun}/approve`)
    await workUntil(bed, designer, updateRun, 'done')
    const after = await snapshot(course)
    const welcome = everyCourseItem(after).find(({ item }) => item.name.startsWith('Welcome'))?.item
    expect(welcome?.html).toContain('I am Pilar, thirty years at sea.')
    expect(everyCourseItem(after).some(({ item }) => item.name === 'Ask the crew')).toBe(true)
    expect((await itemOf(other, /^Welcome/)).html).toContain('The college says it anew.')
    const again = await planRollout(bed, designer, versionOrder(key, 2), [course.id, other.id])
    expect(again.plans.map((plan) => plan.state)).toEqual(['nothing-to-do', 'nothing-to-do'])
    expect(
      (await designer.get<CourseDetail>(`/api/courses/${course.id}`)).body.template,
    ).toMatchObject({ version: 2 })
    const { body: messages } = await designer.get<Message[]>('/api/messages')
    expect(
      messages.some(
        (message) => message.run === updateRun && message.body.startsWith('2 courses done'),
      ),
    ).toBe(true)
  })

  it('takes it back in one course, but for what was edited since, and under its earlier version', async () => {
    const asked = await itemOf(course, /^Ask the crew/)
    await edit(course, [{ change: 'set-item', id: asked.id, fields: { name: 'Ask me anything' } }])
    const undo = await designer.post<{ run: number }>(`/api/rollouts/${updateRun}/undo`, {
      courses: [course.id],
    })
    expect(undo.status).toBe(200)
    await workUntil(bed, designer, undo.body.run, 'planned')
    const { body: plan } = await designer.get<CoursePlan>(
      `/api/rollouts/${undo.body.run}/courses/${course.id}`,
    )
    expect(plan.steps.find((step) => step.part === 'questions')).toMatchObject({
      does: 'keep',
      fields: [{ field: 'name', does: 'keep', present: 'Ask me anything' }],
    })
    await designer.post(`/api/runs/${undo.body.run}/approve`)
    await workUntil(bed, designer, undo.body.run, 'done')
    const after = await snapshot(course)
    const withoutName = (course: Course) =>
      JSON.stringify({ modules: course.modules, stray: course.stray }, (field, value: unknown) =>
        field === 'name' ? undefined : value,
      )
    expect(withoutName(after)).toBe(withoutName(before))
    expect(everyCourseItem(after).some(({ item }) => item.name === 'Ask me anything')).toBe(true)
    const { body: detail } = await designer.get<CourseDetail>(`/api/courses/${course.id}`)
    expect(detail.template).toMatchObject({ version: 1 })
    expect(detail.history.map(({ mode }) => mode)).toEqual(['undo', 'version', 'version'])
    expect(detail.history[1]?.undoneBy).toBe(undo.body.run)
    expect(
      (await designer.post(`/api/rollouts/${updateRun}/undo`, { courses: [course.id] })).status,
    ).toBe(409)
  })
})

describe('special rollouts', () => {
  it('taken back wholly, a course is the shell it was', async () => {
    const [course] = (await newCourses(1)) as [CourseSummary]
    const before = await snapshot(course)
    const { run: deployed } = await run([course], 1)
    const { body } = await designer.post<{ run: number }>(`/api/rollouts/${deployed}/undo`)
    await workUntil(bed, designer, body.run, 'planned')
    await designer.post(`/api/runs/${body.run}/approve`)
    await workUntil(bed, designer, body.run, 'done')
    const { id, revision, readAt, ...after } = await snapshot(course)
    expect({ ...after, id, revision: before.revision, readAt: before.readAt }).toEqual(before)
    expect((await designer.get<CourseDetail>(`/api/courses/${course.id}`)).body).toMatchObject({
      state: 'shell',
      template: null,
    })
    expect(Number(revision)).toBeGreaterThan(Number(before.revision))
    expect(readAt).toBeTruthy()
  })

  it('brings only chosen parts; the course is held to its old version with those laid over', async () => {
    const [course] = (await newCourses(1)) as [CourseSummary]
    await run([course], 1)
    await run([course], 2, { only: { parts: ['questions'], blocks: [] } })
    expect(
      everyCourseItem(await snapshot(course)).some(({ item }) => item.name === 'Ask the crew'),
    ).toBe(true)
    expect((await itemOf(course, /^Welcome/)).html).not.toContain('The college says it anew.')
    const { body } = await designer.get<CourseDetail>(`/api/courses/${course.id}`)
    const nameOf = (part: string) => JSON.stringify(body.templateDocument).includes(part)
    expect(body.template?.version).toBe(1)
    expect(nameOf('Ask the crew') && !nameOf('The college says it anew.')).toBe(true)
    await run([course], 2)
    expect(
      (await designer.get<CourseDetail>(`/api/courses/${course.id}`)).body.template?.version,
    ).toBe(2)
  })

  it('takes over a course with content of its own: nothing is doubled, nothing overwritten', async () => {
    const [donor, course] = (await newCourses(2)) as [CourseSummary, CourseSummary]
    await run([donor], 1)
    const source = await snapshot(donor)
    // The same content, put in by hand: no identity, no markers of ours, one part missing.
    await edit(
      course,
      source.modules.map((module, m) => ({
        change: 'create-module' as const,
        clientId: `m${m}`,
        parent: null,
        at: null,
        fields: { name: module.name },
      })),
    )
    const made = await snapshot(course)
    for (const [m, module] of source.modules.entries()) {
      const items = itemsIn(module).filter((item) => !/[Qq]uiz 1/.test(item.name))
      if (items.length > 0)
        await edit(
          course,
          items.map((item, i) => ({
            change: 'create-item' as const,
            clientId: `i${m}-${i}`,
            module: made.modules[m]?.id ?? '',
            at: null,
            kind: item.kind,
            fields: {
              name: item.name,
              ...(item.html === null
                ? {}
                : {
                    html: item.html
                      .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
                      .replace(/href="[^"]*"/g, 'href="https://kestrelsound.example/"'),
                  }),
            },
          })),
        )
    }
    const before = everyCourseItem(await snapshot(course)).map(({ item }) => item)
    const left = await planRollout(bed, designer, versionOrder(key, 1), [course.id])
    expect(left.plans[0]?.state).toBe('left-out')
    const { plans } = await run([course], 1, { adopt: true })
    expect(
      plans[0]?.steps.filter((step) => step.does === 'adopt' || step.does === 'conflict').length,
    ).toBeGreaterThan(10)
    const after = everyCourseItem(await snapshot(course)).map(({ item }) => item)
    const names = after.map((item) => item.name)
    expect(new Set(names).size).toBe(names.length)
    for (const item of before) expect(after.find(({ id }) => id === item.id)?.html).toBe(item.html)
    expect(names.some((name) => /[Qq]uiz 1/.test(name))).toBe(true)
  })

  it('holds a plan that came out differently, and runs it once it is approved again', async () => {
    const [course] = (await newCourses(1)) as [CourseSummary]
    await run([course], 1)
    const planned = await planRollout(bed, designer, versionOrder(key, 2), [course.id])
    const questions = await itemOf(course, /^Questions/)
    await edit(course, [{ change: 'set-item', id: questions.id, fields: { name: 'Mine' } }])
    await designer.post(`/api/runs/${planned.run}/approve`)
    const held = await workUntil(bed, designer, planned.run, 'done')
    expect(held.counts).toMatchObject({ held: 1, done: 0 })
    expect(everyCourseItem(await snapshot(course)).some(({ item }) => item.name === 'Mine')).toBe(
      true,
    )
    await designer.post(`/api/runs/${planned.run}/approve`, { courses: [course.id] })
    const done = await workUntil(bed, designer, planned.run, 'done')
    expect(done.counts).toMatchObject({ held: 0, done: 1 })
    expect(everyCourseItem(await snapshot(course)).some(({ item }) => item.name === 'Mine')).toBe(
      true,
    )
    expect((await itemOf(course, /^Welcome/)).html).toContain('The college says it anew.')
  })

  it('student work that arrives between plan and run keeps the item it is in', async () => {
    const [course] = (await newCourses(1)) as [CourseSummary]
    await run([course], 1)
    const { body } = await designer.get<TemplateDraft>(`/api/templates/${key}`)
    const week = body.draft.parts.find((part) => part.repeat)
    const part =
      week?.kind === 'module' ? week.items.find((item) => item.kind === 'assessment') : undefined
    expect(part).toBeDefined()
    expect(
      (
        await designer.post(`/api/templates/${key}/edits`, {
          revision: body.draftRevision,
          edits: [{ edit: 'remove-part', part: part?.key }],
        })
      ).status,
    ).toBe(200)
    const again = await designer.get<TemplateDraft>(`/api/templates/${key}`)
    const { body: released } = await designer.post<{ version: number }>(
      `/api/templates/${key}/release`,
      { revision: again.body.draftRevision, note: 'No quizzes' },
    )
    const planned = await planRollout(bed, designer, versionOrder(key, released.version), [
      course.id,
    ])
    const removed = planned.plans[0]?.steps.filter((step) => step.does === 'remove') ?? []
    expect(removed.length).toBeGreaterThan(1)
    const worked = everyCourseItem(await snapshot(course)).find(
      ({ item }) => item.name === removed[0]?.name,
    )?.item
    await fetch(`${bed.platformAddress}/courses/${course.platformId}/items/${worked?.id}/hand-in`, {
      method: 'POST',
      redirect: 'manual',
    })
    expect(
      everyCourseItem(await snapshot(course)).find(({ item }) => item.id === worked?.id)?.item
        .studentWork,
    ).toBe(true)
    await designer.post(`/api/runs/${planned.run}/approve`)
    const first = await workUntil(bed, designer, planned.run, 'done')
    if (first.counts.held > 0) {
      await designer.post(`/api/runs/${planned.run}/approve`, { courses: [course.id] })
      await workUntil(bed, designer, planned.run, 'done')
    }
    const left = everyCourseItem(await snapshot(course)).map(({ item }) => item.name)
    expect(left).toContain(worked?.name)
    expect(left).not.toContain(removed[1]?.name)
  })

  it('two rollouts that touch one course at once both happen, and nothing is doubled', async () => {
    const [course] = (await newCourses(1)) as [CourseSummary]
    const [a, b] = [
      await planRollout(bed, designer, versionOrder(key, 1), [course.id]),
      await planRollout(bed, designer, versionOrder(key, 1), [course.id]),
    ]
    await Promise.all([
      designer.post(`/api/runs/${a.run}/approve`),
      designer.post(`/api/runs/${b.run}/approve`),
    ])
    const workers = [await bed.startWorker(), await bed.startWorker()]
    const ended = await until(
      async () => [await runOf(designer, a.run), await runOf(designer, b.run)],
      (runs) => runs.every((run) => run.state === 'done'),
    )
    await Promise.all(workers.map((worker) => worker.stop()))
    expect(ended.map((detail: RunDetail) => detail.counts.failed)).toEqual([0, 0])
    const names = everyCourseItem(await snapshot(course)).map(({ item }) => item.name)
    expect(new Set(names).size).toBe(names.length)
  })

  it('rehearses on a copy, which is thrown away; the course is not touched', async () => {
    const [course] = (await newCourses(1)) as [CourseSummary]
    const planned = await planRollout(bed, designer, versionOrder(key, 1), [course.id])
    const { status, body } = await designer.post<Rehearsal>(
      `/api/rollouts/${planned.run}/courses/${course.id}/rehearse`,
    )
    expect(status, JSON.stringify(body)).toBe(200)
    expect(
      ((await bed.connector(`/courses/${body.id}/snapshot`)) as Course).modules.length,
    ).toBeGreaterThan(5)
    expect((await snapshot(course)).modules).toEqual([])
    expect((await designer.post(`/api/rehearsals/${body.id}/discard`)).status).toBe(200)
    expect((await designer.get<Rehearsal[]>('/api/rehearsals')).body).toEqual([])
    expect((await designer.post(`/api/rehearsals/${course.platformId}/discard`)).status).toBe(404)
  })

  it('adopts a newer version’s strengths without writing to the platform', async () => {
    const [course] = (await newCourses(1)) as [CourseSummary]
    await run([course], 1)
    const { revision } = await snapshot(course)
    expect(
      (await designer.post(`/api/courses/${course.id}/strengths`, { version: 2 })).status,
    ).toBe(200)
    expect((await designer.get<CourseDetail>(`/api/courses/${course.id}`)).body).toMatchObject({
      strengthsVersion: 2,
      template: { version: 1 },
    })
    expect((await snapshot(course)).revision).toBe(revision)
    expect(
      (await designer.post(`/api/courses/${course.id}/strengths`, { version: 99 })).status,
    ).toBe(404)
  })
})

describe('house texts, next term, standing rules, values and merging', () => {
  it('a corrected house text reaches every course that shows it in one plan', async () => {
    const { body: library } =
      await designer.get<
        {
          kind: string
          key: string
          revision: number
          courses: number
          document: { revisions: { number: number; inForceFrom: string; html: string }[] }
        }[]
      >('/api/library')
    const text = library.find(
      (entry) => entry.kind === 'house-text' && entry.courses > 0 && entry.key === 'muster',
    )
    if (!text) throw new Error('a house text is in use')
    const next = {
      number: text.document.revisions.length + 1,
      inForceFrom: '2026-09-16',
      html: '<p>Muster at the <em>new</em> lamp post.</p>',
    }
    expect(
      (
        await designer.post('/api/library', {
          kind: 'house-text',
          was: text.revision,
          document: { ...text.document, revisions: [...text.document.revisions, next] },
        })
      ).status,
    ).toBe(200)
    const { run: planned } = await planRollout(
      bed,
      designer,
      { mode: 'house-text', houseText: 'muster' },
      [],
    )
    await designer.post(`/api/runs/${planned}/approve`)
    const done = await workUntil(bed, designer, planned, 'done')
    expect(done.counts.done).toBeGreaterThan(2)
    for (const task of done.tasks.filter((task) => task.state === 'done')) {
      const { body } = await designer.get<CourseDetail>(`/api/courses/${task.course}`)
      const pages = body.snapshot
        ? everyCourseItem(body.snapshot).filter(
            ({ item }) => item.html?.includes('data-wicker-block') && /muster/i.test(item.html),
          )
        : []
      expect(
        pages.some(({ item }) => item.html?.includes('new</em> lamp post')),
        task.title,
      ).toBe(true)
    }
  })

  it('next term: new shells with new dates, filled-in answers along, what speaks of last term told, nothing hidden taken', async () => {
    const [course] = (await newCourses(1)) as [CourseSummary]
    await run([course], 1)
    const welcome = await itemOf(course, /^Welcome/)
    await edit(course, [
      {
        change: 'set-item',
        id: welcome.id,
        fields: {
          html: (welcome.html ?? '').replace(
            /Say who you are[^<]*/,
            'I am Pilar; we sail on 21 September.',
          ),
        },
      },
      {
        change: 'create-item',
        clientId: 'own',
        module: (await snapshot(course)).modules[1]?.id ?? '',
        at: null,
        kind: 'page',
        fields: { name: 'My knots', html: '<p>A page of my own.</p>' },
      },
      {
        change: 'create-module',
        clientId: 'secret',
        parent: null,
        at: null,
        fields: { name: 'Notes on students', published: false },
      },
      {
        change: 'create-item',
        clientId: 'file',
        module: 'ref:secret',
        at: null,
        kind: 'file',
        fields: { name: 'accommodation-letter.pdf' },
      },
    ])
    const made = await designer.post<{ runs: number[]; leftOut: unknown[] }>('/api/next-term', {
      term: 'winter-short-2027',
      courses: [course.id],
      carry: ['contact-cards', 'answers', 'topics', 'own-pages'],
    })
    expect(made.status, JSON.stringify(made.body)).toBe(200)
    const [planned = 0] = made.body.runs
    await workUntil(bed, designer, planned, 'planned')
    const target = (await runOf(designer, planned)).tasks[0]
    const { body: plan } = await designer.get<CoursePlan>(
      `/api/rollouts/${planned}/courses/${target?.course}`,
    )
    expect(plan.consequences.map((consequence) => consequence.code)).toEqual(
      expect.arrayContaining(['dates-in-prose', 'left-behind']),
    )
    expect(JSON.stringify(plan)).not.toContain('accommodation-letter')
    await designer.post(`/api/runs/${planned}/approve`)
    await workUntil(bed, designer, planned, 'done')
    const { body } = await designer.get<CourseDetail>(`/api/courses/${target?.course}`)
    const items = body.snapshot ? everyCourseItem(body.snapshot).map(({ item }) => item) : []
    expect(items.some((item) => item.html?.includes('I am Pilar'))).toBe(true)
    expect(items.some((item) => item.name === 'My knots')).toBe(true)
    expect(items.some((item) => item.kind === 'file' && item.name.includes('accommodation'))).toBe(
      false,
    )
    expect(items.flatMap((item) => item.dueAt ?? []).every((due) => due >= '2027')).toBe(true)
    // What came along is the instructor's: a later update leaves it.
    const again = await planRollout(bed, designer, versionOrder(key, 2), [target?.course ?? 0])
    await designer.post(`/api/runs/${again.run}/approve`)
    await workUntil(bed, designer, again.run, 'done')
    const later = (await designer.get<CourseDetail>(`/api/courses/${target?.course}`)).body.snapshot
    expect(JSON.stringify(later)).toContain('I am Pilar')
  })

  it('standing rules tell which courses fit one, none or two', async () => {
    const rule = async (department: string | null, weeks: number | null, template: string) =>
      (
        await designer.post<{ rule: number }>('/api/standing-rules', {
          department,
          modality: null,
          weeks,
          template,
        })
      ).body.rule
    await rule('SAF', null, key)
    await rule(null, 8, 'short-course-standard')
    const { body } = await designer.get<StandingRules>('/api/standing-rules')
    expect(body.several.length).toBeGreaterThan(0)
    expect(body.several[0]?.templates.sort()).toEqual(['Short Course Standard', 'Tide Standard'])
    for (const rule of body.rules) await designer.post(`/api/standing-rules/${rule.id}/remove`)
    expect((await designer.get<StandingRules>('/api/standing-rules')).body).toMatchObject({
      rules: [],
      fits: [],
      several: [],
    })
  })

  it('values from a pasted table fill names with the next rollout; mistakes name their line and nothing is taken', async () => {
    const [course] = (await newCourses(1)) as [CourseSummary]
    await run([course], 1)
    const table = `course\troom\tmeeting days\ttopic 1\n${course.platformId}\tPilot House\tTue Thu\tFirst aid afloat\n`
    const dry = await designer.post('/api/courses/values?dry=1', table, {
      'content-type': 'text/csv',
    })
    expect(dry.body).toMatchObject({ dry: true, courses: 1, errors: [] })
    expect(
      (
        await designer.post('/api/courses/values', `${table}nobody\tX\tTue\tY\n`, {
          'content-type': 'text/csv',
        })
      ).body,
    ).toMatchObject({ errors: [{ line: 3, column: 'course' }], changes: [] })
    expect(
      (await designer.post('/api/courses/values', table, { 'content-type': 'text/csv' })).body,
    ).toMatchObject({ dry: false, courses: 1 })
    await run([course], 1)
    expect(
      (await snapshot(course)).modules.some((module) => module.name.includes('First aid afloat')),
    ).toBe(true)
  })

  it('merges one course into another: sections and people move, content stays, and it is told first', async () => {
    const [a, b] = (await newCourses(2)) as [CourseSummary, CourseSummary]
    const dry = await designer.post<{ consequences: string[] }>(
      `/api/courses/${a.id}/into-another`,
      { into: b.id, dry: true },
    )
    expect(dry.body.consequences[0]).toContain(
      `class sections ${[...a.classSections, ...b.classSections].sort().join(', ')}`,
    )
    expect((await designer.get<CourseDetail>(`/api/courses/${a.id}`)).body.status).toBe('teaching')
    expect((await designer.post(`/api/courses/${a.id}/into-another`, { into: b.id })).status).toBe(
      200,
    )
    expect((await designer.get<CourseDetail>(`/api/courses/${a.id}`)).body.status).toBe('merged')
    expect((await designer.get<CourseDetail>(`/api/courses/${b.id}`)).body.classSections).toEqual(
      [...a.classSections, ...b.classSections].sort(),
    )
    expect((await designer.post(`/api/courses/${a.id}/into-another`, { into: b.id })).status).toBe(
      409,
    )
  })
})

describe('bad input', () => {
  it.each([
    ['a mode that is none', { order: { mode: 'overwrite' }, courses: [1] }, 400],
    ['no course', { order: { mode: 'version', template: key, version: 1 }, courses: [] }, 400],
    [
      'a course that is not there',
      { order: { mode: 'version', template: key, version: 1 }, courses: [987654] },
      404,
    ],
    [
      'a version that is not there',
      { order: { mode: 'version', template: key, version: 77 }, courses: [1] },
      404,
    ],
    ['an undo of what was never run', { order: { mode: 'undo', run: 987654 } }, 404],
    [
      'carrying without a source',
      { order: { mode: 'carry', template: key, version: 1, carry: [] }, courses: [1] },
      400,
    ],
  ])('%s is refused', async (_, body, status) => {
    expect((await designer.post('/api/rollouts', body)).status).toBe(status)
  })
  it('an instructor may plan nothing, and a reviewer may look but not decide', async () => {
    const instructor = await bed.as('sunniva.drake@kestrelsound.example')
    const reviewer = await bed.as('reviewer@kestrelsound.example')
    expect(
      (
        await instructor.post('/api/rollouts', {
          order: { mode: 'version', template: key, version: 1 },
          courses: [1],
        })
      ).status,
    ).toBe(403)
    expect((await instructor.get('/api/rollouts/1/shapes')).status).toBe(403)
    expect((await reviewer.get('/api/rollouts/1/shapes')).status).toBe(200)
    expect((await reviewer.post('/api/rollouts/1/decisions', { rule: 'take' })).status).toBe(403)
  })
})
