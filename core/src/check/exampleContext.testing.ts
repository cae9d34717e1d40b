import { expectationFor } from './checkCourse.ts'
import { keptPage } from '../page/keptPage.testing.ts'
import { pairCourse } from '../pair/index.ts'
import { CheckContext, type ExampleCourse } from '../rules/index.ts'

/** An example’s course as rules and mends look at it on a day. */
export const exampleContext = (shown: ExampleCourse, asOf = '2026-09-16'): CheckContext => {
  const worked = expectationFor(shown)
  if (!worked.ok) throw new Error(JSON.stringify(worked.problems))
  const pageOf = (item: { html: string | null }) =>
    item.html === null ? null : keptPage(item.html)
  return new CheckContext({
    ...worked.value,
    course: shown.course,
    pairing: pairCourse(worked.value.expected, shown.course, pageOf),
    asOf,
    pageOf,
    history: shown.history,
  })
}
