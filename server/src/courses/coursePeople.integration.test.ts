import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { CourseDetail, CoursePeople } from '@wickerframe/contract'
import { peopleOf, type CoursePerson, type Duty } from '@wickerframe/core'
import { exampleCourse, exampleFacts } from '@wickerframe/core/testing'
import {
  startCheckedCollege,
  type CheckedCollege,
  type Client,
} from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
let helper: Client
let second: Client
const [teaching] = exampleFacts().instructors
const address = (name: string) => `${name}@kestrelsound.example`
const person = (name: string, duty: Duty): CoursePerson => ({ name, email: address(name), duty })
const owner: CoursePerson = { name: '', email: '', ...teaching, duty: 'owner' }

beforeAll(async () => {
  college = await startCheckedCollege()
  helper = await college.as(await college.person('instructor', 'cy'))
  second = await college.as(await college.person('instructor', 'bo'))
  await college.readWith((course) => {
    for (const module of course.modules)
      for (const child of module.children) if ('dueAt' in child) child.dueAt = null
  })
})
afterAll(() => college.stop())
beforeEach(async () => {
  await decide([owner])
  for (const table of ['course_decisions', 'messages'])
    await college.pool.query(`DELETE FROM ${table}`)
})

const now = ({ facts }: CourseDetail): CoursePeople => ({
  people: peopleOf(facts),
  moduleOwners: facts.moduleOwners,
})
const stands = async () => now(await college.detail())
const decide = async (
  people: CoursePerson[],
  moduleOwners: Record<string, string> = {},
  client = college.people.designer,
  was?: CoursePeople,
) => client.post(`${college.about}/people`, { people, moduleOwners, was: was ?? (await stands()) })
const moduleOf = async (week: number): Promise<string> =>
  (await college.detail()).result?.pairs.filter(({ expected }) => expected.startsWith('week@'))[
    week - 1
  ]?.expected ?? ''

