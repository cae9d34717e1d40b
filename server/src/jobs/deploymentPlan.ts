import { expandCourse, knownRepetitions, planDeployment, withRecordedIdentity, identityOf, type BaseEntry, type Course, type ExpectedCourse, type Facts, type Plan, type Problem, type Result, type Template } from '@wickerframe/core'
import { digestOf } from '../digest.ts'

/** Raised with every change of what a plan or an expansion gives for the same input. */
export const engineVersion = 'wickerframe-2'

export interface PlannedCourse {
  plan: Plan
  expected: ExpectedCourse
  /** Of everything the plan would do; the revision of the course is not in it. */
  digest: string
}

/** The plan for one course: a pure function of version, facts, snapshot, base and the day whose house texts are written. */
export const planFor = (template: Template, facts: Facts, course: Course, base: readonly BaseEntry[], onDate: string): Result<PlannedCourse, Problem[]> => {
  const identified = withRecordedIdentity(course, identityOf(base))
  const recorded = base.flatMap((entry) => (entry.repetition !== null && entry.number !== null ? [{ part: entry.part, number: entry.number, id: entry.repetition }] : []))
  // Repetitions are carried over from the base as well: a removed module keeps its id, so that it stays removed.
  const repetitions = [...knownRepetitions(template, identified), ...recorded]
  const expansion = expandCourse({ template, facts, mintFrom: course.id, repetitions })
  if (!expansion.ok) return expansion
  const plan = planDeployment({ expected: expansion.value, course, base, onDate })
  return { ok: true, value: { plan, expected: expansion.value, digest: digestOf(plan.state === 'ready' ? { changes: plan.changes, engineVersion } : { state: plan.state }) } }
}
