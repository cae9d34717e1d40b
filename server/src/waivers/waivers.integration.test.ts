import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Course, Finding, FindingPlace } from '@wickerframe/core'
import {
  startCheckedCollege,
  type CheckedCollege,
  type Client,
} from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
/** An instructor hides the page on which every course begins, which also shows a film of another place. */
const hideWelcome = (course: Course): void => {
  for (const child of course.modules[0]?.children ?? [])
    if (child.kind !== 'module' && child.name.startsWith('Welcome')) child.published = false
}
/** Every item in every module is hidden. */
const hideAll = (course: Course): void => {
  for (const { children } of course.modules)
    for (const child of children) if (child.kind !== 'module') child.published = false
}
const isOpen = ({ rule, places }: Finding): boolean =>
  rule === 'must-part-hidden' && places.some(({ waived }) => !waived)
beforeEach(async () => {
  for (const table of ['waivers', 'attestations', 'not_this_week'])
    await college.pool.query(`DELETE FROM ${table}`)
  await college.readWith(hideWelcome)
})

const result = (query?: string) => college.result(query)
const hidden = async (query?: string): Promise<FindingPlace> => {
  const found = (await result(query)).findings.find(({ rule }) => rule === 'must-part-hidden')
  const [place] = found?.places ?? []
  if (!place) throw new Error('the hidden page is told')
  return place
}
const ask = async (client: Client, more: object = {}) =>
  client.post(`${college.about}/waivers`, {
    fingerprints: [(await hidden()).fingerprint],
    reason: 'Agreed with the dean',
    ...more,
  })
const waivers = async () => (await college.detail()).care.waivers
const decide = async (client: Client, decision: string) => {
  const [waiver] = await waivers()
  return client.post(`${college.about}/waivers/${waiver?.id}`, { decision })
}

describe('a waiver', () => {
  it('that an instructor asks for excuses nothing until a designer gives it', async () => {
    const { instructor, designer } = college.people
    const before = (await result()).counts
    expect((await ask(instructor)).status).toBe(200)
    expect((await result()).counts).toEqual(before)
    expect((await decide(instructor, 'approve')).status).toBe(403)
    expect((await decide(designer, 'approve')).status).toBe(200)
    expect((await result()).counts).toMatchObject({
      waived: before.waived + 1,
      openMusts: before.openMusts - 1,
    })
    expect((await hidden()).waived).toMatchObject({ reason: 'Agreed with the dean' })
  })
  it('is answered with a word, which whoever asked is told', async () => {
    const { instructor, designer } = college.people
    await ask(instructor)
    const [waiver] = await waivers()
    await designer.post(`${college.about}/waivers/${waiver?.id}`, {
      decision: 'refuse',
      answer: 'Show it by Friday',
    })
    const told = await college.rows<{ subject: string; body: string }>(
      `SELECT subject, body
       FROM messages
       WHERE subject LIKE 'Your waiver in %'`,
    )
    expect(told).toContainEqual({
      subject: expect.stringMatching(/is refused$/),
      body: expect.stringContaining('Show it by Friday'),
    })
  })
  it('is refused once, and not given after that', async () => {
    const { instructor, designer } = college.people
    await ask(instructor)
    expect((await decide(designer, 'refuse')).status).toBe(200)
    expect((await decide(designer, 'approve')).status).toBe(409)
    expect((await result()).counts.waived).toBe(0)
  })
  it('is withdrawn by whoever asked for it, by a designer, and by nobody else', async () => {
    const { instructor, designer, reviewer } = college.people
    expect((await ask(designer)).status).toBe(200)
    expect((await decide(instructor, 'withdraw')).status).toBe(403)
    expect((await decide(reviewer, 'withdraw')).status).toBe(403)
    expect((await decide(designer, 'withdraw')).status).toBe(200)
    expect((await result()).counts.waived).toBe(0)
    await college.pool.query('DELETE FROM waivers')
    await ask(instructor)
    expect((await decide(instructor, 'withdraw')).status).toBe(200)
    expect((await waivers())[0]?.state).toBe('withdrawn')
  })
  it('excuses up to its last day', async () => {
    const { designer } = college.people
    await ask(designer, { until: '2026-09-20' })
    expect((await result('?asOf=2026-09-20')).counts.waived).toBe(1)
    expect((await result('?asOf=2026-09-21')).counts.waived).toBe(0)
  })
  it('of a rule excuses each of its places', async () => {
    await ask(college.people.designer, { scope: 'rule' })
    const found = (await result()).findings.find(({ rule }) => rule === 'must-part-hidden')
    expect(found?.places.every((place) => place.waived)).toBe(true)
  })
  it('is not given for what is met, for what nobody told of, or until a day that is gone', async () => {
    const { designer } = college.people
    expect((await ask(designer, { until: '2026-09-01' })).status).toBe(400)
    const none = await designer.post(`${college.about}/waivers`, {
      fingerprints: [(await hidden()).fingerprint, 'f'.repeat(16)],
      reason: 'x',
    })
    expect([none.status, none.body.detail]).toEqual([404, expect.stringContaining('finding')])
    expect(await waivers()).toEqual([])
  })
  it('for several places at once is one for each, and for a rule one for the rule', async () => {
    await college.readWith(hideAll)
    const found = (await result()).findings.filter(({ rule }) => rule === 'must-part-hidden')
    const fingerprints = found.flatMap(({ places }) => places.map((place) => place.fingerprint))
    expect(fingerprints.length).toBeGreaterThan(2)
    const { designer } = college.people
    expect((await ask(designer, { fingerprints })).status).toBe(200)
    expect((await waivers()).map(({ fingerprint }) => fingerprint).sort()).toEqual(
      fingerprints.sort(),
    )
    expect((await result()).findings.filter(isOpen)).toEqual([])
    await college.pool.query('DELETE FROM waivers')
    await college.readWith(hideAll)
    expect((await ask(designer, { fingerprints, scope: 'rule' })).status).toBe(200)
    expect(await waivers()).toMatchObject([{ scope: 'rule', rule: 'must-part-hidden' }])
    expect((await result()).findings.filter(isOpen)).toEqual([])
  })
  it('leaves who did what in the audit', async () => {
    await college.pool.query('DELETE FROM audit')
    await ask(college.people.instructor)
    await decide(college.people.designer, 'approve')
    expect(
      await college.rows(`SELECT who, what
        FROM audit
        ORDER BY id`),
    ).toEqual([
      { who: expect.stringContaining('sunniva'), what: 'waiver asked for' },
      { who: expect.stringContaining('designer'), what: 'waiver approved' },
    ])
  })
})

