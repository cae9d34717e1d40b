import { writeTable } from '../writeTable.ts'
import { placesOf, readinessWords, type Report } from './report.ts'

type Cell = string | number

export interface Table {
  title: string
  head: readonly string[]
  rows: readonly (readonly Cell[])[]
}

/** Each course in a row: how it stands. */
export const courseTable = ({ courses, failed }: Report): Table => ({
  title: 'Courses',
  head: [
    'code',
    'course',
    'class sections',
    'department',
    'owner',
    'template',
    'version',
    'as of',
    'readiness',
    'open musts',
    'open shoulds',
    'waived',
    'could not be told',
    'requirements',
    'met',
    'where',
  ],
  rows: [
    ...courses.map(({ result, classSections, department, owner, at }): Cell[] => [
      result.course.code,
      result.course.name,
      classSections.join(' '),
      department,
      owner,
      result.template.title,
      result.template.version ?? '',
      result.asOf,
      readinessWords[result.readiness],
      result.counts.openMusts,
      result.counts.openShoulds,
      result.counts.waived,
      result.counts.cannotTell,
      result.counts.requirements,
      result.counts.met,
      at,
    ]),
    ...failed.map(({ at, message }): Cell[] => [
      ...Array.from({ length: 8 }, () => ''),
      `not checked: ${message}`,
      ...Array.from({ length: 6 }, () => ''),
      at,
    ]),
  ],
})

/** Each place of each finding in a row; what is gone since an earlier report stands at the end. */
export const findingTable = (report: Report): Table => ({
  title: 'Findings',
  head: [
    'code',
    'course',
    'class sections',
    'strength',
    'rule',
    'what',
    'where',
    'seen',
    'expected',
    'whose move',
    'state',
    'since',
    'minutes',
    'fingerprint',
  ],
  rows: [
    ...placesOf(report).map(({ course, finding, place, state, isNew }): Cell[] => [
      course.result.course.code,
      course.result.course.name,
      course.classSections.join(' '),
      finding.strength,
      finding.rule,
      place.message,
      place.place.path.join(' › '),
      place.evidence.map(({ text }) => text).join(' | '),
      place.expected,
      finding.owner ?? `the ${finding.mender}`,
      place.waived ? `waived: ${place.waived.reason}` : state,
      isNew === null ? '' : isNew ? 'new' : 'known',
      finding.effortMinutes / finding.places.length,
      place.fingerprint,
    ]),
    ...report.courses.flatMap(({ result, classSections }) =>
      (report.since?.gone.get(result.course.id) ?? []).map((place): Cell[] => [
        result.course.code,
        result.course.name,
        classSections.join(' '),
        place.strength,
        place.rule,
        place.message,
        place.path.join(' › '),
        '',
        '',
        '',
        'gone',
        'gone',
        0,
        place.fingerprint,
      ]),
    ),
  ],
})

/** The findings as a CSV file (RFC 4180); a course in which nothing is found has no row. */
export const csvOf = (report: Report): string => {
  const { head, rows } = findingTable(report)
  return writeTable([head, ...rows.map((row) => row.map(String))])
}
