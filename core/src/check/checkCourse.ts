import { addDays, instructionalWeeks } from '../calendar/index.ts'
import type { CohortClash, Course, CourseHistory, CourseItem, Facts } from '../course/index.ts'
import {
  failure,
  readDocument,
  shortHash,
  success,
  type Problem,
  type Result,
} from '../document/index.ts'
import {
  expandCourse,
  knownRepetitions,
  type ExpectedCourse,
  type ExpectedPart,
} from '../expand/index.ts'
import { analysePage, type PageFacts } from '../page/index.ts'
import { pairCourse, readGroupings, type Join, type Pair } from '../pair/index.ts'
import { remember } from '../remember/index.ts'
import {
  CheckContext,
  fillMessage,
  ruleById,
  rules,
  type AnyRule,
  type Subject,
  type Verdict,
} from '../rules/index.ts'
import type { Strength, Template } from '../template/index.ts'
import { harmlessMend } from './harmlessMend.ts'
import { compareFindings } from './compareFindings.ts'
import { attestationFor, waiverFor, type Exemptions } from './exemption.ts'
import type { CheckResult, Counts, Finding, FindingPlace, Outcome, Place } from './outcome.ts'
import { silence } from './silence.ts'

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

const order: Record<Strength, number> = { must: 2, should: 1, may: 0 }
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
  const least = Math.min(
    order[rule],
    part === undefined ? 2 : order[part],
    block === undefined ? 2 : order[block],
  )
  return least === 2 ? 'must' : 'should'
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

