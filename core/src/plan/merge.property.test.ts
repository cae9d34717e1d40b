import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { everyCourseItem, type Course } from '../course/index.ts'
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
import { emptyBase, type Decisions, type WorkedOutPlan } from './index.ts'
import { alike, platformNames, Standing } from './standing.testing.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

const cases = fc.record({
  template: acts(templateChanges, 5),
  facts: acts(factChanges, 1),
  edits: acts(instructorEdits, 6),
  later: acts(instructorEdits, 3),
  platform: fc.constantFrom(...platformNames),
  rule: fc.constantFrom<Decisions['rule']>(null, 'keep'),
  leaves: fc.boolean(),
})
type Case = typeof cases extends fc.Arbitrary<infer C> ? C : never

const moduleOf = (course: Course, id: string) =>
  everyCourseItem(course).find(({ item }) => item.id === id)?.module?.id ?? null
/** Items that stand in another module than they were deployed to, with that module. */
const movedByPeople = (at: Standing): [string, string | null][] =>
  at.base.parts.flatMap((entry): [string, string | null][] => {
    if (
      entry.kind === 'module' ||
      !everyCourseItem(at.course).some(({ item }) => item.id === entry.platformId)
    )
      return []
    const deployedTo =
      at.base.parts.find((part) => part.instance === entry.parent)?.platformId ?? null
    const standsIn = moduleOf(at.course, entry.platformId)
    return standsIn === deployedTo ? [] : [[entry.platformId, standsIn]]
  })

/** Counterexamples that generation found while this was built, shrunk; they are tried first ever after. */
const nothing: Case = {
  template: [],
  facts: [],
  edits: [],
  later: [],
  platform: 'keeps marks',
  rule: null,
  leaves: false,
}
const found: [string, Case][] = [
  [
    'a template that begins to speak of the navigation',
    { ...nothing, template: [{ name: 'another navigation', n: 0 }] },
  ],
  [
    'settings of the course taken back to none',
    { ...nothing, template: [{ name: 'other settings of the course', n: 0 }] },
  ],
  [
    'a new part among siblings that move',
    {
      ...nothing,
      template: [
        { name: 'parts in another order', n: 267 },
        { name: 'parts in another order', n: 217 },
        { name: 'a new part', n: 691 },
      ],
    },
  ],
  [
    'a part removed while its siblings move, taken back into the old order',
    {
      ...nothing,
      template: [
        { name: 'a part less', n: 331 },
        { name: 'parts in another order', n: 75 },
      ],
    },
  ],
]

/** The five properties of `algorithms.md`, of one case. The seed is fixed, so that a change is never blamed for what it did not do; `MERGE_SEED` tries others. */
const holds = (given: Case) => {
  const { two, later } = changed(given)
  const decisions: Decisions = { rule: given.rule, single: {} }
  // An unedited course becomes exactly the new expansion.
  const unedited = new Standing(given.platform)
  unedited.deploy(firstVersion(given.leaves), exampleFacts())
  unedited.deploy(two, later)
  const anew = new Standing(given.platform)
  anew.base = { ...emptyBase(), parts: [] }
  anew.deploy(two, later)
  expect(alike(unedited.course)).toEqual(alike(anew.course))
  // An unchanged template gives an empty plan whatever the instructor did.
  const at = new Standing(given.platform)
  at.deploy(firstVersion(given.leaves), exampleFacts())
  edit(at, given.edits, 'early')
  expect(at.plan(firstVersion(given.leaves), exampleFacts()).changes).toEqual([])
  // Nothing written in an open place is lost, and nothing students worked in.
  const words = wordsIn(at.course, 'early')
  const worked = everyCourseItem(at.course)
    .filter(({ item }) => item.studentWork)
    .map(({ item }) => item.id)
  const before = at.course
  const moved = movedByPeople(at)
  const planned = told(at, at.plan(two, later, { decisions }))
  const { record } = at.deploy(two, later, { decisions })
  expect(wordsIn(at.course, 'early')).toEqual(words)
  expect(
    everyCourseItem(at.course)
      .filter(({ item }) => item.studentWork)
      .map(({ item }) => item.id)
      .sort(),
  ).toEqual(worked.sort())
  for (const [id, module] of moved)
    if (everyCourseItem(at.course).some(({ item }) => item.id === id))
      expect([id, moduleOf(at.course, id)]).toEqual([id, module])
  // Run, then plan, is empty.
  expect(at.plan(two, later, { decisions }).changes).toEqual([])
  // Undo gives back the course as it was, but for edits made since, which it keeps.
  const updated = at.course
  edit(at, given.later, 'late')
  const lateWords = wordsIn(at.course, 'late')
  const edited = at.course
  const { record: undoing } = at.undo(record)
  if (given.later.length === 0) {
    expect(alike(at.course)).toEqual(alike(before))
    // And whatever a later plan reads: the same plans come out as before the rollout.
    expect(told(at, at.plan(two, later, { decisions }))).toEqual(planned)
    expect(at.plan(firstVersion(given.leaves), exampleFacts()).changes).toEqual([])
  }
  const keeps = (kept: readonly string[], of: string, from: Course) =>
    expect(kept.filter((word) => !wordsIn(at.course, of).includes(word))).toEqual(
      kept.filter((word) => !wordsIn(from, of).includes(word)),
    )
  expect(wordsIn(at.course, 'late')).toEqual(lateWords)
  keeps(words, 'early', edited)
  // Undo of the undo brings the rollout back.
  at.undo(undoing)
  if (given.later.length === 0) {
    expect(alike(at.course)).toEqual(alike(updated))
    expect(at.plan(two, later, { decisions }).changes).toEqual([])
  }
  expect(wordsIn(at.course, 'late')).toEqual(lateWords)
  keeps(words, 'early', edited)
}

/** What a plan tells and would change, with parts named by their instance, whatever ids they have. */
const told = (at: Standing, { steps, changes }: WorkedOutPlan): unknown => {
  const instances = new Map(at.base.parts.map((entry) => [entry.platformId, entry.instance]))
  for (const { questions = [], instance } of at.base.parts)
    for (const { id, key } of questions) instances.set(id, `${instance}?${key}`)
  const named = (text: string): string =>
    text.replace(/\b[imq]\d+\b/g, (id) => `<${instances.get(id) ?? 'own'}>`)
  return JSON.parse(named(JSON.stringify({ steps, changes }))) as unknown
}

describe('the five properties of a merge', () => {
  it.each(found)('hold for %s (found by generation, shrunk)', (_, given) => holds(given))
  it('hold in generated cases: edits, calendar changes and updates', () => {
    fc.assert(fc.property(cases, holds), propertyRuns())
  })
})
