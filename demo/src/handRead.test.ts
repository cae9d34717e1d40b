import { describe, expect, it } from 'vitest'
import { checkCourse, type CheckResult, everyCourseItem } from '@wickerframe/core'
import handRead from '../expected-findings.json' with { type: 'json' }
import { demoTemplate, factsOfRoster, makeCourse, makeRoster, stories, storyAt } from './index.ts'

const template = demoTemplate('harbour-standard.json')
const roster = factsOfRoster(makeRoster(48))
const demoCourse = (platformId: string) => {
  const index = roster.findIndex(({ platformCourseId }) => platformCourseId === platformId)
  const facts = roster[index]?.facts
  if (!facts) throw new Error(`${platformId} is not in the demo`)
  return { facts, course: makeCourse(platformId, template, facts, storyAt(index), 7000 + index) }
}
const check = (
  platformId: string,
  change: (html: string) => string = (html) => html,
): CheckResult => {
  const { facts, course } = demoCourse(platformId)
  for (const { item } of everyCourseItem(course))
    item.html = item.html === null ? null : change(item.html)
  const result = checkCourse({ template, facts, course, asOf: handRead.asOf })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}
const flat = (result: CheckResult) =>
  result.findings
    .flatMap((finding) =>
      finding.places.map(
        (place) => `${finding.strength} ${finding.rule} ${place.place.part} ${place.place.week}`,
      ),
    )
    .sort()

describe('five demo courses read by hand', () => {
  it.each(Object.entries(handRead.courses))(
    '%s: the check finds what the reader found, and nothing else',
    (platformId, findings) => {
      const wanted = findings
        .flatMap((finding) =>
          finding.weeks.map(
            (week) => `${finding.strength} ${finding.rule} ${finding.part} ${week}`,
          ),
        )
        .sort()
      expect(flat(check(platformId))).toEqual(wanted)
    },
  )
  it.each(Object.keys(handRead.courses))(
    '%s: the same where the platform stripped every marker',
    (platformId) => {
      expect(
        flat(check(platformId, (html) => html.replace(/ data-wicker-[a-z]+="[^"]*"/g, ''))),
      ).toEqual(flat(check(platformId)))
    },
  )
})

describe('the generator', () => {
  it('is the same every time and makes as many courses as asked', () => {
    expect(makeRoster(200)).toEqual(makeRoster(200))
    expect(new Set(makeRoster(2000).map((row) => row.platformCourseId)).size).toBe(2000)
    expect(demoCourse('kc-1001')).toEqual(demoCourse('kc-1001'))
  })
  it('leaves the perfect course ready', () => {
    expect(check('kc-1001').readiness).toBe('ready')
    expect(Object.keys(stories)).toContain(storyAt(0))
  })
})
