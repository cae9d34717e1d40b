import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { CourseSummary } from '@wickerframe/contract'
import { exampleCourse, exampleFacts, exampleTemplate } from '@wickerframe/core/testing'
import type { Person } from '../people/people.ts'
import { letContribute } from '../templates/templates.ts'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'
import { findClashes } from './cohort.ts'
import { adoptStrengths, findCourses, heldToAfter, heldToState, holdCourseTo } from './courses.ts'

let college: CheckedCollege
let other: number
let contributor: Person
beforeAll(async () => {
  college = await startCheckedCollege()
  other = await college.addCourse(
    { ...exampleCourse().course, id: 'other' },
    {
      code: 'ENG 210',
      title: 'Engine Room',
      instructors: [{ name: 'Another', email: 'another@kestrelsound.example' }],
    },
  )
  contributor = await college.person('contributor')
})
afterAll(() => college.stop())

const { key } = exampleTemplate()
const seenBy = async (person: Person): Promise<number[]> =>
  (await (await college.as(person)).get('/api/courses')).body.map(({ id }: CourseSummary) => id)

describe('courses', () => {
  it('are seen by whoever teaches them, contributes to their template, or sees all', async () => {
    const teaching = await college.person('instructor', 'another')
    expect(await seenBy(teaching)).toEqual([other])
    expect(await seenBy(await college.person('instructor', 'nobody'))).toEqual([])
    expect(await seenBy(await college.person('reviewer', 'chair'))).toEqual(
      expect.arrayContaining([college.course, other]),
    )
    expect(await seenBy(contributor)).toEqual([])
    await letContribute(college.pool, key, contributor.email)
    expect(await seenBy(contributor)).toEqual([college.course])
    await letContribute(college.pool, key, contributor.email, false)
    expect(await seenBy(contributor)).toEqual([])
  })
  it('that are not there and those that are another’s are answered alike', async () => {
    const client = await college.as(await college.person('instructor', 'another'))
    const answers = await Promise.all(
      [college.course, 999_999].map((id) => client.get(`/api/courses/${id}`)),
    )
    expect(answers.map(({ status, body }) => [status, body.detail])).toEqual([
      [404, answers[0]?.body.detail],
      [404, answers[0]?.body.detail],
    ])
  })
  it('are told with the state that what is known of them says', async () => {
    const states = new Map(
      (await college.people.designer.get('/api/courses')).body.map((course: CourseSummary) => [
        course.id,
        course.state,
      ]),
    )
    expect(states.get(college.course)).toBe('checked-only')
    expect(states.get(other)).toBe('not-read')
    await college.people.designer.post('/api/checks', { courses: [other] })
    await college.work()
    expect((await college.people.designer.get(`/api/courses/${other}`)).body.state).toBe(
      'other-content',
    )
  })
  it('tell their facts, as the calendar and the naming take them', async () => {
    const { body } = await college.people.instructor.get(`${college.about}/facts`)
    expect(body).toMatchObject({ ...exampleFacts(), term: { code: 'autumn-2026' } })
  })
})

