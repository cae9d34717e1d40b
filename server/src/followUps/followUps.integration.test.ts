import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { everyCourseItem, partsWithin, type Course } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
const hideWelcome = (course: Course): void => {
  for (const child of course.modules[0]?.children ?? [])
    if (child.kind !== 'module' && child.name.startsWith('Welcome')) child.published = false
}
beforeEach(async () => {
  await college.pool.query('DELETE FROM follow_ups')
  await college.readWith(hideWelcome)
})

const owner = 'sunniva.drake@kestrelsound.example'
const hidden = async (): Promise<string> => {
  const found = (await college.result()).findings.find(({ rule }) => rule === 'must-part-hidden')
  return found?.places[0]?.fingerprint ?? ''
}
const put = async (who: 'designer' | 'instructor', does: string, more: object = {}) =>
  college.people[who].post(`${college.about}/follow-ups`, {
    does,
    fingerprints: [await hidden()],
    ...more,
  })
const followUps = async () => (await college.detail()).care.followUps

describe('a finding', () => {
  it('is raised with whoever teaches the course, promised, and mended once it is not found any more', async () => {
    expect((await put('designer', 'raise', { note: 'Before Monday, please' })).status).toBe(200)
    expect(await followUps()).toMatchObject([
      {
        state: 'raised',
        owner,
        note: 'Before Monday, please',
        message: expect.stringContaining('Welcome'),
      },
    ])
    expect(
      (await put('instructor', 'promise', { by: '2026-09-21', answer: 'On Sunday' })).status,
    ).toBe(200)
    expect(await followUps()).toMatchObject([
      { state: 'promised', promisedFor: '2026-09-21', answer: 'On Sunday' },
    ])
    await college.readWith()
    expect(await followUps()).toMatchObject([{ state: 'mended' }])
  })
  it('is promised unasked by whoever teaches the course, and followed up like one that was raised', async () => {
    expect((await put('instructor', 'promise', { by: '2026-09-21' })).status).toBe(200)
    expect(await followUps()).toMatchObject([
      { state: 'promised', owner, promisedFor: '2026-09-21', raisedBy: owner },
    ])
    await college.readWith()
    expect(await followUps()).toMatchObject([{ state: 'mended' }])
  })
  it('that comes back is raised again by itself', async () => {
    await put('designer', 'raise')
    await college.readWith()
    await college.readWith(hideWelcome)
    expect(await followUps()).toMatchObject([{ state: 'raised' }])
  })
  it('raised anew begins anew: what was promised for it then is gone', async () => {
    await put('designer', 'raise')
    await put('instructor', 'promise', { by: '2026-09-21' })
    await put('designer', 'raise', { note: 'Still open' })
    expect(await followUps()).toMatchObject([
      { state: 'raised', promisedFor: null, answer: '', note: 'Still open' },
    ])
  })
  it('is answered, and closed for good: no later check opens it again', async () => {
    await put('designer', 'raise')
    expect((await put('instructor', 'answer', { answer: 'That is on purpose' })).status).toBe(200)
    expect((await put('designer', 'close')).status).toBe(200)
    expect((await put('instructor', 'answer', { answer: 'Still' })).status).toBe(409)
    await college.readWith()
    await college.readWith(hideWelcome)
    expect(await followUps()).toMatchObject([{ state: 'closed', answer: 'That is on purpose' }])
  })
  it('that was told as of another day settles nothing', async () => {
    await put('designer', 'raise')
    await college.result('?asOf=2027-06-30')
    expect(await followUps()).toMatchObject([{ state: 'raised' }])
  })
  it.each([
    ['an instructor raises none', 'instructor', 'raise', {}, 403],
    ['an instructor closes none', 'instructor', 'close', {}, 403],
    ['none is promised for a day that is gone', 'instructor', 'promise', { by: '2026-09-15' }, 400],
    [
      'what is not found is not promised',
      'instructor',
      'promise',
      { by: '2026-09-21', fingerprints: ['f'.repeat(16)] },
      404,
    ],
    ['what was not raised is not answered', 'instructor', 'answer', { answer: 'So it is' }, 409],
    [
      'what is not found is not raised',
      'designer',
      'raise',
      { fingerprints: ['f'.repeat(16)] },
      404,
    ],
  ] as const)('%s', async (_, who, does, more, status) => {
    expect((await put(who, does, more)).status).toBe(status)
    expect(await followUps()).toEqual([])
  })
  it('raised with several is raised with all of them, or with none', async () => {
    const some = [await hidden(), 'f'.repeat(16)]
    expect((await put('designer', 'raise', { fingerprints: some })).status).toBe(404)
    expect(await followUps()).toEqual([])
  })
})

describe('what a course has from its template', () => {
  const { key, parts } = exampleTemplate()
  const task = partsWithin(parts).find((part) => part.kind === 'assignment')
  const withoutDates = (course: Course): void => {
    for (const { item } of everyCourseItem(course))
      if (item.kind === 'assignment') item.dueAt = null
  }
  const missing = async () =>
    (await college.result()).findings.find(({ rule }) => rule === 'due-missing')
  const raise = async () =>
    (
      await college.people.designer.post('/api/follow-ups', {
        rule: 'due-missing',
        part: task?.key,
        note: '',
      })
    ).body

  it('is raised with nobody of the course, as what they left out themselves is', async () => {
    await college.readWith(withoutDates)
    expect(await missing()).toMatchObject({ mender: 'instructor', owner })
    expect((await raise()).courses).toBe(1)
    await college.pool.query('DELETE FROM follow_ups')

    const { designer } = college.people
    const template = `/api/templates/${key}`
    const { draftRevision } = (await designer.get(template)).body
    const edit = {
      edit: 'set-field',
      part: task?.key,
      field: ['settings', 'due'],
      was: task?.settings.due,
      value: null,
    }
    const edited = await designer.post(`${template}/edits`, {
      revision: draftRevision,
      edits: [edit],
    })
    expect(edited.status).toBe(200)
    const { revision } = edited.body
    expect((await designer.post(`${template}/release`, { revision, note: 'x' })).body).toEqual({
      version: 2,
    })
    await designer.post(`${college.about}/version`, { template: key, version: 2 })
    await college.readWith(withoutDates)
    expect(await missing()).toMatchObject({ mender: 'designer', owner: null, ofTemplate: true })
    expect(await raise()).toMatchObject({ places: 0, courses: 0, nobodys: 0 })
    expect(await followUps()).toEqual([])
  })
})
