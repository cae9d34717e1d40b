import {
  bodiesOfBase,
  courseImpact,
  everyCourseItem,
  foreseeRelease,
  type Check,
  type CourseImpact,
  type Template,
} from '@wickerframe/core'
import type { Pool } from 'mysql2/promise'
import { findCheck } from '../checks/checks.ts'
import { checkInputsOf } from '../checks/checkStored.ts'
import { findCourses } from '../courses/courses.ts'
import { findBase } from '../rollouts/bases.ts'
import { courseBodies } from '../snapshots/courseBodies.ts'
import { digestOfHeld, findHeldDraft, keepImpacts } from './impacts.ts'

/** The draft last asked about: it is the same for thousands of courses. */
let last: { digest: string; template: Template | null } | null = null
const heldDraft = async (pool: Pool, run: number): Promise<Template | null> => {
  const digest = await digestOfHeld(pool, run)
  if (digest === null) return null
  if (last?.digest !== digest) last = { digest, template: await findHeldDraft(pool, run) }
  return last.template
}

/**
 * Holds the draft of a run against courses, from what is stored of them, and keeps what it would change. Each of them was
 * checked as of today before.
 */
export const foreseeStored = async (
  pool: Pool,
  courseIds: readonly number[],
  run: number,
  today: string,
): Promise<void> => {
  const template = await heldDraft(pool, run)
  if (!template) return
  const inputs = await checkInputsOf(pool, await findCourses(pool, courseIds), today, today)
  const impacts = new Map<number, CourseImpact>()
  for (const id of courseIds) {
    const check = inputs.get(id)
    impacts.set(id, check ? await impactOn(pool, id, check, template, today) : { state: 'unread' })
  }
  await keepImpacts(pool, run, impacts)
}

const impactOn = async (
  pool: Pool,
  courseId: number,
  check: Check,
  template: Template,
  today: string,
): Promise<CourseImpact> => {
  const now = await findCheck(pool, courseId, today)
  if (!now) return { state: 'unread' }
  const base = await findBase(pool, courseId)
  const bodies = courseBodies()
  if (base.parts.length > 0) {
    for (const { item } of everyCourseItem(check.course))
      if (item.html !== null) bodies.idOf(item.html)
    await bodies.load(pool, courseId, bodiesOfBase(base))
  }
  return courseImpact(now, foreseeRelease(check, { template, base, bodies, onDate: today }))
}