describe('somebody’s word', () => {
  it('is not taken for what a snapshot shows', async () => {
    const answer = await college.people.instructor.post(`${college.about}/attestations`, {
      fingerprints: [(await hidden()).fingerprint],
      words: 'It is there, believe me',
    })
    expect([answer.status, answer.body.type]).toEqual([409, 'urn:wickerframe:problem:seen'])
  })
  it('is taken for what no snapshot can show, until the term ends, and taken back', async () => {
    const { instructor } = college.people
    await college.readWith((course) => {
      for (const child of course.modules[0]?.children ?? [])
        if (child.kind === 'page' && child.html)
          child.html += '<iframe src="https://video.example/watch/1" title="Hello"></iframe>'
    })
    const unknown = (await result()).outcomes.find(({ outcome }) => outcome === 'cannot-tell')
    if (!unknown) throw new Error('something cannot be told of any snapshot')
    const say = (more: object) =>
      instructor.post(`${college.about}/attestations`, {
        fingerprints: [unknown.fingerprint],
        words: 'I looked with a screen reader',
        ...more,
      })
    const before = (await result()).counts.cannotTell
    expect((await say({})).status).toBe(200)
    expect((await result()).counts.cannotTell).toBe(before - 1)
    const [given] = (await college.detail()).care.attestations
    expect(given).toMatchObject({ on: '2026-09-16', until: '2026-10-23' })
    expect((await say({ takeBack: true })).status).toBe(200)
    expect((await result()).counts.cannotTell).toBe(before)
    expect((await say({ takeBack: true })).status).toBe(404)
  })
  it('is taken for all of a page that is not told at once, or for nothing of it', async () => {
    const { instructor } = college.people
    await college.readWith((course) => {
      for (const child of course.modules[0]?.children ?? [])
        if (child.kind === 'page') child.html = null
    })
    const unknown = (await result()).outcomes.filter(({ outcome }) => outcome === 'cannot-tell')
    const fingerprints = unknown.map(({ fingerprint }) => fingerprint)
    expect(fingerprints.length).toBeGreaterThan(5)
    const say = (of: string[]) =>
      instructor.post(`${college.about}/attestations`, { fingerprints: of, words: 'I looked' })
    expect((await say([...fingerprints, 'no-such'])).status).toBe(404)
    expect((await result()).counts).toMatchObject({ cannotTell: fingerprints.length, attested: 0 })
    expect((await say(fingerprints)).status).toBe(200)
    expect((await result()).counts).toMatchObject({ cannotTell: 0, attested: fingerprints.length })
  })
})

describe('not this week', () => {
  const leave = (leftOut: boolean, instance: string) =>
    college.people.instructor.post(`${college.about}/not-this-week`, { instance, leftOut })
  it('is said of what is missing and may go, not of what stands there; and is taken back', async () => {
    const there = (await result()).pairs[0]?.expected ?? ''
    expect((await leave(true, there)).status).toBe(409)
    await college.readWith((course) => {
      const week = course.modules.find(({ name }) => name.startsWith('Week 2'))
      if (!week) throw new Error('there is a second week')
      week.children = week.children.filter(({ name }) => !name.includes('Quiz'))
    })
    const before = await result()
    const quiz = before.missing.find((instance) => instance.includes('quiz')) ?? ''
    expect((await leave(true, quiz)).status).toBe(200)
    expect((await college.detail()).care.notThisWeek).toEqual([quiz])
    const after = await result()
    expect(after.counts.openShoulds + after.counts.openMusts).toBeLessThanOrEqual(
      before.counts.openShoulds + before.counts.openMusts,
    )
    await leave(false, quiz)
    expect((await result()).counts).toEqual(before.counts)
  })
})
