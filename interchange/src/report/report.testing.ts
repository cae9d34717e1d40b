import { checkCourse, type CheckResult } from '@wickerframe/core'
import { exampleCourse } from '@wickerframe/core/testing'
import type { Report, ReportedCourse } from './report.ts'
import { sinceEarlier } from './since.ts'

type Example = ReturnType<typeof exampleCourse>

export const checkedAs = (
  id: string,
  edit: (example: Example) => void = () => undefined,
): CheckResult => {
  const example = exampleCourse()
  example.course.id = id
  edit(example)
  const result = checkCourse({ ...example, asOf: '2026-09-16' })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}

/** Names and pages as hostile as files can bring them. */
export const hostile = ({ course, module, item }: Example): void => {
  module('week', 2).name = '=HYPERLINK("http://x.example","<b>Week {0} "two"</b>")'
  module('week', 3).name = 'Week 3,\r\n"Sep 14"; <script>alert(1)</script> \u0007\ud83d\ude00'
  item('week-overview', 6).html += '<p><img src="/chart.png"></p>'
  course.name = '@NAV & "110" <Coastal>'
}

export const reported = (
  result: CheckResult,
  at = `courses/${result.course.id}.json`,
): ReportedCourse => ({
  result,
  at,
  classSections: ['01', '02'],
  department: 'NAV',
  owner: 'Sunniva Drake',
})

/** A report of a clean course, one with findings and one that is hostile, compared with what the second was before. */
export const exampleReport = (): Report => {
  const before = checkedAs('b', ({ course }) => void (course.published = false))
  const courses = [
    checkedAs('a'),
    checkedAs('b', ({ item }) => void (item('assignment', 2).dueAt = null)),
    checkedAs('c', hostile),
  ]
  return {
    title: 'The <college> & all',
    made: '2026-09-16T12:00:00Z',
    version: '1.2.3',
    courses: courses.map((result) => reported(result)),
    failed: [{ at: 'courses/broken file.json', message: 'found {}; expected a course' }],
    since: sinceEarlier(courses, [before]),
  }
}

/** With one finding waived in every place. */
export const waivedIn = (result: CheckResult, rule: string): CheckResult => ({
  ...result,
  findings: result.findings.map((finding) =>
    finding.rule === rule
      ? {
          ...finding,
          places: finding.places.map((place) => ({
            ...place,
            waived: { id: '1', reason: 'agreed', until: null, changedSince: false },
          })),
        }
      : finding,
  ),
})