describe('what a course is held to', () => {
  it('is a version that is there', async () => {
    const put = (version: number) =>
      college.people.designer.post(`/api/courses/${other}/version`, { template: key, version })
    expect((await put(9)).status).toBe(404)
    expect((await put(1)).status).toBe(200)
    const [stored] = await findCourses(college.pool, [other])
    expect(stored).toMatchObject({ version: 1, partsTaken: [], strengthsVersion: null })
  })
  it('keeps parts of newer versions in the order they were brought in, and forgets them with a whole one', async () => {
    const start = await heldToState(college.pool, other)
    const part = { only: ['week'], except: [] }
    const templateId = start.templateId ?? 0
    const after = heldToAfter(heldToAfter(start, { templateId, version: 2, partsTaken: part }), {
      templateId,
      version: 3,
      partsTaken: { only: null, except: ['quiz'] },
    })
    await holdCourseTo(college.pool, other, after)
    expect(await heldToState(college.pool, other)).toMatchObject({
      version: 1,
      partsTaken: [
        { version: 2, only: ['week'], except: [] },
        { version: 3, only: null, except: ['quiz'] },
      ],
    })
    const whole = heldToAfter(after, { templateId, version: 4, partsTaken: null })
    expect(whole).toEqual({ templateId, version: 4, partsTaken: [] })
    await holdCourseTo(college.pool, other, start)
  })
  it('takes the strengths of a newer version only, and gives them up with the next whole one', async () => {
    const adopt = (version: number | null) =>
      college.people.designer.post(`${college.about}/strengths`, { version })
    expect((await adopt(9)).status).toBe(404)
    expect((await adopt(null)).status).toBe(200)
    await adoptStrengths(college.pool, other, 1)
    expect((await findCourses(college.pool, [other]))[0]?.strengthsVersion).toBe(1)
    await holdCourseTo(college.pool, other, await heldToState(college.pool, other))
    expect((await findCourses(college.pool, [other]))[0]?.strengthsVersion).toBeNull()
  })
})

describe('names that courses of a term share', () => {
  beforeEach(async () => {
    await college.people.designer.post('/api/checks', { courses: [college.course, other] })
    await college.work()
  })
  it('are told of the name of the course, with who else has it', async () => {
    const clashes = (await findClashes(college.pool, [college.course])).get(college.course)
    expect(clashes).toContainEqual(
      expect.objectContaining({
        kind: 'course-name',
        others: ['ENG 210 Engine Room'],
        sharesInstructor: false,
      }),
    )
  })
  it('are not told of courses of another term, nor of those set aside', async () => {
    const told = async () =>
      (await findClashes(college.pool, [college.course])).get(college.course) ?? []
    await college.pool.query(
      `UPDATE courses
       SET status = "set-aside"
       WHERE id = ?`,
      [other],
    )
    expect(await told()).toEqual([])
    await college.pool.query(
      `UPDATE courses
       SET status = "teaching"
       WHERE id = ?`,
      [other],
    )
    expect(await told()).not.toEqual([])
  })
})

describe('the calendar of a course', () => {
  const decide = (calendar: object, client = college.people.instructor) =>
    client.post(`${college.about}/calendar`, calendar)
  it('is decided by who teaches it: units and meeting days, told in its facts', async () => {
    const units = [{ number: 1, firstWeek: 1, lastWeek: 4 }]
    const { status, body } = await decide({ meetingDays: ['monday', 'wednesday'], units })
    expect([status, body.facts?.meetingDays, body.facts?.units?.[0]]).toEqual([
      200,
      ['monday', 'wednesday'],
      expect.objectContaining({ number: 1 }),
    ])
    expect((await college.detail()).facts.meetingDays).toEqual(['monday', 'wednesday'])
    expect((await decide({})).body.facts.meetingDays).toBeUndefined()
  })
  it.each([
    [
      'weeks that it does not have',
      { units: [{ number: 1, firstWeek: 40, lastWeek: 41 }] },
      '/units/0',
    ],
    [
      'one number twice',
      {
        units: [
          { number: 1, firstWeek: 1, lastWeek: 2 },
          { number: 1, firstWeek: 3, lastWeek: 4 },
        ],
      },
      '/units/1/number',
    ],
    ['a term that is not there', { nextTerm: 'winter-1999' }, '/nextTerm'],
    ['its own term after itself', { nextTerm: 'autumn-2026' }, '/nextTerm'],
  ])('is refused with %s, by where it is wrong', async (_, calendar, where) => {
    const { status, body } = await decide(calendar)
    expect([status, body.detail]).toEqual([400, expect.stringContaining(where)])
  })
  it('is given as a file once the course is under a template', async () => {
    const file = await college.people.instructor.get(`${college.about}/calendar`)
    expect(file.body).toContain('Assignment 1')
    const bare = await college.addCourse({ ...exampleCourse().course, id: 'bare' })
    expect((await college.people.designer.get(`/api/courses/${bare}/calendar`)).status).toBe(409)
  })
})
