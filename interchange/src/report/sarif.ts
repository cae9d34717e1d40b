import { ruleById, rules, successCriteria, type Finding } from '@wickerframe/core'
import { placesOf, type GonePlace, type Report, type ReportedCourse } from './report.ts'

const level = { must: 'error', should: 'warning', may: 'note' } as const

/** Braces stand for placeholders in a message and are doubled (SARIF 2.1.0, 3.11.5; from memory). */
const text = (words: string) => ({ text: words.replace(/[{}]/g, '$&$&') })

/** Where a course is, as a URI reference: a path of this machine is written with forward slashes and no spaces. */
const uriOf = (at: string): string => encodeURI(at.replaceAll('\\', '/'))

const locations = ({ at }: Pick<ReportedCourse, 'at'>, path: readonly string[]) => [
  {
    physicalLocation: { artifactLocation: { uri: uriOf(at) } },
    ...(path.length === 0
      ? {}
      : { logicalLocations: [{ name: path.at(-1) ?? '', fullyQualifiedName: path.join(' › ') }] }),
  },
]
const fingerprints = (fingerprint: string) => ({ 'wickerframeFinding/v1': fingerprint })

const index = new Map(rules.map(({ id }, i) => [id, i]))
const aboutRule = (rule: string) => {
  const ruleIndex = index.get(rule)
  return { ruleId: rule, ...(ruleIndex === undefined ? {} : { ruleIndex }) }
}

const driverRule = (id: string) => {
  const rule = ruleById(id)
  if (!rule) throw new Error(`there is no rule ${id}`)
  return {
    id,
    shortDescription: { text: rule.title },
    fullDescription: { text: rule.why },
    help: { text: `${rule.why} What it does not tell: ${rule.untold}` },
    defaultConfiguration: { level: level[rule.strength] },
    properties: {
      tags: [
        rule.group,
        ...(rule.wcag ?? []).map(
          (criterion) => `WCAG 2.2 ${criterion} ${successCriteria[criterion].title}`,
        ),
      ],
    },
  }
}

const gone = (course: ReportedCourse, place: GonePlace) => ({
  ...aboutRule(place.rule),
  level: level[place.strength],
  message: text(place.message),
  locations: locations(course, place.path),
  partialFingerprints: fingerprints(place.fingerprint),
  baselineState: 'absent',
})

const effortOf = ({ effortMinutes, places }: Finding): number => effortMinutes / places.length

/**
 * A report as a SARIF log (OASIS, Static Analysis Results Interchange Format 2.1.0): a result for each place of each finding, and
 * one to be looked at for whatever could not be told. A waiver is a suppression; what an earlier report told is the baseline.
 */
export const sarifOf = (report: Report) => ({
  $schema: 'https://json.schemastore.org/sarif-2.1.0.json',
  version: '2.1.0' as const,
  runs: [
    {
      tool: {
        driver: {
          name: 'Wickerframe',
          version: report.version,
          rules: rules.map(({ id }) => driverRule(id)),
        },
      },
      invocations: [
        {
          executionSuccessful: report.failed.length === 0,
          endTimeUtc: report.made,
          toolExecutionNotifications: report.failed.map(({ at, message }) => ({
            level: 'error',
            message: text(message),
            locations: locations({ at }, []),
          })),
        },
      ],
      artifacts: report.courses.map(({ at }) => ({ location: { uri: uriOf(at) } })),
      results: [
        ...placesOf(report).map(({ course, finding, place, isNew }) => ({
          ...aboutRule(finding.rule),
          level: level[finding.strength],
          message: text(place.message),
          locations: locations(course, place.place.path),
          partialFingerprints: fingerprints(place.fingerprint),
          ...(isNew === null ? {} : { baselineState: isNew ? 'new' : 'unchanged' }),
          suppressions: place.waived
            ? [{ kind: 'external', status: 'accepted', justification: place.waived.reason }]
            : [],
          properties: {
            course: course.result.course.name,
            evidence: place.evidence.map((seen) => seen.text),
            expected: place.expected,
            mender: finding.mender,
            owner: finding.owner,
            effortMinutes: effortOf(finding),
          },
        })),
        ...report.courses.flatMap((course) =>
          course.result.outcomes
            .filter(({ outcome, attestedBy }) => outcome === 'cannot-tell' && !attestedBy)
            .map((outcome) => ({
              ...aboutRule(outcome.rule),
              kind: 'review',
              level: 'none',
              message: text(outcome.reason ?? 'It could not be told.'),
              locations: locations(course, outcome.place.path),
              partialFingerprints: fingerprints(outcome.fingerprint),
            })),
        ),
        ...report.courses.flatMap((course) =>
          (report.since?.gone.get(course.result.course.id) ?? []).map((place) =>
            gone(course, place),
          ),
        ),
      ],
    },
  ],
})
