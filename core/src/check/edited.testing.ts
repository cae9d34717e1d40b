import { exampleCourse } from '../rules/example/exampleCourse.ts'
import type { ExampleCourse } from '../rules/index.ts'
import type { Waiver } from './exemption.ts'

/** The example’s course with a change made to it. */
export const edited = (change: (example: ExampleCourse) => void): ExampleCourse => {
  const example = exampleCourse()
  change(example)
  return example
}

/** A waiver of one place’s module name, but for what is said otherwise. */
export const waiver = (more: Partial<Waiver>): Waiver => ({
  id: 'w',
  scope: 'place',
  rule: 'module-name',
  fingerprint: null,
  part: null,
  week: null,
  evidence: null,
  from: '2026-09-01',
  until: null,
  reason: 'agreed',
  ...more,
})
