import { everyCourseItem, everyModule, isShell } from '../course/index.ts'
import type { ExpectedPart } from '../expand/index.ts'
import { bodiesOfBase, missingBodies } from './bodies.ts'
import { consequencesOf } from './consequences.ts'
import { mergeCourseFields, mergeHome } from './courseItself.ts'
import { createPart } from './createPart.ts'
import { planGoneParts } from './goneParts.ts'
import { mergePart } from './mergePart.ts'
import { movesOf } from './mergePlace.ts'
import { unusableWithout, type Plan, type PlanInput, type PlanStep } from './plan.ts'
import { planContext, unchangedEntry } from './planContext.ts'
import { shortenedPages } from './shortened.ts'

const countOf = (
  steps: readonly PlanStep[],
  which: (field: PlanStep['fields'][number]) => boolean,
): number => steps.reduce((sum, step) => sum + step.fields.filter(which).length, 0)

/**
 * What a deployment of the expected course would do to a course: a three-way merge of what was last deployed (base), what
 * stands there (course) and what the template wants now (expected), part by part, field by field and block by block. Into
 * a shell it creates everything. Pure: the same input gives the same plan, and a plan that was run gives an empty one.
 */
export const planDeployment = (input: PlanInput): Plan => {
  const { expected, course, base, adopt } = input
  if (base.parts.length === 0 && !adopt && !isShell(course))
    return {
      state: 'left-out',
      reason: `the course already holds content that Wickerframe did not put there (modules: ${everyModule(course.modules).length}, items: ${everyCourseItem(course).length}); bringing a template into a filled course is a decision of its own`,
    }

  const lacking = unusableWithout(missingBodies(bodiesOfBase(base), input.bodies))
  if (lacking) return lacking
  const context = planContext(input)
  const { entryOf, created, standing, chosenPart, steps, changes, next, tell } = context
  const { courseBase, lastChanges } = mergeCourseFields(context)
  const moves = movesOf(context)
  let unchanged = 0
  const visit = (part: ExpectedPart) => {
    const id = standing(part.instance)
    const entry = entryOf.get(part.instance)
    if (created.has(part.instance))
      createPart(
        part,
        entry
          ? 'was removed from the course; brought back, as asked'
          : part.audience === 'staff'
            ? 'new, for staff only'
            : 'new',
        moves,
        context,
      )
    else if (id !== undefined && entry && entry.kind !== part.kind) {
      next.push(unchangedEntry(entry))
      tell(
        'keep',
        part,
        `is a ${entry.kind} here and a ${part.kind} in the template now; it is left as it is, change it by hand`,
      )
    } else if (id !== undefined) unchanged += mergePart(part, id, moves, context) ? 0 : 1
    else if (entry) {
      next.push(unchangedEntry(entry))
      tell('keep', part, 'deployed before and removed since; stays removed')
    } else if (chosenPart(part))
      tell('keep', part, 'its module is not in the course, so it is not created')
    for (const inner of part.items) if (inner.kind === 'module' || !inner.inBreak) visit(inner)
  }
  expected.parts.forEach(visit)
  visit(expected.home)
  planGoneParts(context)
  const home = mergeHome(context)
  changes.push(...lastChanges)

  const undecided = countOf(steps, (field) => field.does === 'conflict' && field.decided === null)
  const decided =
    steps.some((step) => step.does === 'adopt') ||
    countOf(
      steps,
      (field) => field.does === 'agree' || (field.does === 'conflict' && field.decided !== null),
    ) > 0
  return {
    state: changes.length > 0 || decided ? 'ready' : 'nothing-to-do',
    steps,
    unchanged,
    changes,
    undecided,
    next: { ...courseBase, course: { ...courseBase.course, ...home }, parts: next },
    creates: [...created],
    additive:
      changes.length > 0 &&
      changes.every(
        (change) => change.change === 'create-item' || change.change === 'create-module',
      ),
    consequences: [
      ...shortenedPages(changes, course, base, input.bodies),
      ...consequencesOf(changes, steps, course, expected),
    ],
  }
}
