import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { roles, type CourseDetail, type CourseSummary, type Role } from '@wickerframe/contract'
import { exampleCourse, exampleFacts, exampleTemplate } from '@wickerframe/core/testing'
import { setRoles } from '../people/people.ts'
import type { Person } from '../people/people.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'
import { letContribute } from '../templates/templates.ts'

let college: PrivateCollege
let person: Person
let client: Client
/** Ids by who would see a course: taught and under the template; of each department. */
const ids: Record<'taught' | 'layered' | 'safety' | 'galley', number> = {
  taught: 0,
  layered: 0,
  safety: 0,
  galley: 0,
}

beforeAll(async () => {
  college = await startPrivateCollege()
  person = await college.person('contributor', 'quill')
  client = await college.as(person)
  const designer = await college.person('designer')
  const template = exampleTemplate()
  await college.release(template, designer)
  await letContribute(college.pool, template.key, person.email)
  const { course } = exampleCourse()
  const nobody = { instructors: [{ name: 'Else', email: 'else@kestrelsound.example' }] }
  ids.taught = await college.addCourse(
    { ...course, id: 'taught' },
    { department: 'HOP', instructors: [{ name: 'Quill', email: person.email }] },
  )
  ids.layered = await college.addCourse(
    { ...course, id: 'layered' },
    { ...nobody, department: 'OSC' },
  )
  ids.safety = await college.addCourse(
    { ...course, id: 'safety' },
    { ...nobody, department: 'SAF' },
  )
  ids.galley = await college.addCourse(
    { ...course, id: 'galley' },
    { ...nobody, department: 'GAL' },
  )
  const asDesigner = await college.as(designer)
  await asDesigner.post(`/api/courses/${ids.layered}/version`, {
    template: template.key,
    version: 1,
  })
})
afterAll(() => college.stop())

const become = (held: Role[], departments: string[] = []) =>
  setRoles(college.pool, person.id, held, departments)
const seen = async (): Promise<string[]> =>
  (await client.get('/api/courses')).body.map((course: CourseSummary) => course.platformId).sort()

/** What each role shows by itself to somebody for whom the safety department is named. */
const byRole: Readonly<Record<Role, readonly string[]>> = {
  designer: ['safety'],
  reviewer: ['safety'],
  contributor: ['layered'],
  instructor: ['taught'],
  administrator: ['galley', 'layered', 'safety', 'taught'],
}

describe('somebody of several roles', () => {
  it('sees the courses of each of them, together, and no others', async () => {
    for (let mask = 0; mask < 2 ** roles.length; mask++) {
      const held = roles.filter((_, i) => mask & (1 << i))
      await become(held, ['SAF'])
      if (held.length === 0) {
        expect((await client.get('/api/courses')).status).toBe(403)
        continue
      }
      const union = [...new Set(held.flatMap((role) => byRole[role]))].sort()
      expect([held, await seen()]).toEqual([held, union])
      for (const [name, id] of Object.entries(ids)) {
        const { status, body } = await client.get(`/api/courses/${id}`)
        expect([held, name, status]).toEqual([held, name, union.includes(name) ? 200 : 404])
        if (status === 200)
          expect([held, name, (body as CourseDetail).roles.toSorted()]).toEqual([
            held,
            name,
            held.filter((role) => byRole[role].includes(name)).toSorted(),
          ])
      }
    }
  })
  it('does by one role nothing to what only another one shows', async () => {
    await become(['reviewer', 'instructor'])
    expect(await seen()).toHaveLength(4)
    expect((await client.post(`/api/courses/${ids.taught}/check`)).status).toBe(200)
    expect((await client.post(`/api/courses/${ids.galley}/check`)).status).toBe(404)

    await become(['designer', 'instructor'], ['SAF'])
    const raise = (id: number) =>
      client.post(`/api/courses/${id}/follow-ups`, { does: 'close', fingerprints: ['x'] })
    expect((await raise(ids.taught)).status).toBe(403)
    expect((await raise(ids.safety)).status).not.toBe(403)
    const facts = { template: exampleTemplate().key, version: 1 }
    expect((await client.post(`/api/courses/${ids.taught}/version`, facts)).status).toBe(404)
    expect((await client.post(`/api/courses/${ids.safety}/version`, facts)).status).toBe(200)
  })
})

describe('a designer of some departments', () => {
  it('sees and checks what is theirs, in every list', async () => {
    await become(['designer'], ['GAL', 'SAF'])
    expect(await seen()).toEqual(['galley', 'safety'])
    const conformance = await client.get('/api/conformance')
    expect(JSON.stringify(conformance.body)).not.toContain('taught')
    expect((await client.post('/api/checks', { courses: [ids.taught] })).status).toBe(404)
    expect((await client.post('/api/checks', { courses: [ids.safety] })).status).toBe(200)
  })
  it('sees and throws away rehearsals of theirs only', async () => {
    const designer = await college.person('designer')
    await college.pool.query(
      `INSERT INTO runs (id, kind, state, title, created_by, created_at)
       VALUES (900, 'rollout', 'planned', 'A', ?, NOW(3))`,
      [designer.email],
    )
    for (const [id, course] of [
      ['of-safety', ids.safety],
      ['of-galley', ids.galley],
    ])
      await college.pool.query(
        `INSERT INTO rehearsals (id, run_id, course_id, created_by, created_at)
         VALUES (?, 900, ?, ?, NOW(3))`,
        [id, course, designer.email],
      )
    await become(['designer'], ['SAF'])
    const listed = (await client.get('/api/rehearsals')).body
    expect(listed.map(({ id }: { id: string }) => id)).toEqual(['of-safety'])
    expect((await client.post('/api/rehearsals/of-galley/discard')).status).toBe(404)
  })
  it('does not decide for others: rosters, standing rules, versions in use', async () => {
    await become(['designer'], ['GAL'])
    const { key } = exampleTemplate()
    const rule = (department: string | null) =>
      client.post('/api/standing-rules', { department, modality: null, weeks: null, template: key })
    expect((await rule('GAL')).status).toBe(200)
    for (const department of ['SAF', null])
      expect((await rule(department)).body.title).toBe('other department')
    const use = (department: string) =>
      client.post(`/api/templates/${key}/versions/1/use`, {
        uses: [{ department, modality: 'on-campus', inUse: true }],
      })
    expect((await use('GAL')).status).toBe(200)
    expect((await use('SAF')).body.detail).toBe(
      'this is about the department SAF, and you look after GAL',
    )
    const roster = await client.send(
      '/api/roster',
      `code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,platform course id,status
SAF 101,Rafts,${exampleFacts().term.code},,01,own,a@x.example,A,on-campus,8,safety,teaching
`,
    )
    expect(roster.status).toBe(403)
    expect(JSON.stringify(roster.body)).toMatch(/SAF/)
  })
})
