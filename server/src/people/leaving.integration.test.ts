import { afterAll, beforeAll, expect, it } from 'vitest'
import { peopleOf } from '@wickerframe/core'
import type { PersonEntry } from '@wickerframe/contract'
import { exampleCourse, exampleFacts, exampleTemplate } from '@wickerframe/core/testing'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'
import { listChecks } from '../checks/checkDigests.ts'
import { traces } from './traces.ts'

let college: CheckedCollege
const [teaching] = exampleFacts().instructors
const instructor = { email: teaching?.email ?? '', name: teaching?.name ?? '' }
const designer = 'designer@kestrelsound.example'

beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())

const entryOf = async (search: string): Promise<PersonEntry> =>
  (await college.people.administrator.get(`/api/people?search=${encodeURIComponent(search)}`)).body
    .people[0]
const takeOut = async (person: PersonEntry) =>
  college.people.administrator.post(`/api/people/${person.id}/take-out`, { was: person.revision })

/**
 * What the course itself says, as the platform told it or as it was written there: it is the course's, and changes where the
 * course does.
 */
const ofTheCourse = [
  'snapshots.document',
  'page_bodies.html',
  'course_bodies.own',
  'deployments.expansion',
  'deployments.undo_record',
  'deployments.receipt',
  'course_bases.document',
  'tasks.payload',
  'cohort_names.name',
]
/** Every column of every table in which a text still stands, but for what is the course’s. */
const placesOf = async (text: string): Promise<string[]> => {
  const columns = await college.rows<{ place: string; t: string; c: string }>(
    `SELECT CONCAT(table_name, '.', column_name) AS place, table_name AS t, column_name AS c
     FROM information_schema.columns
     WHERE table_schema = DATABASE()
       AND data_type IN ('varchar', 'char', 'text', 'mediumtext', 'longtext', 'longblob')`,
  )
  const found: string[] = []
  for (const { place, t, c } of columns) {
    if (ofTheCourse.includes(place)) continue
    const hits = await college.rows(
      `SELECT 1
       FROM ${t}
       WHERE LOCATE(?, ${c}) > 0
       LIMIT 1`,
      [text],
    )
    if (hits.length > 0) found.push(place)
  }
  return found
}
const must = async (answer: Promise<{ status: number; body: unknown }>) => {
  const { status, body } = await answer
  if (status !== 200) throw new Error(`${status}: ${JSON.stringify(body)}`)
}

/** Both do what people do, so that their names stand in many places. */
const everybodyActs = async (): Promise<void> => {
  const { people, about } = college
  const { key } = exampleTemplate()
  await college.readWith((course) => {
    course.modules.splice(1, 1)
  })
  const { findings = [] } = (await college.result()) ?? {}
  const fingerprint = findings[0]?.places[0]?.fingerprint ?? ''
  expect(fingerprint).not.toBe('')
  await must(
    people.instructor.post(`${about}/waivers`, {
      fingerprints: [fingerprint],
      scope: 'place',
      until: null,
      reason: 'Sea.',
    }),
  )
  await must(
    people.designer.post(`${about}/follow-ups`, { does: 'raise', fingerprints: [fingerprint] }),
  )
  await must(people.designer.post(`/api/templates/${key}/comments`, { text: 'Aye.', part: null }))
  await must(
    people.designer.post('/api/standing-rules', {
      department: null,
      modality: null,
      weeks: null,
      template: key,
    }),
  )
  await must(people.designer.post('/api/checks', { courses: [college.course] }))
  const { facts } = await college.detail()
  const was = { people: peopleOf(facts), moduleOwners: facts.moduleOwners }
  await must(
    people.designer.post(`${about}/people`, {
      ...was,
      moduleOwners: { 'week@2': instructor.email },
      was,
    }),
  )
  await must(people.administrator.post(`/api/people/${(await entryOf(instructor.email)).id}/link`))
}

