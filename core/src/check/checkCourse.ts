import { instructionalWeeks } from '../calendar/index.ts'
import type { CohortClash, Course, CourseHistory, CourseItem, Facts } from '../course/index.ts'
import {
  failure,
  readDocument,
  shortHash,
  success,
  type Problem,
  type Result,
} from '../document/index.ts'
import { expandCourse, knownRepetitions, type ExpectedCourse } from '../expand/index.ts'
import { analysePage, type PageFacts } from '../page/index.ts'
import { pairCourse, readGroupings, type Join, type Pair } from '../pair/index.ts'
import { remember } from '../remember/index.ts'
import { CheckContext, ruleById, rules, type AnyRule, type Verdict } from '../rules/index.ts'
import type { Strength, Template } from '../template/index.ts'
import { applyExemptions } from './exempting.ts'
import type { Exemptions } from './exemption.ts'
import { findingsOf } from './findings.ts'
import { subjectKey, type OpenRequirement } from './openRequirement.ts'
import { holdTogether, ofTemplate, type OfTemplate } from './ofTemplate.ts'
import type { CheckResult, Counts, Finding, Outcome, Place } from './outcome.ts'
import { placesIn } from './places.ts'
import { applySilence, resolveAbsent } from './telling.ts'

/** Raised with every change of what a check gives for the same input. */
export const checkVersion = 11

export interface Check {
  template: Template
  facts: Facts
  /** With recorded identity beside what deployment made, where it is known. */
  course: Course
  /** `YYYY-MM-DD`, 00:00 in the term's time zone. The wall clock is never asked. */
  asOf: string
  /** Facts of pages, kept by content; without it every page is read anew. */
  pageOf?: (html: string) => PageFacts
  /** Names that other courses of the term carry as well; none without them. */
  clashes?: readonly CohortClash[]
  /** Deployments, versions and the like; rules that rest on it do not apply without it. */
  history?: CourseHistory | null
  /** Part instances that the instructor left out on purpose, where they may. */
  notThisWeek?: readonly string[]
  /** What was joined and unjoined by hand. */
  joins?: readonly Join[]
  /** Nothing is waived or attested without it. */
  exemptions?: Exemptions
  /** Whether mends are worked out for what is found; they are, without it. */
  mends?: boolean
  /** Where the same course is checked again and again with the same template and facts: what it should be, once worked out. */
  worked?: Map<string, Expectation>
}

/** What is wrong with the policies of a template: rules that are not there, parameters they do not take. */
export const policyProblems = (template: Template): Problem[] =>
  template.policies.flatMap((policy, i): Problem[] => {
    const rule = ruleById(policy.rule)
    if (!rule)
      return [
        {
          code: 'not-allowed',
          path: `/policies/${i}/rule`,
          found: policy.rule,
          expected: `one of ${rules.map((rule) => rule.id).join(', ')}`,
        },
      ]
    const read = readDocument(rule.parameters, policy.parameters)
    return read.ok
      ? []
      : read.problems.map((problem) => ({
          ...problem,
          path: `/policies/${i}/parameters${problem.path}`,
        }))
  })

/**
 * The weakest of what a rule, its part and its block ask for. A part that may be left out should still be right when it
 * is there; a rule that is for information only stays so.
 */
const weakest = (
  rule: Strength,
  part: Strength | undefined,
  block: Strength | undefined,
): Strength => {
  if (rule === 'may') return 'may'
  return [rule, part ?? 'must', block ?? 'must'].every((one) => one === 'must') ? 'must' : 'should'
}

const pairRecord = (pair: Pair, context: CheckContext): CheckResult['pairs'][number] => {
  const part = context.partAt(pair.expected)
  const placed = context.placed(pair.found)
  const module = placed ? placed.module : context.moduleById(pair.found)
  const path = [module?.name, placed?.item.name].filter((name) => name !== undefined)
  return {
    ...pair,
    part: part?.key ?? '',
    repetition: part?.repetition === null ? null : (part?.repetitionNumber ?? null),
    path,
  }
}

/** What a course should be, and what it made of weeks that may be grouped. */
export interface Expectation {
  expected: ExpectedCourse
  groupings: ReturnType<typeof readGroupings>
}

/**
 * Works out what a course should be, with the units it made of its weeks where the template accepts them.
 * @param worked what was worked out before for the same template and facts; what is new is put to it
 */
export const expectationFor = ({
  template,
  facts,
  course,
  worked,
}: Pick<Check, 'template' | 'facts' | 'course' | 'worked'>): Result<Expectation> => {
  const weeks = instructionalWeeks({
    term: facts.term,
    nextTerm: facts.nextTerm,
    session: facts.session,
    count: facts.weeks,
  })
  const groupings = readGroupings(template, facts, weeks, course)
  const units = Object.fromEntries(
    Object.entries(groupings).flatMap(([key, reading]) =>
      reading.state === 'grouped' ? [[key, reading.units]] : [],
    ),
  )
  const repetitions = knownRepetitions(template, course)
  const key = worked ? JSON.stringify([groupings, repetitions, course.id]) : ''
  const known = worked?.get(key)
  if (known) return success(known)
  const expansion = expandCourse({
    template,
    facts,
    groupings: units,
    repetitions,
    mintFrom: course.id,
  })
  if (!expansion.ok) return expansion
  const expectation: Expectation = { expected: expansion.value, groupings }
  worked?.set(key, expectation)
  return success(expectation)
}