describe('people of a course', () => {
  it('are decided by a designer: several who teach, one owner, who helps, and whose a module is', async () => {
    const people = [
      person('bo', 'owner'),
      { ...owner, duty: 'instructor' as const },
      person('cy', 'assistant'),
    ]
    const week = await moduleOf(2)
    expect((await decide(people, { [week]: address('cy') })).status).toBe(200)
    expect(await stands()).toEqual({ people, moduleOwners: { [week]: address('cy') } })
    const { result, owner: acts } = await college.detail()
    expect(acts).toBe(address('bo'))
    const movers = new Set(
      result?.findings
        .filter(({ mender }) => mender === 'instructor')
        .map((finding) => finding.owner),
    )
    expect(movers).toEqual(new Set([address('bo'), address('cy')]))
  })
  it('see the course as soon as they are in it, and no longer when they are out', async () => {
    expect((await helper.get(college.about)).status).toBe(404)
    await decide([owner, person('cy', 'assistant')])
    expect((await helper.get(college.about)).body.roles).toEqual(['assistant'])
    await decide([owner])
    expect((await helper.get(college.about)).status).toBe(404)
  })
  it('who helps looks after the course, but decides nothing for it', async () => {
    await decide([owner, person('cy', 'assistant')])
    const finding = (await college.result()).findings[0]?.places[0]?.fingerprint ?? ''
    expect((await helper.post(`${college.about}/check`)).status).toBe(200)
    await college.people.designer.post(`${college.about}/follow-ups`, {
      does: 'raise',
      fingerprints: [finding],
    })
    const answer = { does: 'answer', fingerprints: [finding], answer: 'Tomorrow.' }
    expect((await helper.post(`${college.about}/follow-ups`, answer)).status).toBe(200)
    const waiver = { fingerprints: [finding], scope: 'place', until: null, reason: 'Sea.' }
    for (const [route, body] of [
      ['waivers', waiver],
      ['calendar', { meetingDays: ['monday'], units: [], nextTerm: null }],
      ['people', { ...(await stands()), was: await stands() }],
    ] as const) {
      const refused = await helper.post(`${college.about}/${route}`, body)
      expect([route, refused.status, refused.body.detail]).toEqual([
        route,
        403,
        expect.stringContaining('you help in this course'),
      ])
    }
    await decide([owner, person('cy', 'instructor')])
    expect((await helper.post(`${college.about}/waivers`, waiver)).status).toBe(200)
  })
  it('its owner says who helps, who owns it next and whose a module is; not who teaches it', async () => {
    const { instructor } = college.people
    const week = await moduleOf(3)
    await decide([owner, person('bo', 'instructor')])
    const helped = [owner, person('bo', 'instructor'), person('cy', 'assistant')]
    expect((await decide(helped, { [week]: address('bo') }, instructor)).status).toBe(200)
    expect(
      (await decide([owner, person('cy', 'assistant')], {}, instructor)).body.detail,
    ).toContain('who teaches a course is decided by designers')
    expect((await decide([...helped, person('di', 'instructor')], {}, instructor)).status).toBe(403)
    const passedOn = [
      { ...owner, duty: 'instructor' as const },
      person('bo', 'owner'),
      person('cy', 'assistant'),
    ]
    expect((await decide(passedOn, {}, second)).status).toBe(403)
    expect((await decide(passedOn, {}, instructor)).status).toBe(200)
    expect((await decide(helped, {}, instructor)).body.detail).toContain('owner of a course')
    expect((await stands()).people).toEqual(passedOn)
    expect((await college.people.reviewer.post(`${college.about}/people`, {})).status).toBe(403)
  })
  it('of two who decide at once, the later is told; nothing is lost', async () => {
    const before = await stands()
    const [one, other] = await Promise.all([
      decide([owner, person('bo', 'instructor')], {}, college.people.designer, before),
      decide([owner, person('cy', 'assistant')], {}, college.people.administrator, before),
    ])
    expect([one.status, other.status].sort()).toEqual([200, 409])
    expect((await stands()).people).toHaveLength(2)
  })
  it('are never two owners, nobody twice, and a module is nobody’s who is not of the course', async () => {
    const was = await stands()
    for (const people of [
      [owner, person('bo', 'owner')],
      [owner, { ...owner, email: owner.email.toUpperCase(), duty: 'assistant' as const }],
    ])
      expect((await decide(people)).status).toBe(400)
    expect((await decide([owner], { week: address('bo') })).body.detail).toContain(
      'somebody of the course',
    )
    expect(await stands()).toEqual(was)
  })
  it('whose addresses were kept with capitals are decided on like others', async () => {
    await college.pool.query(
      `UPDATE course_people
       SET email = 'Sunniva.Drake@KestrelSound.example'
       WHERE email = ?`,
      [owner.email],
    )
    expect((await decide([owner, person('cy', 'assistant')])).status).toBe(200)
    expect((await stands()).people).toEqual([owner, person('cy', 'assistant')])
  })
  it('may be nobody at all; then nobody is asked to act', async () => {
    const week = await moduleOf(2)
    await decide([owner, person('cy', 'assistant')], { [week]: address('cy') })
    expect((await decide([])).status).toBe(200)
    expect(await stands()).toEqual({ people: [], moduleOwners: {} })
    const { owner: acts, result } = await college.detail()
    expect([acts, new Set(result?.findings.map((finding) => finding.owner))]).toEqual([
      null,
      new Set([null]),
    ])
  })
  it('are told what they are, once for each time that it changes', async () => {
    const week = await moduleOf(2)
    const told = async () =>
      (await helper.get('/api/messages')).body.map((message: { body: string }) => message.body)
    await decide([owner, person('cy', 'assistant')])
    await decide([owner, person('cy', 'assistant'), person('bo', 'instructor')])
    expect(await told()).toHaveLength(1)
    await decide([owner, person('cy', 'assistant')], { [week]: address('cy') })
    expect((await told())[0]).toContain('in one of its modules is your move')
    expect((await helper.get('/api/messages')).body[0].course).toBe(college.course)
  })
})

