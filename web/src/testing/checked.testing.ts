import { checkCourse, type CheckResult } from '@wickerframe/core'
import { exampleCourse } from '@wickerframe/core/testing'
import type { CourseCare } from '@wickerframe/contract'

type Example = ReturnType<typeof exampleCourse>

/** The example course after somebody's edits, checked on a day of its third week. */
export const checkedExample = (
  edit: (example: Example) => void = () => undefined,
): Example & { result: CheckResult } => {
  const example = exampleCourse()
  edit(example)
  const result = checkCourse({ ...example, asOf: '2026-09-16' })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return { ...example, result: result.value }
}

/** The example course with a word before the name of everything in its modules: findings of many places. */
export const misnamedExample = (): ReturnType<typeof checkedExample> =>
  checkedExample(({ course: { modules } }) => {
    for (const child of modules.flatMap(({ children }) => children))
      child.name = `Old ${child.name}`
  })

export const noCare = (): CourseCare => ({
  joins: [],
  waivers: [],
  attestations: [],
  followUps: [],
  notThisWeek: [],
  since: null,
})