/** @param own tells what is the template’s own; null: everything is the course’s */
const judge = (check: Check, own: OfTemplate | null): Result<CheckResult> => {
  const { template, facts, course, asOf } = check
  const badPolicies = policyProblems(template)
  if (badPolicies.length > 0) return failure(badPolicies)
  const worked = expectationFor(check)
  if (!worked.ok) return worked
  const { expected, groupings } = worked.value

  const read = check.pageOf ?? analysePage
  const pages = new Map<string, PageFacts>()
  const pageOf = (item: CourseItem): PageFacts | null => {
    if (item.html === null) return null
    let page = pages.get(item.id)
    if (!page) pages.set(item.id, (page = read(item.html)))
    return page
  }
  const pairing = pairCourse(expected, course, pageOf, check.joins)
  const context = new CheckContext({
    expected,
    course,
    pairing,
    groupings,
    asOf,
    pageOf,
    history: check.history ?? null,
    ...(check.notThisWeek ? { notThisWeek: check.notThisWeek } : {}),
    ...(check.clashes ? { clashes: check.clashes } : {}),
  })

  const outcomes: Outcome[] = []
  const told: OpenRequirement[] = []
  let inapplicable = 0
  let met = 0
  const policyOf = new Map(template.policies.map((policy) => [policy.rule, policy]))
  const placeOf = placesIn(context)
  for (const rule of rules) {
    const policy = policyOf.get(rule.id)
    if (policy?.off) continue
    for (const verdict of rule.run(context, policy?.parameters)) {
      // Most requirements do not apply to most parts; they are counted, not listed.
      if (verdict.outcome === 'inapplicable') {
        inapplicable += 1
        continue
      }
      const { subject } = verdict
      const strength = weakest(
        policy?.strength ?? rule.strength,
        subject.about === 'part' ? subject.part.strength : undefined,
        verdict.strength,
      )
      const outcome = outcomeOf(
        rule,
        verdict,
        strength,
        placeOf(subject, 'itemId' in verdict ? verdict.itemId : undefined),
      )
      outcomes.push(outcome)
      if (verdict.outcome !== 'passed')
        told.push({
          rule,
          outcome,
          said: verdict.outcome,
          subject,
          discriminator: verdict.discriminator,
          verdict,
        })
      else if (strength !== 'may') met += 1
    }
  }
  resolveAbsent(told, context)
  applySilence(told, context)
  if (check.exemptions) applyExemptions(told, check.exemptions, context)

  const findings = findingsOf(told, context, policyOf, check.exemptions, check.mends ?? true, own)
  const counts = countsOf(told, findings, { met, inapplicable })
  const untoldMusts = told.some(
    ({ outcome }) =>
      outcome.outcome === 'cannot-tell' &&
      outcome.strength === 'must' &&
      outcome.attestedBy === undefined,
  )
  return success({
    schema: 'wickerframe.check/1',
    template: { key: template.key, title: template.title, version: template.version ?? null },
    course: { id: course.id, name: course.name, code: facts.code, readAt: course.readAt },
    asOf,
    holds: own ? holdTogether(context.holds, own.holds()) : context.holds,
    readiness: counts.openMusts > 0 ? 'not-ready' : untoldMusts ? 'ready-as-far-as-seen' : 'ready',
    counts,
    outcomes,
    findings,
    pairs: pairing.pairs.map((pair) => pairRecord(pair, context)),
    missing: pairing.missing,
    extra: pairing.extra,
    merged: pairing.merged,
    split: pairing.split,
    lapsed: pairing.lapsed,
  })
}

/**
 * Checks one course against its template. Pure: the same template, facts, snapshot and as-of date give the same
 * outcomes in the same order. What a course just deployed and filled in perfectly would be told as well is the designer’s to mend.
 * @returns the result, or why the documents do not fit together
 */
export const checkCourse = (check: Check): Result<CheckResult> =>
  judge(
    check,
    ofTemplate(check, (first) => judge({ ...first, mends: false }, null)),
  )

/** The requirements of a course are the same in every check of it, and so are their fingerprints. */
const fingerprintOf = remember(20_000, (requirement: string): string => shortHash(requirement))

const outcomeOf = (
  rule: AnyRule,
  verdict: Exclude<Verdict, { outcome: 'inapplicable' }>,
  strength: Strength,
  place: Place,
): Outcome => ({
  rule: rule.id,
  fingerprint:
    verdict.outcome === 'passed'
      ? ''
      : fingerprintOf(`${rule.id}|${subjectKey(verdict.subject)}|${verdict.discriminator ?? ''}`),
  strength,
  outcome: verdict.outcome === 'absent' ? 'untested' : verdict.outcome,
  place,
  reason:
    verdict.outcome === 'cannot-tell'
      ? verdict.reason
      : verdict.outcome === 'not-due-yet'
        ? `due ${verdict.dueOn}`
        : null,
  toldBy: null,
})

const countsOf = (
  told: readonly OpenRequirement[],
  findings: readonly Finding[],
  { met, inapplicable }: { met: number; inapplicable: number },
): Counts => {
  // What is for information only, waived or attested is no open requirement.
  const count: Record<Outcome['outcome'], number> = {
    passed: met,
    failed: 0,
    'cannot-tell': 0,
    'not-due-yet': 0,
    inapplicable,
    untested: 0,
  }
  let waived = 0
  let attested = 0
  for (const { outcome: one } of told) {
    if (one.waivedBy !== undefined) waived += 1
    else if (one.attestedBy !== undefined) attested += 1
    else if (one.strength !== 'may') count[one.outcome] += 1
  }
  const open = (strength: Strength) =>
    findings.filter(
      (finding) =>
        finding.strength === strength && finding.places.some((place) => place.waived === null),
    ).length
  return {
    requirements: count.passed + count.failed,
    met: count.passed,
    openMusts: open('must'),
    openShoulds: open('should'),
    waived,
    attested,
    cannotTell: count['cannot-tell'],
    notDueYet: count['not-due-yet'],
    inapplicable: count.inapplicable + count.untested,
  }
}
