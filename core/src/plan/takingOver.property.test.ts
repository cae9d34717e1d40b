import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { everyCourseItem, everyModule } from '../course/index.ts'
import { exampleFacts } from '../rules/example/exampleCourse.ts'
import {
  acts,
  changed,
  edit,
  factChanges,
  firstVersion,
  instructorEdits,
  templateChanges,
  wordsIn,
} from './generated.testing.ts'
import { emptyBase, keptBodies, type Decisions } from './index.ts'
import { alike, platformNames, Standing } from './standing.testing.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

const cases = fc.record({
  template: acts(templateChanges, 4),
  facts: acts(factChanges, 1),
  edits: acts(instructorEdits, 6),
  /** Which parts are found in the course; the others are made anew. */
  found: fc.nat(997),
  platform: fc.constantFrom(...platformNames),
  rule: fc.constantFrom<Decisions['rule']>(null, 'keep'),
  leaves: fc.boolean(),
  restores: fc.boolean(),
})
type Case = typeof cases extends fc.Arbitrary<infer C> ? C : never

/** A course that was made by hand, as far as anything stored of it tells, is taken over, and given back. */
const holds = (given: Case) => {
  const { two, later } = changed(given)
  const at = new Standing(given.platform)
  at.deploy(firstVersion(given.leaves), exampleFacts())
  edit(at, given.edits, 'early')
  const stands = new Set(
    [...everyModule(at.course.modules), ...everyCourseItem(at.course).map(({ item }) => item)].map(
      ({ id }) => id,
    ),
  )
  const adopt = new Map(
    at.base.parts.flatMap((entry, i) =>
      stands.has(entry.platformId) && (given.found + i) % 5 > 0
        ? [[entry.instance, entry.platformId] as const]
        : [],
    ),
  )
  at.base = emptyBase()
  at.bodies = keptBodies()
  at.records.length = 0
  const before = at.course
  const words = wordsIn(before, 'early')
  const decisions: Decisions = { rule: given.rule, single: {} }
  const restore = { fixedText: given.restores, missingParts: given.restores }
  const { record } = at.deploy(two, later, { adopt, decisions, restore })
  expect(wordsIn(at.course, 'early')).toEqual(words)
  const gone = everyCourseItem(before).filter(
    ({ item }) => !everyCourseItem(at.course).some((placed) => placed.item.id === item.id),
  )
  expect(gone.map(({ item }) => item.name)).toEqual([])
  at.undo(record)
  expect(alike(at.course)).toEqual(alike(before))
  expect(at.base.parts).toEqual([])
}

describe('taking over a course', () => {
  it('loses no word of an instructor’s, takes no item away, and is taken back wholly', () => {
    fc.assert(fc.property(cases, holds), propertyRuns())
  })
})