describe('a roster file', () => {
  const bring = (...people: readonly [name: string, duty?: string][]) =>
    college.people.designer.send(
      '/api/roster',
      [
        `code,title,term,class section,own or shared,instructor e-mail,instructor name,modality,weeks,platform course id,status${people.some(([, duty]) => duty !== undefined) ? ',duty' : ''}`,
        ...people.map(
          ([name, duty]) =>
            `NAV 110,Coastal Navigation,autumn-2026,01,own,${address(name)},${name},on-campus,8,example,teaching${duty === undefined ? '' : `,${duty}`}`,
        ),
      ].join('\n'),
    )
  const emails = async () =>
    (await stands()).people.map(({ email, duty }) => [email.split('@')[0], duty])

  it('brings in who teaches and who helps', async () => {
    await bring(['ana', 'instructor'], ['bo', 'owner'], ['cy', 'assistant'])
    expect(await emails()).toEqual([
      ['ana', 'instructor'],
      ['bo', 'owner'],
      ['cy', 'assistant'],
    ])
  })
  it('that does not speak of duties changes who teaches, and leaves who helps and who owns it', async () => {
    await bring(['ana', 'instructor'], ['bo', 'owner'], ['cy', 'assistant'])
    await bring(['bo'], ['di'])
    expect(await emails()).toEqual([
      ['bo', 'owner'],
      ['di', 'instructor'],
      ['cy', 'assistant'],
    ])
    // The owner is gone: the first who teaches it owns it. Who helped teaches now.
    await bring(['di'], ['cy'])
    expect(await emails()).toEqual([
      ['di', 'owner'],
      ['cy', 'instructor'],
    ])
  })
  it('does not undo who was said here to help, and still brings in another instructor', async () => {
    await decide([owner, person('cy', 'assistant')], {}, college.people.instructor)
    const { body } = await bring(['ana', 'owner'], ['di', 'assistant'])
    expect(await emails()).toEqual([
      ['ana', 'owner'],
      ['cy', 'assistant'],
    ])
    expect(body.kept).toMatchObject([{ field: 'owner and assistants', by: owner.email }])
  })
  it('keeps the modules of those who stay, and leaves those of the others to the owner', async () => {
    const [week, next] = [await moduleOf(2), await moduleOf(3)]
    await bring(['ana', 'owner'], ['bo', 'instructor'], ['cy', 'assistant'])
    const all = await stands()
    await decide(all.people, { [week]: address('bo'), [next]: address('cy') })
    await college.pool.query('DELETE FROM course_decisions')
    await bring(['ana', 'owner'], ['cy', 'assistant'])
    expect((await stands()).moduleOwners).toEqual({ [next]: address('cy') })
  })
})

it('who helps in one course and teaches the one that is merged into it teaches, and helps again when that is taken back', async () => {
  await decide([owner, person('cy', 'assistant')])
  const other = await college.addCourse(
    { ...exampleCourse().course, id: 'merged' },
    { classSections: ['09'], instructors: [{ name: 'cy', email: address('cy') }] },
  )
  const act = async (route: string, body: object) => {
    const { digest } = (await college.people.designer.post(route, { ...body, dry: true })).body
    return college.people.designer.post(route, { ...body, dry: false, shown: digest })
  }
  const duties = async () => (await stands()).people.map(({ email, duty }) => [email, duty])
  expect((await act(`/api/courses/${other}/into-another`, { into: college.course })).status).toBe(
    200,
  )
  expect(await duties()).toEqual([
    [owner.email, 'owner'],
    [address('cy'), 'instructor'],
  ])
  expect((await act(`/api/courses/${other}/unmerge`, {})).status).toBe(200)
  expect(await duties()).toEqual([
    [owner.email, 'owner'],
    [address('cy'), 'assistant'],
  ])
})
