import { describe, expect, it } from 'vitest'
import { courseModule } from '../rules/example/courseParts.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import type { ExampleCourse } from '../rules/index.ts'
import { checkCourse, type CheckResult, type Exemptions } from './index.ts'

const asOf = '2026-09-16'
const checked = (shown: ExampleCourse, given: Partial<Exemptions> = {}): CheckResult => {
  const result = checkCourse({
    ...shown,
    asOf,
    exemptions: { waivers: [], attestations: [], ...given },
  })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}
const edited = (change: (example: ExampleCourse) => void): ExampleCourse => {
  const example = exampleCourse()
  change(example)
  return example
}
/** The example without its third week, whose parts are missing with it. */
const withoutWeek = () =>
  edited(
    ({ course, module }) =>
      void course.modules.splice(course.modules.indexOf(module('week', 3)), 1),
  )
const waiverOf = (rule: string, fingerprint: string) => ({
  id: 'w1',
  scope: 'place' as const,
  rule,
  part: null,
  week: null,
  fingerprint,
  evidence: null,
  from: '2026-09-01',
  until: null,
  reason: 'No class that week',
})

describe('what is waived in a check', () => {
  it('is waived with all that its finding tells for others, and out of the count', () => {
    const open = checked(withoutWeek())
    const [finding] = open.findings
    const place = finding?.places[0]
    if (!finding || !place) throw new Error('the module is missing')
    const told = open.outcomes.filter(({ toldBy }) => toldBy === place.fingerprint)
    expect(told.length).toBeGreaterThan(3)
    expect(open.counts.waived).toBe(0)
    const waived = checked(withoutWeek(), { waivers: [waiverOf(finding.rule, place.fingerprint)] })
    expect(waived.counts.openMusts).toBe(0)
    expect(waived.counts.waived).toBe(told.length + 1)
    expect(new Set(waived.outcomes.flatMap(({ waivedBy }) => waivedBy ?? []))).toEqual(
      new Set(['w1']),
    )
    expect([open.readiness, waived.readiness]).toEqual(['not-ready', 'ready'])
    // It stays to be seen, with who excused it.
    expect(waived.findings[0]?.places[0]?.waived?.id).toBe('w1')
  })
  it('is nothing else: what another finding tells stays open', () => {
    const open = checked(withoutWeek())
    const other = checked(withoutWeek(), { waivers: [waiverOf('module-missing', 'elsewhere')] })
    expect(other.counts).toEqual(open.counts)
    expect(other.outcomes).toEqual(open.outcomes)
  })
  it('is never what cannot be told: nobody knows what would be excused', () => {
    // Units in place of weeks: which weeks they cover nobody said.
    const shown = edited(({ course }) => {
      course.modules = [
        ...course.modules.slice(0, 1),
        ...[1, 2, 3, 4].map((n) => courseModule(`u${n}`, `Unit ${n}`)),
      ]
    })
    const unseen = checked(shown).outcomes.find(({ outcome }) => outcome === 'cannot-tell')
    if (!unseen) throw new Error('it cannot be told')
    const waived = checked(shown, { waivers: [waiverOf(unseen.rule, unseen.fingerprint)] })
    const after = waived.outcomes.find(({ fingerprint }) => fingerprint === unseen.fingerprint)
    expect([after?.outcome, after?.waivedBy]).toEqual(['cannot-tell', undefined])
  })
  it('is what somebody answers for, before it is what somebody excused', () => {
    const open = checked(withoutWeek())
    const [finding] = open.findings
    const place = finding?.places[0]
    if (!finding || !place) throw new Error('the module is missing')
    const attested = checked(withoutWeek(), {
      waivers: [waiverOf(finding.rule, place.fingerprint)],
      attestations: [
        {
          id: 'a1',
          rule: finding.rule,
          fingerprint: place.fingerprint,
          by: 'sunniva.drake@kestrelsound.example',
          on: '2026-09-10',
          until: null,
          words: 'It is taught on the quay.',
        },
      ],
    })
    const outcome = attested.outcomes.find(({ fingerprint }) => fingerprint === place.fingerprint)
    expect([outcome?.attestedBy, outcome?.waivedBy]).toEqual(['a1', undefined])
    expect(attested.counts.attested).toBe(1)
  })
  it('is nothing that is met: a waiver in advance changes nothing before it is needed', () => {
    const met = checked(edited(() => undefined))
    const rule = met.outcomes.find(({ outcome }) => outcome === 'passed')?.rule ?? 'module-missing'
    const waived = checked(
      edited(() => undefined),
      { waivers: [{ ...waiverOf(rule, 'x'), scope: 'rule', fingerprint: null }] },
    )
    expect(waived).toEqual(met)
  })
})
