import { describe, expect, it } from 'vitest'
import { everyCourseItem, type Change, type Course } from '../course/index.ts'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem } from '../template/index.ts'
import { proofOf, proofWords } from './index.ts'
import { platformNames, Standing, type PlatformName } from './standing.testing.ts'

const updated = (platform: PlatformName = 'keeps marks') => {
  const at = new Standing(platform)
  at.deploy()
  const before = at.course
  const two = exampleTemplate()
  const block = everyItem(two)
    .find((item) => item.key === 'welcome')
    ?.blocks.find((block) => block.key === 'promise')
  if (block?.kind === 'fixed-text') block.html = '<p>We answer within a day, by letter.</p>'
  const { plan } = at.deploy(two)
  return { before, changes: plan.changes, after: at.course, at }
}
const proof = (before: Course, changes: readonly Change[], again: Course) =>
  proofOf(before, changes, {}, again, again.revision)
const pagesOf = (course: Course) =>
  everyCourseItem(course).filter(({ item }) => item.html !== null).length

describe('a course read again after a change set', () => {
  it.each(platformNames)('is proved page by page, however the platform writes (%s)', (platform) => {
    const { before, changes, after } = updated(platform)
    const told = proof(before, changes, after)
    expect(told).toMatchObject({
      state: 'proved',
      changedAsPlanned: changes.length,
      asTheyWere: pagesOf(after) - changes.length,
    })
    expect(proofWords(told)).toBe(
      `read again: ${changes.length} page changed as planned, ${pagesOf(after) - changes.length} as they were`,
    )
  })
  it('with what it creates, known by the platform’s ids', () => {
    const at = new Standing('keeps marks')
    const before = at.course
    const plan = at.plan()
    at.carry(plan)
    const ids = Object.fromEntries(
      plan.creates.map((instance) => [
        instance,
        at.base.parts.find((entry) => entry.instance === instance)?.platformId ?? '',
      ]),
    )
    expect(proofOf(before, plan.changes, ids, at.course, at.course.revision)).toMatchObject({
      state: 'proved',
      asTheyWere: 0,
      differences: [],
    })
  })
  const spoilt = (change: (course: Course) => void) => {
    const { before, changes, after } = updated()
    const again = structuredClone(after)
    change(again)
    return { told: proof(before, changes, again), before, changes, again }
  }
  const item = (course: Course, name: string) => {
    const found = everyCourseItem(course).find(({ item: one }) => one.name.startsWith(name))?.item
    if (!found) throw new Error(`no ${name}`)
    return found
  }
  it.each<[string, (course: Course) => void, string]>([
    [
      'a page that was to change and did not',
      (course) => void (item(course, 'Welcome').html = '<p>Old.</p>'),
      'page',
    ],
    [
      'a page that was emptied',
      (course) => void (item(course, 'Week 2 overview').html = ''),
      'empty',
    ],
    ['an item that is gone', (course) => void course.modules[1]?.children.pop(), 'missing'],
    ['another name', (course) => void (item(course, 'Week 2 overview').name = 'Else'), 'fields'],
    [
      'something that nobody planned',
      (course) => void course.stray.push({ ...item(course, 'Welcome'), id: 'x' }),
      'extra',
    ],
    [
      'another home page',
      (course) => void (course.homePage = item(course, 'Welcome').id),
      'course',
    ],
  ])('differs by %s', (_, change, what) => {
    const { told } = spoilt(change)
    expect(told.state).toBe('differs')
    expect(told.differences.map((difference) => difference.what)).toEqual([what])
  })
  it('that was edited meanwhile says so: what differs may be theirs', () => {
    const { before, changes, again } = spoilt(
      (course) => void (item(course, 'Welcome').html = '<p>Mine.</p>'),
    )
    expect(proofOf(before, changes, {}, again, 'earlier').state).toBe('edited')
  })
  it('of another course altogether is no proof', () => {
    const { before, changes } = updated()
    const other = new Standing('keeps marks')
    expect(proof(before, changes, other.course).state).toBe('differs')
  })
})

describe('a plan that shortens what somebody wrote', () => {
  it('says so by name before anything is approved', () => {
    const { at } = updated()
    const welcome = at.item('Welcome')
    const long =
      'Once upon a tide there was a boat and in the boat a lamp and by the lamp a chart. '
    at.write(welcome, (welcome.html ?? '').replace(/We answer[^<]*/, long.repeat(6)))
    const plan = at.plan(exampleTemplate(), undefined, { decisions: { rule: 'take', single: {} } })
    expect(
      plan.consequences.find((consequence) => consequence.code === 'shortened')?.all[0],
    ).toMatch(/^“Welcome/)
  })
  it('is silent about pages that are as they were deployed', () => {
    const { at } = updated()
    expect(
      at.plan().consequences.filter((consequence) => consequence.code === 'shortened'),
    ).toEqual([])
  })
})