it('somebody reads what is kept about them: their account and every place that names them', async () => {
  await everybodyActs()
  const { body, headers } = await college.people.instructor.get('/api/account/kept')
  expect(headers.get('content-disposition')).toMatch(/attachment.*\.json/)
  expect(body).toMatchObject({
    schema: 'wickerframe.person/1',
    account: { email: instructor.email, roles: ['instructor'] },
  })
  expect(body.named['waivers.asked_by'][0]).toMatchObject({ reason: 'Sea.' })
  expect(Object.keys(body.named)).toContain('course_people.email')
  const { id } = await entryOf(designer)
  const ofDesigner = (await college.people.administrator.get(`/api/people/${id}/kept`)).body
  expect(Object.keys(ofDesigner.named)).toEqual(
    expect.arrayContaining([
      'template_versions.released_by',
      'runs.created_by',
      'follow_ups.raised_by',
    ]),
  )
  expect((await college.people.reviewer.get(`/api/people/${id}/kept`)).status).toBe(403)
})

it('every column that names somebody is among the traces', async () => {
  const known = new Set(traces.map(({ table, column }) => `${table}.${column}`))
  // What is about one person alone is taken away with them, not renamed.
  const removed = [
    'people.email',
    'messages.recipient',
    'account_requests.email',
    'sign_in_tries.name',
    'audit.subject',
    'audit.from_value',
    'audit.to_value',
    'check_results.findings',
    'check_results.gist',
  ]
  for (const place of [...(await placesOf(instructor.email)), ...(await placesOf(designer))])
    expect([place, known.has(place) || removed.includes(place)]).toEqual([place, true])
})

it('who leaves is named nowhere any more, and stays one and the same person', async () => {
  const told = async () => JSON.stringify([...(await listChecks(college.pool, college.today))])
  expect(await told()).toContain(instructor.email)
  for (const [who, role] of [
    [instructor.email, 'instructor'],
    [designer, 'designer'],
  ] as const) {
    const person = await entryOf(who)
    const stands = await placesOf(who)
    expect(stands.length).toBeGreaterThan(3)
    const left = await takeOut(person)
    const as = `a former ${role} (${person.id})`
    expect(left.body).toMatchObject({ state: 'left', name: as })
    expect([who, await placesOf(who)]).toEqual([who, []])
    expect((await takeOut(left.body)).status).toBe(404)
  }
  expect(await placesOf(JSON.stringify(instructor.name))).toEqual([])
  // Nor is it in what the server keeps of results in its memory.
  expect(await told()).not.toContain(instructor.email)
  const versions = (await college.people.reviewer.get('/api/templates')).body[0].versions
  expect(versions[0].by).toMatch(/^a former designer \(\d+\)$/)
  expect((await college.people.designer.get('/api/me')).status).toBe(401)
})

it('a released version still changes by nothing else', async () => {
  for (const [column, value] of [
    ['note', 'Another'],
    ['released_by', 'somebody else'],
  ])
    await expect(
      college.pool.query(
        `UPDATE template_versions
         SET ${column} = ?`,
        [value],
      ),
    ).rejects.toThrow('a released version never changes')
})

it('the last administrator cannot leave, nor somebody whom another has just changed', async () => {
  const administrator = await entryOf('administrator@')
  expect((await takeOut(administrator)).body.title).toBe('last administrator')
  expect((await takeOut({ ...administrator, revision: 99 })).body.title).toBe('clash')
  expect((await college.people.administrator.get('/api/me')).status).toBe(200)
})

it('whom the roster brings back is somebody new, with nothing of who they were', async () => {
  const past = (await college.people.administrator.get('/api/people?state=left')).body.people
  await college.addCourse({ ...exampleCourse().course, id: 'next-term' })
  const back = await entryOf(instructor.email)
  expect(back).toMatchObject({ state: 'known', roles: ['instructor'], signedInAt: null })
  expect(past.map(({ id }: PersonEntry) => id)).not.toContain(back.id)
  const still = (await college.people.administrator.get('/api/people?state=left')).body.people
  expect(still).toEqual(past)
})

it('an administrator takes themselves out while another stays, and is signed out with it', async () => {
  const other = await college.as(await college.person('administrator', 'other'))
  const self = (await other.get('/api/people?search=other@')).body.people[0]
  expect(
    (await other.post(`/api/people/${self.id}/take-out`, { was: self.revision })).body.state,
  ).toBe('left')
  expect((await other.get('/api/me')).status).toBe(401)
  expect((await college.people.administrator.get('/api/me')).status).toBe(200)
})
