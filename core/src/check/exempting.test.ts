import { describe, expect, it } from 'vitest'
import { courseModule } from '../rules/example/courseParts.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { gradedTemplate } from '../rules/example/gradedTemplate.ts'
import type { ExampleCourse } from '../rules/index.ts'
import { edited } from './edited.testing.ts'
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
  it('is one place of several: the finding stays open for the others', () => {
    const open = checked(
      edited(({ module }) => {
        module('week', 3).name = 'wk 3'
        module('week', 4).name = 'wk 4'
      }),
    )
    const [finding] = open.findings
    expect([open.findings.length, finding?.places.length, finding?.strength]).toEqual([
      1,
      2,
      'should',
    ])
    const given = (places: number) =>
      checked(
        edited(({ module }) => {
          module('week', 3).name = 'wk 3'
          module('week', 4).name = 'wk 4'
        }),
        {
          waivers: (finding?.places ?? [])
            .slice(0, places)
            .map(({ fingerprint }, i) => ({
              ...waiverOf(finding?.rule ?? '', fingerprint),
              id: `w${i}`,
            })),
        },
      ).counts.openShoulds
    expect([given(0), given(1), given(2)]).toEqual([1, 1, 0])
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
  it('is waived through what it tells of what that tells', () => {
    // A course reused from last term: dates of another term, which are outside this one, and outside the week they stand in.
    const shown = edited(({ item }) => void (item('quiz', 3).dueAt = '2025-09-18T03:59:00Z'))
    const open = checked(shown)
    const [finding] = open.findings
    const place = finding?.places[0]
    if (!finding || !place) throw new Error('it is due in another year')
    const silent = open.outcomes.filter(({ toldBy }) => toldBy !== null)
    const byAnother = silent.filter(({ toldBy }) => toldBy !== place.fingerprint)
    expect(byAnother.length).toBeGreaterThan(0)
    const waived = checked(shown, { waivers: [waiverOf(finding.rule, place.fingerprint)] })
    expect(waived.counts.waived).toBe(silent.length + 1)
    expect(waived.counts.requirements).toBe(waived.counts.met)
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

describe('somebody’s word in a check', () => {
  const wordFor = ({ rule, fingerprint }: { rule: string; fingerprint: string }) => ({
    id: 'a1',
    rule,
    fingerprint,
    by: 'sunniva.drake@kestrelsound.example',
    on: '2026-09-10',
    until: null,
    words: 'I looked: it is in order',
  })
  it('settles what could not be told, and holds against nothing that is seen later', () => {
    const untold = edited(({ item }) => void (item('home-page').html = null))
    const unseen = checked(untold).outcomes.filter(({ outcome }) => outcome === 'cannot-tell')
    expect(unseen.map(({ rule }) => rule)).toContain('fill-in-unfilled')
    const attestations = unseen.map((outcome, i) => ({ ...wordFor(outcome), id: `a${i}` }))
    const settled = checked(untold, { attestations })
    expect([settled.readiness, settled.counts.cannotTell, settled.counts.attested]).toEqual([
      'ready',
      0,
      unseen.length,
    ])
    // The page is told again: nobody filled it in.
    const seen = edited(({ item }) => {
      const home = item('home-page')
      home.html = (home.html ?? '').replace(
        'Tuesdays 10 to 11, room 4',
        'When can students see you?',
      )
    })
    const after = checked(seen, { attestations })
    expect(after.findings.map(({ rule }) => rule)).toEqual(['fill-in-unfilled'])
    expect([after.readiness, after.counts.attested]).toEqual(['not-ready', 0])
  })
  it('settles what asks for a word, before what somebody excused', () => {
    const shown = exampleCourse(gradedTemplate())
    const asked = checked(shown).outcomes.find(({ rule }) => rule === 'tool-not-attested')
    if (!asked) throw new Error('the template has a tool')
    const attested = checked(shown, {
      waivers: [waiverOf(asked.rule, asked.fingerprint)],
      attestations: [wordFor(asked)],
    })
    const outcome = attested.outcomes.find(({ fingerprint }) => fingerprint === asked.fingerprint)
    expect([outcome?.attestedBy, outcome?.waivedBy, attested.counts.attested]).toEqual([
      'a1',
      undefined,
      1,
    ])
  })
  it('settles nothing that is seen to be wrong', () => {
    const open = checked(withoutWeek())
    const wrong = open.outcomes.filter(({ outcome }) => outcome === 'failed')
    expect(checked(withoutWeek(), { attestations: wrong.map(wordFor) })).toEqual(open)
  })
})
