import {
  checkCourse,
  everyExpected,
  expectationFor,
  type CheckResult,
  type ExpectedPart,
} from '@wickerframe/core'
import { placeKey } from './editedCourse.ts'
import type { CorpusCase } from './corpus.ts'

/** Right ones among those told, and among those that are true. */
export interface Tally {
  right: number
  told: number
  wanted: number
}
export const noTally = (): Tally => ({ right: 0, told: 0, wanted: 0 })
export const together = (a: Tally, b: Tally): Tally => ({
  right: a.right + b.right,
  told: a.told + b.told,
  wanted: a.wanted + b.wanted,
})
export const precisionOf = ({ right, told }: Tally): number => (told === 0 ? 1 : right / told)
export const recallOf = ({ right, wanted }: Tally): number => (wanted === 0 ? 1 : right / wanted)
export const f1Of = (score: Tally): number =>
  score.told + score.wanted === 0 ? 1 : (2 * score.right) / (score.told + score.wanted)

/** Findings of one rule: rightly told, not told, told wrongly. */
export interface RuleScore {
  found: number
  missed: number
  wrong: number
}

export interface CaseScore {
  pairing: Tally
  findings: Tally
  rules: Map<string, RuleScore>
  /** Musts that are told of what is in order. */
  falseMusts: number
  /** What went wrong, in words, for people who work on the engine. */
  wrong: string[]
  /** Confidence of each pair told by evidence, and whether it was right. */
  confidences: { confidence: number; right: boolean }[]
}

/** The as-of date at which everything is due: the first day of the last week. */
const lastWeekOf = (weeks: readonly { first: string }[], fallback: string): string =>
  weeks.at(-1)?.first ?? fallback

/** Measures pairing and findings of one edited course against its truth. */
export const scoreCase = (given: CorpusCase): CaseScore => {
  const worked = expectationFor(given)
  if (!worked.ok) throw new Error(JSON.stringify(worked.problems))
  const { expected } = worked.value
  const parts = [expected.home, ...everyExpected(expected.parts)]
  const byInstance = new Map(parts.map((part) => [part.instance, part]))
  const placeOf = (part: ExpectedPart): string =>
    placeKey(part, byInstance.get(part.parent ?? '') ?? null)
  const checked = checkCourse({
    ...given,
    asOf: lastWeekOf(expected.weeks, given.facts.term.lastDay),
  })
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems))
  const wrong: string[] = []

  const pairing = noTally()
  const confidences: CaseScore['confidences'] = []
  const answered = new Set<string>()
  for (const pair of checked.value.pairs) {
    const part = byInstance.get(pair.expected)
    if (!part) continue
    const place = placeOf(part)
    const right = given.truth.pairs.get(place)?.has(pair.found) ?? false
    pairing.told += 1
    if (right) {
      pairing.right += 1
      answered.add(place)
    } else
      wrong.push(`pair ${place} → ${pair.found} (${pair.confidence}: ${pair.reasons.join(', ')})`)
    if (pair.by === 'evidence') confidences.push({ confidence: pair.confidence, right })
  }
  const wantedPlaces = parts
    .filter(
      (part) => given.truth.pairs.has(placeOf(part)) && !(part.inBreak && part.kind !== 'module'),
    )
    .map(placeOf)
  // Two weeks in one module: one pair of the two can be told, and the rest as merged.
  const merged = new Set(
    (checked.value.merged ?? []).flatMap((group) =>
      group.expected.flatMap((instance) => {
        const part = byInstance.get(instance)
        return part && given.truth.pairs.get(placeOf(part))?.has(group.found) ? [placeOf(part)] : []
      }),
    ),
  )
  for (const place of merged)
    if (!answered.has(place)) {
      answered.add(place)
      pairing.right += 1
      pairing.told += 1
    }
  pairing.wanted = new Set([...wantedPlaces, ...answered]).size
  for (const place of wantedPlaces)
    if (!answered.has(place))
      wrong.push(`not paired ${place} (${[...(given.truth.pairs.get(place) ?? [])].join(', ')})`)

  const rules: CaseScore['rules'] = new Map()
  const { findings, falseMusts } = scoreFindings(
    checked.value,
    given,
    (instance) => {
      const part = byInstance.get(instance)
      return part ? placeOf(part) : instance
    },
    wrong,
    rules,
  )
  return { pairing, findings, rules, falseMusts, wrong, confidences }
}

const dueRules = new Set([
  'due-outside-term',
  'other-term-date',
  'due-outside-module',
  'availability-window',
])

const scoreFindings = (
  result: CheckResult,
  { truth }: CorpusCase,
  placeOf: (instance: string) => string,
  wrong: string[],
  rules: CaseScore['rules'],
): { findings: Tally; falseMusts: number } => {
  const count = (given: string, what: keyof RuleScore) => {
    const [rule = ''] = given.split(' ')
    const score = rules.get(rule) ?? { found: 0, missed: 0, wrong: 0 }
    score[what] += 1
    rules.set(rule, score)
  }
  const told = new Map(
    result.findings
      .filter((finding) => finding.strength !== 'may')
      .flatMap((finding) =>
        finding.places.map(
          ({ place }) =>
            [
              `${finding.rule} ${place.instance === null ? (place.foundId ?? 'course') : placeOf(place.instance)}`,
              finding.strength,
            ] as const,
        ),
      ),
  )
  // A rule may tell of the same by the place or by the id of what stands there.
  const ids = new Map([
    ...result.pairs.map((pair) => [pair.found, placeOf(pair.expected)] as const),
    ...[...truth.pairs].flatMap(([place, known]) => [...known].map((id) => [id, place] as const)),
  ])
  const same = (given: string): string[] => {
    const [rule = '', ...rest] = given.split(' ')
    const at = rest.join(' ')
    return [
      given,
      ...(truth.sameAs.has(given) ? [truth.sameAs.get(given) ?? given] : []),
      `${rule} ${ids.get(at) ?? at}`,
      ...[...ids].filter(([, place]) => place === at).map(([id]) => `${rule} ${id}`),
    ]
  }
  const score = noTally()
  score.wanted = truth.findings.size
  const found = new Set<string>()
  let falseMusts = 0
  for (const [given, strength] of told) {
    const [rule = ''] = given.split(' ')
    const hit =
      same(given).find((key) => truth.findings.has(key)) ??
      (dueRules.has(rule)
        ? same(given)
            .map((key) => key.replace(rule, 'due'))
            .find((key) => truth.findings.has(key))
        : undefined)
    if (hit !== undefined) found.add(hit)
    else if (!same(given).some((key) => truth.either.has(key))) {
      score.told += 1
      if (strength === 'must') falseMusts += 1
      count(given, 'wrong')
      wrong.push(`told ${given}`)
    }
  }
  score.right = found.size
  score.told += found.size
  for (const finding of truth.findings) {
    count(finding, found.has(finding) ? 'found' : 'missed')
    if (!found.has(finding)) wrong.push(`untold ${finding}`)
  }
  return { findings: score, falseMusts }
}
