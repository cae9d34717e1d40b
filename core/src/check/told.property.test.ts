import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyChanges, documentHand, everyCourseItem } from '../course/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { gradedTemplate } from '../rules/example/gradedTemplate.ts'
import { ruleExamples } from '../rules/example/ruleExamples.testing.ts'
import { rules, type ExampleCourse } from '../rules/index.ts'
import { strengths } from '../template/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import {
  checkCourse,
  mendCourse,
  silence,
  type CheckResult,
  type Exemptions,
  type Outcome,
  type Waiver,
} from './index.ts'

/** Everything that breaks a rule, as the rules' own examples do it; several at once meet each other. */
const faults = [...(await ruleExamples())].flatMap(([rule, { fails }]) =>
  fails.map(({ change }) => ({ rule, change })),
)
/** Where each rule is broken, among the faults. */
const breaking = (rule: string): number[] =>
  faults.flatMap((fault, i) => (fault.rule === rule ? [i] : []))
const cases = fc.record({
  graded: fc.boolean(),
  broken: fc.oneof(
    fc.subarray(
      faults.map((_, i) => i),
      { minLength: 1, maxLength: 6 },
    ),
    fc
      .constantFrom(...silence)
      .chain(({ teller, silent }) =>
        fc.shuffledSubarray([...breaking(teller), ...breaking(silent)], { minLength: 2 }),
      ),
  ),
  policies: fc.uniqueArray(
    fc.record({
      rule: fc.constantFrom(...rules.map(({ id }) => id), ...silence.map(({ teller }) => teller)),
      strength: fc.constantFrom(...strengths),
      off: fc.constant(false),
      parameters: fc.constant({}),
    }),
    { maxLength: 12, selector: ({ rule }) => rule },
  ),
  asOf: fc.constantFrom('2026-08-25', '2026-09-16', '2026-10-20'),
  waived: fc.array(fc.nat(), { maxLength: 3 }),
})
type Case = typeof cases extends fc.Arbitrary<infer T> ? T : never

/** A course with all of the faults, but for what one of them needs and another took away. */
const brokenBy = ({ graded, broken, policies }: Case): ExampleCourse => {
  const shown = exampleCourse(...(graded ? [gradedTemplate()] : []))
  for (const i of broken)
    try {
      faults[i]?.change(shown)
    } catch {
      continue
    }
  shown.template.policies = policies
  // Two faults may have made things under one id, as no platform does.
  const ids = everyCourseItem(shown.course).map(({ item }) => item.id)
  fc.pre(new Set(ids).size === ids.length)
  return shown
}

const checked = (
  shown: ExampleCourse,
  asOf: string,
  exemptions?: Exemptions,
): CheckResult | null => {
  const result = checkCourse({ ...shown, asOf, ...(exemptions ? { exemptions } : {}) })
  return result.ok ? result.value : null
}
const followsAbsence = new Set([
  'module-missing',
  'item-missing',
  'home-page-set',
  'home-element-missing',
])

/** What is told by another, up to the one that is told itself. */
const tellersOf = (result: CheckResult, outcome: Outcome): Outcome[] => {
  const above: Outcome[] = []
  let at: Outcome | undefined = outcome
  while (at && at.toldBy !== null) {
    const teller: string = at.toldBy
    at = result.outcomes.find(
      ({ fingerprint, outcome }) => fingerprint === teller && outcome === 'failed',
    )
    if (!at || above.includes(at)) throw new Error(`${outcome.rule} is told by nobody`)
    above.push(at)
  }
  return above
}

describe('a course of which anything is wrong', () => {
  it('is told of all of it, and is not ready while a must is not met', () => {
    fc.assert(
      fc.property(cases, (given) => {
        const shown = brokenBy(given)
        const result = checked(shown, given.asOf)
        fc.pre(result !== null)
        const told = new Map(
          result.findings.flatMap((finding) =>
            finding.places.map((place) => [place.fingerprint, finding] as const),
          ),
        )
        for (const outcome of result.outcomes) {
          if (outcome.outcome !== 'failed') continue
          const above = tellersOf(result, outcome)
          const last = above.at(-1) ?? outcome
          const finding = told.get(last.fingerprint)
          expect([outcome.rule, last.rule, finding?.rule]).toEqual([
            outcome.rule,
            last.rule,
            last.rule,
          ])
          if (outcome.strength === 'must' && !above.some(({ rule }) => followsAbsence.has(rule)))
            expect([outcome.rule, last.rule, finding?.strength, result.readiness]).toEqual([
              outcome.rule,
              last.rule,
              'must',
              'not-ready',
            ])
        }
      }),
      propertyRuns(),
    )
  })
  it('has nothing open of what is waived, nor of what that tells', () => {
    fc.assert(
      fc.property(cases, (given) => {
        const shown = brokenBy(given)
        const open = checked(shown, given.asOf)
        fc.pre(open !== null && open.findings.length > 0)
        const places = open.findings.flatMap(({ rule, places }) =>
          places.map((place) => ({ rule, place })),
        )
        const waivers = given.waived.flatMap((n, i): Waiver[] => {
          const at = places[n % places.length]
          return at
            ? [
                {
                  id: `w${i}`,
                  scope: 'place',
                  rule: at.rule,
                  part: null,
                  week: null,
                  fingerprint: at.place.fingerprint,
                  evidence: null,
                  from: '2026-08-01',
                  until: null,
                  reason: 'Agreed',
                },
              ]
            : []
        })
        const waived = checked(shown, given.asOf, { waivers, attestations: [] })
        if (!waived) throw new Error('it could be checked')
        const excused = new Set(waivers.map(({ fingerprint }) => fingerprint))
        for (const outcome of waived.outcomes.filter(({ outcome }) => outcome === 'failed')) {
          const last = tellersOf(waived, outcome).at(-1) ?? outcome
          expect([outcome.rule, outcome.waivedBy !== undefined]).toEqual([
            outcome.rule,
            excused.has(last.fingerprint),
          ])
        }
      }),
      propertyRuns(),
    )
  })
  it('has what is mended no more, and is mended by the changes as they are sent', () => {
    fc.assert(
      fc.property(cases, (given) => {
        const shown = brokenBy(given)
        const result = mendCourse({ ...shown, asOf: given.asOf }, () => true)
        fc.pre(result.ok)
        const { mended, left, after, changes, course } = result.value
        const open = new Set(
          after.findings.flatMap(({ places }) => places.map(({ fingerprint }) => fingerprint)),
        )
        expect(
          left.flatMap(({ rule, reason }) => (/all the same/.test(reason) ? [rule] : [])),
        ).toEqual([])
        expect(mended.filter(({ fingerprint }) => open.has(fingerprint))).toEqual([])
        expect(new Set(left.map(({ fingerprint }) => fingerprint))).toEqual(open)
        const sent = applyChanges(shown.course, changes, documentHand(shown.course))
        expect(sent).toMatchObject({ ok: true })
        expect(sent.ok && sent.value.course).toEqual(course)
      }),
      propertyRuns(),
    )
  })
})
