import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { everyCourseItem, type Course } from '../../course/index.ts'
import { exampleFacts } from '../../rules/example/exampleCourse.ts'
import { propertyRuns } from '../../testing/propertyRuns.testing.ts'
import {
  acts,
  changed,
  edit,
  firstVersion,
  instructorEdits,
  templateChanges,
  wordsIn,
} from '../generated.testing.ts'
import { alike, platformNames, Standing } from '../standing.testing.ts'

const cases = fc.record({
  second: acts(templateChanges, 4),
  third: acts(templateChanges, 4),
  platform: fc.constantFrom(...platformNames),
  leaves: fc.boolean(),
  /** Whether the third version is without what the second changed: it makes again what that removed. */
  reverts: fc.boolean(),
})
type Case = typeof cases extends fc.Arbitrary<infer C> ? C : never

const deployed = ({ platform, leaves }: Case): Standing => {
  const at = new Standing(platform)
  at.deploy(firstVersion(leaves), exampleFacts())
  return at
}
const versionsOf = ({ second, third, leaves, reverts }: Case) => {
  const versionOf = (template: typeof second) => changed({ template, facts: [], leaves }).two
  return { two: versionOf(second), later: versionOf(reverts ? third : [...second, ...third]) }
}
/** A course as it is like others, wherever lines end, and spaces stand, between its blocks. */
const tidy = (course: Course): unknown =>
  JSON.parse(JSON.stringify(alike(course)).replace(/(?:\\n| )+(?=[<"])/g, ''))

describe('a rollout that is taken back after a later one', () => {
  it('leaves a course that the later version comes to as if it had never been', () => {
    fc.assert(
      fc.property(cases, (given) => {
        const { two, later } = versionsOf(given)
        const at = deployed(given)
        const { record } = at.deploy(two, exampleFacts())
        at.deploy(later, exampleFacts())
        at.undo(record)
        at.deploy(later, exampleFacts())
        const never = deployed(given)
        never.deploy(later, exampleFacts())
        expect(tidy(at.course)).toEqual(tidy(never.course))
        expect(at.plan(later, exampleFacts()).changes).toEqual([])
      }),
      propertyRuns(),
    )
  })
  it('takes nothing that an instructor wrote, and nothing that students have work in, whenever it was', () => {
    const kept = (at: Standing) => ({
      words: [...wordsIn(at.course, 'early'), ...wordsIn(at.course, 'late')],
      worked: everyCourseItem(at.course)
        .flatMap(({ item }) => (item.studentWork ? [item.id] : []))
        .toSorted(),
    })
    const edits = acts(instructorEdits, 4)
    fc.assert(
      fc.property(cases, edits, edits, (given, early, late) => {
        const { two, later } = versionsOf(given)
        const at = deployed(given)
        const { record } = at.deploy(two, exampleFacts())
        edit(at, early, 'early')
        at.deploy(later, exampleFacts())
        edit(at, late, 'late')
        const before = kept(at)
        at.undo(record)
        expect(kept(at)).toEqual(before)
      }),
      propertyRuns(),
    )
  })
})
