import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { everyCourseItem, type Change, type Course } from '../course/index.ts'
import { exampleFacts } from '../rules/example/exampleCourse.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import {
  acts,
  changed,
  edit,
  factChanges,
  firstVersion,
  instructorEdits,
  templateChanges,
} from './generated.testing.ts'
import { alike, platformNames, Standing } from './standing.testing.ts'
import { isTextUntold } from './untold.ts'

/**
 * Lets the platform not tell what some pages say.
 * @returns their ids with what they say
 */
const hide = (at: Standing, n: number): Map<string, string> => {
  const blocks = new Map(at.base.parts.map((entry) => [entry.platformId, entry.blocks]))
  const hidden = new Map<string, string>()
  at.course = structuredClone(at.course)
  everyCourseItem(at.course).forEach(({ item }, i) => {
    const untold = { kind: item.kind, html: null }
    if (item.html === null || (i + n) % 3 === 0) return
    if (!isTextUntold(untold, blocks.get(item.id) ?? null)) return
    hidden.set(item.id, item.html)
    item.html = null
  })
  return hidden
}
/** Lets it tell them again. */
const tell = (at: Standing, hidden: ReadonlyMap<string, string>): void => {
  at.course = structuredClone(at.course)
  for (const { item } of everyCourseItem(at.course)) item.html ??= hidden.get(item.id) ?? null
}
/** Changes that write or take away what was not told. */
const touching = (changes: readonly Change[], hidden: ReadonlyMap<string, string>) =>
  changes.filter(
    (change) =>
      (change.change === 'remove-item' && hidden.has(change.id)) ||
      (change.change === 'set-item' && hidden.has(change.id) && change.fields.html !== undefined),
  )
const withoutLinks = (html: string | null | undefined) => html?.replace(/ href="[^"]*"/g, '')
const pagesOf = (course: Course) =>
  new Map(everyCourseItem(course).map(({ item }) => [item.id, item.html]))

describe('what a platform does not tell of pages', () => {
  it('is neither written over nor taken away, by no rollout and no undo, and gets its due once it is told', () => {
    let tried = 0
    fc.assert(
      fc.property(
        fc.record({
          template: acts(templateChanges, 5),
          facts: acts(factChanges, 1),
          edits: acts(instructorEdits, 4),
          platform: fc.constantFrom(...platformNames),
          leaves: fc.boolean(),
          restore: fc.boolean(),
          n: fc.nat(2),
        }),
        (given) => {
          const { two, later } = changed(given)
          const more = given.restore ? { restore: { fixedText: true } } : {}
          const first = firstVersion(given.leaves)

          // A rollout that sees some pages only.
          const at = new Standing(given.platform)
          at.deploy(first, exampleFacts())
          edit(at, given.edits, 'early')
          const before = pagesOf(at.course)
          const hidden = hide(at, given.n)
          tried += hidden.size
          const { plan, record } = at.deploy(two, later, more)
          expect(touching(plan.changes, hidden)).toEqual([])
          // The undo of it sees them again, or does not; either way they stay what they were.
          expect(touching(at.planUndo(record).changes, hidden)).toEqual([])
          tell(at, hidden)
          const { plan: undo } = at.undo(record)
          for (const change of touching(undo.changes, hidden))
            // Links lead to what the undo makes again.
            expect(change.change).toBe('set-item')
          const after = pagesOf(at.course)
          for (const id of hidden.keys())
            expect(withoutLinks(after.get(id))).toBe(withoutLinks(before.get(id)))

          // An undo that sees some pages only, of a rollout that saw them all.
          const whole = new Standing(given.platform)
          whole.deploy(first, exampleFacts())
          edit(whole, given.edits, 'early')
          const { record: seen } = whole.deploy(two, later, more)
          const now = hide(whole, given.n)
          expect(touching(whole.planUndo(seen).changes, now)).toEqual([])

          // Unedited, they become what they would have become at once.
          const late = new Standing(given.platform)
          late.deploy(first, exampleFacts())
          const at1 = hide(late, given.n)
          late.deploy(two, later)
          tell(late, at1)
          late.deploy(two, later)
          const once = new Standing(given.platform)
          once.deploy(first, exampleFacts())
          once.deploy(two, later)
          expect(alike(late.course)).toEqual(alike(once.course))
        },
      ),
      propertyRuns(),
    )
    expect(tried).toBeGreaterThan(100)
  })
})