/** A requirement that is not simply met, with what its rule says of it. */
interface OpenRequirement {
  rule: AnyRule
  outcome: Outcome
  /** What the verdict says of which requirement. Verdicts are of many shapes, and this is asked of all of them again and again. */
  said: Verdict['outcome']
  subject: Subject
  discriminator: string | undefined
  verdict: Exclude<Verdict, { outcome: 'passed' | 'inapplicable' }>
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

/**
 * Checks one course against its template. Pure: the same template, facts, snapshot and as-of date give the same
 * outcomes in the same order.
 * @returns the result, or why the documents do not fit together
 */
export const checkCourse = (check: Check): Result<CheckResult> => {
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

  const findings = findingsOf(told, context, policyOf, check.exemptions)
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
    holds: context.holds,
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

/** The requirements of a course are the same in every check of it, and so are their fingerprints. */
/** What a finding is known by: the rule, and what its places have in common (a part, or what the rule calls together). */
export const findingFingerprint = (rule: string, together: string): string =>
  shortHash(`${rule}|${together}`)

const fingerprintOf = remember(20_000, (requirement: string): string => shortHash(requirement))

const subjectKey = (subject: Subject): string =>
  subject.about === 'part'
    ? subject.part.instance
    : subject.about === 'found'
      ? `found:${subject.id}`
      : 'course'

/** Where requirements stand. Many are about the same part, and share their place. */
const placesIn = (
  context: CheckContext,
): ((subject: Subject, itemId: string | undefined) => Place) => {
  const ofParts = new Map<ExpectedPart, Place>()
  const others = new Map<string, Place>()
  const known = <K>(
    places: Map<K, Place>,
    key: K,
    subject: Subject,
    itemId: string | undefined,
  ): Place => {
    let place = places.get(key)
    if (!place) places.set(key, (place = workOutPlace(subject, itemId, context)))
    return place
  }
  return (subject, itemId) =>
    subject.about === 'part' &&
    (itemId === undefined || context.pairOf(subject.part)?.found === itemId)
      ? known(ofParts, subject.part, subject, itemId)
      : known(others, `${subjectKey(subject)} ${itemId ?? ''}`, subject, itemId)
}

const workOutPlace = (
  subject: Subject,
  itemId: string | undefined,
  context: CheckContext,
): Place => {
  const part = subject.about === 'part' ? subject.part : null
  const foundId =
    itemId ??
    (subject.about === 'found' ? subject.id : part ? (context.pairOf(part)?.found ?? null) : null)
  const placed = foundId === null ? null : context.placed(foundId)
  const module = placed ? placed.module : foundId === null ? null : context.moduleById(foundId)
  const parent = part?.parent ? context.partAt(part.parent) : null
  const outer = module?.name ?? (parent ? (context.moduleFor(parent)?.name ?? parent.name) : null)
  const inner = placed?.item.name ?? (part && part.kind !== 'module' ? part.name : null)
  const path = [outer ?? (part?.kind === 'module' ? part.name : null), inner].flatMap(
    (name) => name ?? [],
  )
  const week = part?.values.week ?? null
  return {
    path: path.length > 0 ? path : [context.course.name],
    part: part?.key ?? null,
    instance: part?.instance ?? null,
    week: typeof week === 'number' ? week : null,
    foundId,
  }
}

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

/** What cannot be met because its part is missing is not met, told by the missing part; if the part may be missing, it does not apply. */
const resolveAbsent = (told: OpenRequirement[], context: CheckContext): void => {
  const tellers = new Map<string, Outcome>()
  const missing = new Set([
    'module-missing',
    'item-missing',
    'home-page-set',
    'home-element-missing',
  ])
  for (const { rule, said, subject, discriminator, outcome } of told)
    if (said === 'failed' && missing.has(rule.id))
      tellers.set(
        rule.id === 'home-element-missing'
          ? `${subjectKey(subject)}/${discriminator}`
          : rule.id === 'home-page-set'
            ? context.expected.home.instance
            : subjectKey(subject),
        outcome,
      )
  for (const { said, subject, discriminator, outcome } of told) {
    if (said !== 'absent') continue
    const part = subject.about === 'part' ? subject.part : null
    let teller = part
      ? (tellers.get(`${part.instance}/${discriminator}`) ?? tellers.get(part.instance))
      : undefined
    for (
      let at = context.partAt(part?.parent ?? null);
      at && !teller;
      at = context.partAt(at.parent)
    )
      teller = tellers.get(at.instance)
    const there = part ? context.itemFor(part) : null
    const notRead = there ? (context.pageOf(there.item)?.notRead ?? null) : null
    if (notRead !== null && there) {
      outcome.outcome = 'cannot-tell'
      outcome.reason = `“${there.item.name}” could not be read: ${notRead}.`
      continue
    }
    outcome.outcome = teller ? 'failed' : 'inapplicable'
    outcome.toldBy = teller?.fingerprint ?? null
  }
}

/** What a teller may speak of, so that it silences what is said of a subject. */
const keysInScope = (
  scope: (typeof silence)[number]['scope'],
  subject: Subject,
  context: CheckContext,
): string[] => {
  if (scope === 'same') return [subjectKey(subject)]
  if (scope === 'course') return ['course']
  if (subject.about !== 'part') return []
  const standsIn = context.itemFor(subject.part)?.module
  return [subject.part.parent, standsIn && context.partOf(standsIn.id)?.instance].flatMap(
    (key) => key ?? [],
  )
}

const applySilence = (told: OpenRequirement[], context: CheckContext): void => {
  const open = new Map<string, { outcome: Outcome; message: string }>()
  for (const { rule, verdict, subject, outcome } of told)
    if (verdict.outcome === 'failed')
      open.set(`${rule.id}|${subjectKey(subject)}`, { outcome, message: verdict.message })
  for (const { rule, said, subject, outcome } of told) {
    if (said !== 'failed') continue
    for (const entry of silence) {
      if (entry.silent !== rule.id) continue
      const teller = keysInScope(entry.scope, subject, context)
        .map((key) => open.get(`${entry.teller}|${key}`))
        .find((found) => found !== undefined)
      if (teller && teller.message !== entry.unless) outcome.toldBy = teller.outcome.fingerprint
    }
  }
}

/** Takes what is waived or attested out of what is open; it stays visible. */
const applyExemptions = (
  told: readonly OpenRequirement[],
  { waivers, attestations }: Exemptions,
  context: CheckContext,
): void => {
  const asOf = {
    reached: (date: string) => context.reached(date),
    dayAfter: (date: string) => addDays(date, 1),
  }
  const waivedBy = new Map<string, string>()
  for (const { outcome } of told) {
    if (outcome.outcome !== 'failed' && outcome.outcome !== 'cannot-tell') continue
    const attestation = attestationFor(attestations, outcome.rule, outcome.fingerprint, asOf)
    if (attestation) outcome.attestedBy = attestation.id
    else if (outcome.outcome === 'failed') {
      const waiver = waiverFor(waivers, outcome.rule, outcome.fingerprint, asOf)
      if (!waiver) continue
      outcome.waivedBy = waiver.id
      waivedBy.set(outcome.fingerprint, waiver.id)
    }
  }
  // What a waived finding tells for others is waived with it.
  for (const { outcome } of told) {
    const teller =
      outcome.toldBy === null || outcome.waivedBy !== undefined
        ? undefined
        : waivedBy.get(outcome.toldBy)
    if (teller !== undefined) outcome.waivedBy = teller
  }
}

const findingsOf = (
  told: readonly OpenRequirement[],
  context: CheckContext,
  policies: ReadonlyMap<string, Template['policies'][number]>,
  exemptions: Exemptions | undefined,
): Finding[] => {
  const owner = context.expected.facts.owner ?? context.expected.facts.instructors[0]?.email ?? null
  const groups = new Map<
    string,
    {
      rule: AnyRule
      strength: Strength
      together: string
      basis: string | null
      places: FindingPlace[]
      values: Readonly<Record<string, string>>[]
    }
  >()
  for (const { rule, verdict, outcome } of told) {
    if (verdict.outcome !== 'failed' || outcome.toldBy !== null || outcome.attestedBy !== undefined)
      continue
    const { subject } = verdict
    const together =
      verdict.together ?? (subject.about === 'part' ? subject.part.key : subjectKey(subject))
    const waiver = exemptions?.waivers.find((waiver) => waiver.id === outcome.waivedBy) ?? null
    const digest = shortHash(JSON.stringify(verdict.evidence))
    const key = `${rule.id}|${verdict.message}|${together}|${outcome.strength}|${waiver?.id ?? ''}`
    const wanted = rule.mend?.(verdict, context) ?? []
    const safe = wanted.length > 0 ? harmlessMend(wanted, context) : { changes: [] }
    const place: FindingPlace = {
      fingerprint: outcome.fingerprint,
      place: outcome.place,
      says: verdict.message,
      message: fillMessage(rule.messages[verdict.message] ?? verdict.message, verdict.values),
      evidence: [...verdict.evidence],
      expected: verdict.expected,
      mend: 'changes' in safe && safe.changes.length > 0 ? safe.changes : null,
      ...('refusal' in safe ? { refusal: safe.refusal } : {}),
      digest,
      waived: waiver && {
        id: waiver.id,
        reason: waiver.reason,
        until: waiver.until,
        changedSince: waiver.evidence !== null && waiver.evidence !== digest,
      },
    }
    const basis =
      policies.get(rule.id)?.basis ??
      (subject.about === 'part' ? subject.part.definition.basis : undefined) ??
      null
    const group = groups.get(key)
    if (group) {
      group.places.push(place)
      group.values.push(verdict.values)
    } else
      groups.set(key, {
        rule,
        strength: outcome.strength,
        together,
        basis,
        places: [place],
        values: [verdict.values],
      })
  }
  return [...groups.values()]
    .map(({ rule, strength, together, basis, places, values }): Finding => ({
      fingerprint: findingFingerprint(rule.id, together),
      rule: rule.id,
      title: rule.title,
      strength,
      message: sayAll(rule, places, values),
      why: rule.why,
      mender: rule.mender,
      owner: rule.mender === 'instructor' ? owner : null,
      effortMinutes: rule.effortMinutes * places.length,
      basis,
      places,
    }))
    .sort(compareFindings)
}

/** The sentence of a finding: that of its first place, and where else; or one that lists what each place says. */
const sayAll = (
  { several }: AnyRule,
  places: readonly FindingPlace[],
  values: readonly Readonly<Record<string, string>>[],
): string => {
  const [first, ...rest] = places
  if (several && rest.length > 0)
    return fillMessage(several.message, {
      ...values[0],
      list: listed(values.map((value) => value[several.lists] ?? '')),
    })
  return (first?.message ?? '') + alsoIn(first, rest)
}

/** `4, 5 and 6` */
const listed = (items: readonly string[]): string =>
  items.length > 1 ? `${items.slice(0, -1).join(', ')} and ${items.at(-1)}` : (items[0] ?? '')

const mostNamed = 3
/** ` The same in 3 more places: weeks 4, 5 and 6.` A place that has several is named once, with how many. */
const alsoIn = (first: FindingPlace | undefined, rest: readonly FindingPlace[]): string => {
  if (rest.length === 0) return ''
  const nameOf = ({ place }: FindingPlace): string => `“${place.path.at(-1)}”`
  const weeks = rest.flatMap(({ place }) => place.week ?? [])
  const count = new Map<string, number>()
  for (const place of rest) count.set(nameOf(place), (count.get(nameOf(place)) ?? 0) + 1)
  const names = [...count].map(([name, times]) => (times > 1 ? `${name} (${times})` : name))
  if (first && count.size === 1 && count.has(nameOf(first)))
    return rest.length === 1
      ? ' The same once more there.'
      : ` The same ${rest.length} times more there.`
  const where =
    weeks.length === rest.length && new Set(weeks).size === weeks.length
      ? `${weeks.length === 1 ? 'week' : 'weeks'} ${listed(weeks.map(String))}`
      : names.length > mostNamed
        ? `${names.slice(0, mostNamed).join(', ')} and others`
        : listed(names)
  return ` The same in ${rest.length} more ${rest.length === 1 ? 'place' : 'places'}: ${where}.`
}

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
