import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Ahead, TodayView } from '@wickerframe/contract'
import { everyCourseItem, type Course } from '@wickerframe/core'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())

const ahead = async (): Promise<Ahead> =>
  (await college.people.reviewer.get('/api/conformance/ahead')).body
/** Whatever is for later weeks is hidden still. */
const hideLater = (course: Course): void => {
  for (const { item } of everyCourseItem(course))
    if (/Week (?:[4-9]|1\d)/.test(item.name)) item.published = false
}

it('tells of each of the next 28 days what falls due, in which courses, by which rule', async () => {
  await college.readWith(hideLater)
  const { days, unchecked } = await ahead()
  expect([days.length, days[0]?.on, days.at(-1)?.on, unchecked]).toEqual([
    28,
    '2026-09-17',
    '2026-10-14',
    0,
  ])
  const due = days.filter(({ musts }) => musts > 0)
  expect(due.length).toBeGreaterThan(0)
  for (const { musts, count, courses, rules } of due) {
    expect(rules.reduce((sum, one) => sum + one.musts, 0)).toBe(musts)
    expect([count, courses.map(({ id }) => id)]).toEqual([1, [college.course]])
  }
})
it('is what is open once that day has come and nobody did anything', async () => {
  await college.readWith(hideLater)
  const [soonest] = (await ahead()).days.filter(({ musts }) => musts > 0)
  const before = (await college.result()).counts.openMusts
  await college.people.designer.post(`${college.about}/check`, { asOf: soonest?.on })
  await college.work()
  const then = (await college.result(`?asOf=${soonest?.on}`)).counts.openMusts
  expect(then - before).toBe(soonest?.musts)
})
it('is told on Today for the next seven days only', async () => {
  await college.readWith(hideLater)
  const { days } = await ahead()
  const week = days.slice(0, 7).reduce((sum, { musts }) => sum + musts, 0)
  const view: TodayView = (await college.people.designer.get('/api/today')).body
  const told = view.comingDue.lines.reduce((sum, { musts }) => sum + musts, 0)
  expect([week > 0, told]).toEqual([true, week])
})
it('counts the courses that are not judged as of today', async () => {
  await college.pool.query('DELETE FROM check_results')
  const { days, unchecked } = await ahead()
  expect([unchecked, days.every(({ musts }) => musts === 0)]).toEqual([1, true])
})
it('is not told to who teaches only', async () => {
  expect((await college.people.instructor.get('/api/conformance/ahead')).status).toBe(403)
})
