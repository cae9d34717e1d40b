import {
  applyChanges,
  filesOfChange,
  type Change,
  type ChangeProblem,
  type Course,
  type CourseFile,
  type PlatformHand,
} from '../course/index.ts'
import { success, type Result } from '../document/index.ts'
import type { ExpectedCourse } from '../expand/index.ts'
import { shownOf } from '../files/index.ts'
import { emptyBase, type Base } from './base.ts'
import { keptBodies, type Bodies, type KeptBodies } from './bodies.ts'
import { baseAfter } from './baseAfter.ts'
import { isWorkedOut, type Plan } from './plan.ts'
import { planDeployment } from './planDeployment.ts'

/** A course with the files that changes put into it, where it tells which it holds. */
const withLedTo = (
  course: Course,
  changes: readonly Change[],
  { urlOfFile }: PlatformHand,
): Course => {
  const { files } = course
  if (!files || !urlOfFile) return course
  const held = new Set(files.map(({ url }) => url))
  const led = changes
    .flatMap(filesOfChange)
    .map(shownOf)
    .map((file): CourseFile => ({
      id: `led-to-${file.content}`,
      name: file.name,
      url: urlOfFile(file),
      restricted: false,
      content: file.content,
    }))
    .filter(({ url }) => !held.has(url) && held.add(url))
  return led.length === 0 ? course : { ...course, files: [...files, ...led] }
}

/** Carries a plan out on a course document, as a platform would. @returns the course and the base after it */
export const carryOut = (
  plan: Plan,
  course: Course,
  base: Base,
  hand: PlatformHand,
  bodies: Bodies,
): Result<{ course: Course; base: Base }, ChangeProblem> => {
  if (!isWorkedOut(plan)) return success({ course, base })
  const applied = applyChanges(course, plan.changes, hand)
  if (!applied.ok) return applied
  const after = withLedTo(applied.value.course, plan.changes, hand)
  return success({ course: after, base: baseAfter(plan.next, applied.value.ids, after, bodies) })
}

/** An expected course put into a shell, worked out in memory as a platform would: for examples, benchmarks and tests. Throws when it cannot be. */
export const deployInto = (
  expected: ExpectedCourse,
  shell: Course,
  hand: PlatformHand,
  onDate: string,
): { course: Course; base: Base; bodies: KeptBodies } => {
  const bodies = keptBodies()
  const plan = planDeployment({ expected, course: shell, base: emptyBase(), bodies, onDate })
  if (plan.state !== 'ready') throw new Error(`nothing to deploy into ${shell.id}`)
  const done = carryOut(plan, shell, emptyBase(), hand, bodies)
  if (!done.ok) throw new Error(done.problems.message)
  return { ...done.value, bodies }
}
