import {
  addressOfCriterion,
  rules,
  type CheckResult,
  type Finding,
  type Outcome,
} from '@wickerframe/core'
import type { Report, ReportedCourse } from './report.ts'

/** Our outcomes as EARL has them; what is not due yet was not tested. */
const outcomes: Readonly<Record<Outcome['outcome'], string>> = {
  passed: 'earl:passed',
  failed: 'earl:failed',
  'cannot-tell': 'earl:cantTell',
  inapplicable: 'earl:inapplicable',
  untested: 'earl:untested',
  'not-due-yet': 'earl:untested',
}

const program = 'urn:wickerframe:program'
const testOf = (rule: string): string => `urn:wickerframe:rule:${rule}`
const id = (iri: string) => ({ '@id': iri })

const subjectOf = ({ at, result }: ReportedCourse): string =>
  /^https?:/.test(at) ? at : `urn:wickerframe:course:${encodeURIComponent(result.course.id)}`

const assertion = (
  course: ReportedCourse,
  rule: string,
  outcome: string,
  more: object,
  mode = 'earl:automatic',
) => ({
  '@type': 'earl:Assertion',
  'earl:assertedBy': id(program),
  'earl:subject': id(subjectOf(course)),
  'earl:test': id(testOf(rule)),
  'earl:mode': id(mode),
  'earl:result': {
    '@type': 'earl:TestResult',
    'earl:outcome': id(outcome),
    'dct:date': course.result.asOf,
    ...more,
  },
})

const pointer = (path: readonly string[]) => ({
  'earl:pointer': { '@type': 'ptr:ExpressionPointer', 'ptr:expression': path.join(' › ') },
})

/** What was found, place by place. A waiver does not make it pass; it stands beside it. */
const found = (course: ReportedCourse, { rule, places }: Finding) =>
  places.map(({ fingerprint, message, place, waived }) =>
    assertion(course, rule, outcomes.failed, {
      'dct:identifier': fingerprint,
      'earl:info': waived ? `${message} Waived: ${waived.reason}` : message,
      ...pointer(place.path),
    }),
  )

const untold = (course: ReportedCourse, { outcome, ...told }: Outcome) =>
  told.attestedBy
    ? assertion(
        course,
        told.rule,
        outcomes.passed,
        {
          'dct:identifier': told.fingerprint,
          'earl:info': 'Somebody gave their word for it.',
          ...pointer(told.place.path),
        },
        'earl:manual',
      )
    : assertion(course, told.rule, outcomes[outcome], {
        'dct:identifier': told.fingerprint,
        'earl:info': told.reason ?? '',
        ...pointer(told.place.path),
      })

/** Of a rule that found nothing, what it came to in the whole course: it passed where anything did. */
const wholeRules = (course: ReportedCourse, { findings, outcomes: told }: CheckResult) => {
  const spokenOf = new Set([
    ...findings.map(({ rule }) => rule),
    ...told.filter(({ outcome }) => outcome === 'cannot-tell').map(({ rule }) => rule),
  ])
  const best = new Map<string, Outcome['outcome']>()
  for (const { rule, outcome } of told)
    if (!spokenOf.has(rule) && outcome !== 'failed' && best.get(rule) !== 'passed')
      best.set(rule, outcome)
  return [...best].map(([rule, outcome]) => assertion(course, rule, outcomes[outcome], {}))
}

/**
 * A report in the Evaluation and Report Language (W3C, EARL 1.0 Schema) as JSON-LD: an assertion for each place of each finding, for
 * whatever could not be told, and for each rule that found nothing. Rules about access name their success criteria.
 */
export const earlOf = (report: Report) => ({
  '@context': {
    earl: 'http://www.w3.org/ns/earl#',
    dct: 'http://purl.org/dc/terms/',
    ptr: 'http://www.w3.org/2009/pointers#',
    doap: 'http://usefulinc.com/ns/doap#',
  },
  '@graph': [
    {
      '@id': program,
      '@type': ['earl:Assertor', 'earl:Software'],
      'dct:title': 'Wickerframe',
      'doap:release': { '@type': 'doap:Version', 'doap:revision': report.version },
    },
    ...rules.map((rule) => ({
      '@id': testOf(rule.id),
      '@type': 'earl:TestRequirement',
      'dct:title': rule.title,
      'dct:description': rule.why,
      ...(rule.wcag
        ? { 'dct:isPartOf': rule.wcag.map((criterion) => id(addressOfCriterion(criterion))) }
        : {}),
    })),
    ...report.courses.flatMap((course) => [
      {
        '@id': subjectOf(course),
        '@type': 'earl:TestSubject',
        'dct:title': course.result.course.name,
        'dct:identifier': course.result.course.id,
        'dct:date': course.result.course.readAt,
      },
      ...course.result.findings.flatMap((finding) => found(course, finding)),
      ...course.result.outcomes
        .filter(({ outcome }) => outcome === 'cannot-tell')
        .map((outcome) => untold(course, outcome)),
      ...wholeRules(course, course.result),
    ]),
  ],
})
