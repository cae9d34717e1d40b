import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Course } from '../../course/index.ts'
import { exampleFacts } from '../../rules/example/exampleCourse.ts'
import { propertyRuns } from '../../testing/propertyRuns.testing.ts'
import { acts, changed, firstVersion, templateChanges } from '../generated.testing.ts'
import { alike, platformNames, Standing } from '../standing.testing.ts'

// A navigation of the later version may lead to what is taken back: then it leads to nothing, which the check tells.
const { 'another navigation': _, ...thirdChanges } = templateChanges
const cases = fc.record({
  second: acts(templateChanges, 4),
  third: acts(thirdChanges, 4),
  platform: fc.constantFrom(...platformNames),
  leaves: fc.boolean(),
  /** Whether the third version is without what the second changed: it makes again what that removed. */
  reverts: fc.boolean(),
})

/** A course as it is like others, wherever lines end, and spaces stand, between its blocks. */
const tidy = (course: Course): unknown =>
  JSON.parse(JSON.stringify(alike(course)).replace(/(?:\\n| )+(?=[<"])/g, ''))

describe('a rollout that is taken back after a later one', () => {
  it('leaves a course that the later version comes to as if it had never been', () => {
    fc.assert(
      fc.property(cases, ({ second, third, platform, leaves, reverts }) => {
        const versionOf = (template: typeof second) => changed({ template, facts: [], leaves }).two
        const deployed = () => {
          const at = new Standing(platform)
          at.deploy(firstVersion(leaves), exampleFacts())
          return at
        }
        const at = deployed()
        const { record } = at.deploy(versionOf(second), exampleFacts())
        const later = versionOf(reverts ? third : [...second, ...third])
        at.deploy(later, exampleFacts())
        at.undo(record)
        at.deploy(later, exampleFacts())
        const without = deployed()
        without.deploy(later, exampleFacts())
        expect(tidy(at.course)).toEqual(tidy(without.course))
        expect(at.plan(later, exampleFacts()).changes).toEqual([])
      }),
      propertyRuns(),
    )
  })
})
