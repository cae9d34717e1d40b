import { checkCourse, type Check, type CheckResult } from '../check/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import type { ExampleCourse } from '../rules/index.ts'

/** The example's course, changed so, and what its check tells in the third week. */
export const checked = (
  change: (example: ExampleCourse) => void,
  more: Partial<Check> = {},
): { example: ExampleCourse; result: CheckResult } => {
  const example = exampleCourse()
  change(example)
  const result = checkCourse({ ...example, asOf: '2026-09-16', ...more })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return { example, result: result.value }
}
export const hideWeek3 = ({ module }: ExampleCourse) => void (module('week', 3).published = false)
