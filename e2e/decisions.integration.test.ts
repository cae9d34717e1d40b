import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyCourseItem, type Change, type Course } from '@wickerframe/core'
import type {
  CourseDetail,
  CourseSummary,
  CourseValuesReport,
  MadeCourses,
  MergeReport,
  RosterReport,
  RunDetail,
  ShapeGroup,
  TemplateDraft,
} from '@wickerframe/contract'
import { demoTemplate } from '@wickerframe/demo'
import { planRollout, runOf, versionOrder, workUntil } from './rollouts.ts'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let designer: Client
const key = 'buoy-standard'
const header =
  'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,platform course id,status'
const text = { 'content-type': 'text/csv' }

beforeAll(async () => {
  bed = await startTestBed({ courses: 2 })
  designer = await bed.as('designer@kestrelsound.example')
  const template = { ...structuredClone(demoTemplate('short-course-standard.json')), key }
  await designer.post('/api/templates', { ...template, title: 'Buoy Standard' })
  await designer.post(`/api/templates/${key}/release`, { revision: 0, note: 'First' })
})
afterAll(() => bed.stop())

const row = (section: string, status = 'teaching', id = `buoy-${section.toLowerCase()}`) =>
  `SAF 150,Liferaft & Flare Drill,autumn-2026,first-half,${section},own,ida.${section.toLowerCase()}@kestrelsound.example,Ida ${section},on-campus,8,${id},${status}`
const newCourse = async (section: string): Promise<CourseSummary> => {
  const made = await designer.post<MadeCourses>(
    `/api/courses/made?how=each&template=${key}`,
    `${header}\n${row(section)}`,
    text,
  )
  expect([made.status, made.body.errors]).toEqual([200, []])
  return courseOf(section)
}
const courseOf = async (section: string): Promise<CourseSummary> => {
  const found = (await designer.get<CourseSummary[]>('/api/courses')).body.find(
    (course) => course.platformId === `buoy-${section.toLowerCase()}`,
  )
  if (!found) throw new Error(`no course ${section}`)
  return found
}
const roster = (rows: readonly string[], query: string) =>
  designer.post<RosterReport & { detail?: string }>(
    `/api/roster?${query}`,
    [header, ...rows].join('\n'),
    text,
  )

describe('a merge', () => {
  it('is not undone by the registrar’s file, shows on both courses, and is taken back', async () => {
    const [a, b] = [await newCourse('M1'), await newCourse('M2')]
    const rows = [row('M1'), row('M2')]
    const dry = await designer.post<MergeReport>(`/api/courses/${a.id}/into-another`, {
      into: b.id,
      dry: true,
    })
    expect(
      (
        await designer.post(`/api/courses/${a.id}/into-another`, {
          into: b.id,
          shown: 'something else',
        })
      ).status,
    ).toBe(409)
    expect((await courseOf('M1')).status).toBe('teaching')
    expect(
      (
        await designer.post(`/api/courses/${a.id}/into-another`, {
          into: b.id,
          shown: dry.body.digest,
        })
      ).status,
    ).toBe(200)
    const told = await roster(rows, 'dry=1')
    expect(told.body.changes).toEqual([])
    expect(told.body.kept.map(({ field, here, file }) => [field, here, file])).toEqual([
      ['status', 'merged', 'teaching'],
      ['class sections', 'M1, M2', 'M2'],
      ['instructors', expect.stringContaining('ida.m1'), expect.stringContaining('ida.m2')],
    ])
    await roster(rows, '')
    expect((await courseOf('M1')).status).toBe('merged')
    expect((await courseOf('M2')).classSections).toEqual(['M1', 'M2'])
    const detail = async (id: number) =>
      (await designer.get<CourseDetail>(`/api/courses/${id}`)).body
    expect((await detail(a.id)).mergedInto).toMatchObject({ id: b.id })
    expect((await detail(b.id)).mergedHere).toMatchObject([{ id: a.id }])

    const back = await designer.post<MergeReport>(`/api/courses/${a.id}/unmerge`, { dry: true })
    expect(back.body.consequences[0]).toMatch(/stands by itself again/)
    await designer.post(`/api/courses/${a.id}/unmerge`, { shown: back.body.digest })
    expect((await courseOf('M1')).status).toBe('teaching')
    expect((await courseOf('M2')).classSections).toEqual(['M2'])
    expect((await courseOf('M2')).instructors.map((instructor) => instructor.email)).toEqual([
      'ida.m2@kestrelsound.example',
    ])
    // And the file speaks for them again.
    expect((await roster(rows, 'dry=1')).body).toMatchObject({ changed: 0, kept: [] })
  })
})

describe('what was shown is what is done', () => {
  it('courses: another choice than was shown makes none', async () => {
    const rows = ['X1', 'X2', 'X3'].map((key) => row(key, 'teaching', ''))
    const body = [header, ...rows].join('\n')
    const shown = await designer.post<MadeCourses>('/api/courses/made?how=shared&dry=1', body, text)
    expect(shown.body.made).toHaveLength(1)
    const other = await designer.post<{ type: string }>(
      `/api/courses/made?how=each&shown=${shown.body.digest}`,
      body,
      text,
    )
    expect([other.status, other.body.type]).toEqual([409, 'urn:wickerframe:problem:changed'])
    const all = (await designer.get<CourseSummary[]>('/api/courses')).body
    expect(all.filter(({ classSections }) => classSections.includes('X1'))).toEqual([])
    const same = await designer.post<MadeCourses>(
      `/api/courses/made?how=shared&shown=${shown.body.digest}`,
      body,
      text,
    )
    expect([same.status, same.body.made.length]).toEqual([200, 1])
  })
  it('a roster: what changed in between is shown anew, and nothing is taken', async () => {
    await newCourse('R1')
    const rows = [row('R1', 'cancelled')]
    const shown = await roster(rows, 'dry=1')
    expect(shown.body.changed).toBe(1)
    await roster([row('R1', 'set-aside')], '')
    expect((await roster(rows, `shown=${shown.body.digest}`)).status).toBe(409)
    expect((await courseOf('R1')).status).toBe('set-aside')
  })
  it('values: a table from Windows-1252 with semicolons is read letter by letter, and said to be so', async () => {
    const course = await newCourse('V1')
    const table = new Uint8Array([
      ...new TextEncoder().encode(`course;room\n${course.platformId};C`),
      0xf4,
      ...new TextEncoder().encode('te 3\n'),
    ])
    const shown = await designer.post<CourseValuesReport>('/api/courses/values?dry=1', table, text)
    expect(shown.body.changes).toMatchObject([{ what: 'room', to: 'Côte 3' }])
    expect(shown.body.note).toMatch(/Windows-1252/)
    await designer.post('/api/courses/values?', `course\troom\n${course.platformId}\tPier 9`, text)
    expect(
      (await designer.post(`/api/courses/values?shown=${shown.body.digest}`, table, text)).status,
    ).toBe(409)
  })
})

describe('conflicts that nobody decided on', () => {
  const snapshot = async (course: CourseSummary): Promise<Course> =>
    (await bed.connector(`/courses/${course.platformId}/snapshot`)) as Course
  const edit = async (course: CourseSummary, changes: Change[]) => {
    const { revision } = await snapshot(course)
    const answer = await fetch(
      `${bed.platformAddress}/connector/v1/courses/${course.platformId}/change-sets`,
      {
        method: 'POST',
        headers: {
          authorization: bed.authorization,
          'content-type': 'application/json',
          'idempotency-key': `instructor-of-${course.platformId}`,
        },
        body: JSON.stringify({ expectedRevision: revision, changes }),
      },
    )
    expect(answer.status).toBe(200)
  }
  const rollOut = async (version: number, course: CourseSummary): Promise<number> => {
    const { run } = await planRollout(bed, designer, versionOrder(key, version), [course.id])
    await designer.post(`/api/runs/${run}/approve`)
    await workUntil(bed, designer, run, 'done')
    return run
  }
  it(
    'stay to be decided after the run, are decided then, and only then is the course done',
    { timeout: 120_000 },
    async () => {
      const course = await newCourse('C1')
      await rollOut(1, course)
      const { body } = await designer.get<TemplateDraft>(`/api/templates/${key}`)
      const fixed = body.draft.parts
        .flatMap((part) => (part.kind === 'module' ? part.items : [part]))
        .flatMap((item) =>
          'blocks' in item ? item.blocks.map((block) => ({ part: item.key, block })) : [],
        )
        .find(({ block }) => block.kind === 'fixed-text')
      if (!fixed || fixed.block.kind !== 'fixed-text') throw new Error('no fixed text')
      const words =
        fixed.block.html
          .replace(/<[^>]+>/g, ' ')
          .trim()
          .split(/\s+/)[0] ?? ''
      const page = everyCourseItem(await snapshot(course)).find(({ item }) =>
        item.html?.includes(`data-wicker-block="${fixed.block.key}"`),
      )?.item
      if (!page) throw new Error('no page')
      await edit(course, [
        {
          change: 'set-item',
          id: page.id,
          fields: { html: (page.html ?? '').replace(words, `${words} by our own lights`) },
        },
      ])
      const edited = await designer.post(`/api/templates/${key}/edits`, {
        revision: body.draftRevision,
        edits: [
          {
            edit: 'set-block',
            part: fixed.part,
            block: fixed.block.key,
            field: 'html',
            was: fixed.block.html,
            value: '<p>As the college has it now.</p>',
          },
        ],
      })
      expect(edited.status).toBe(200)
      await designer.post(`/api/templates/${key}/release`, {
        revision: body.draftRevision + 1,
        note: 'Second',
      })
      const run = await rollOut(2, course)
      const undecided = (detail: RunDetail) => detail.tasks[0]?.plan?.undecided
      expect(undecided(await runOf(designer, run))).toBe(1)
      const plan = await designer.get<{
        steps: { instance: string; fields: { field: string; does: string }[] }[]
      }>(`/api/rollouts/${run}/courses/${course.id}`)
      const step = plan.body.steps.find((step) =>
        step.fields.some((two) => two.does === 'conflict'),
      )
      const field = step?.fields.find((field) => field.does === 'conflict')
      if (!step || !field) throw new Error('no conflict is told')
      expect(
        (
          await designer.post(`/api/rollouts/${run}/decisions`, {
            decisions: [
              { course: course.id, instance: step.instance, field: field.field, decision: 'take' },
            ],
          })
        ).status,
      ).toBe(200)
      await workUntil(bed, designer, run, 'planned')
      // A plan that was shown and is another by now is not approved.
      const shapes = (await designer.get<ShapeGroup[]>(`/api/rollouts/${run}/shapes`)).body
      const digest = shapes.flatMap((group) => group.courses)[0]?.digest ?? ''
      expect(
        (
          await designer.post(`/api/runs/${run}/approve`, {
            shown: [{ course: course.id, digest: 'another' }],
          })
        ).status,
      ).toBe(409)
      expect(
        (
          await designer.post(`/api/runs/${run}/approve`, {
            shown: [{ course: course.id, digest }],
          })
        ).status,
      ).toBe(200)
      await workUntil(bed, designer, run, 'done')
      expect(undecided(await runOf(designer, run))).toBe(0)
      expect(JSON.stringify(await snapshot(course))).toContain('As the college has it now.')
    },
  )
})
