import { describe, expect, it } from 'vitest'
import { instructionalWeeks } from '../calendar/index.ts'
import type { CheckResult, Finding } from '../check/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import type { ExampleCourse } from '../rules/index.ts'
import { checked, hideWeek3 } from './checked.testing.ts'
import {
  byWhen,
  findingsOf,
  isOpenMust,
  mendFirst,
  openMendsOf,
  openMustsOf,
  standsIn,
} from './index.ts'

const mustsOf = ({ course, findings }: CheckResult) => ({ course, musts: openMustsOf(findings) })

describe('mend first', () => {
  it('puts first what brings most courses to ready, and leaves out what is waived', () => {
    const of = (id: string, { result }: ReturnType<typeof checked>) => ({
      course: { ...result.course, id },
      musts: openMustsOf(result.findings),
    })
    const actions = mendFirst([
      of('a', checked(hideWeek3)),
      of('b', checked(hideWeek3)),
      of(
        'c',
        checked(({ course }) => void (course.published = false)),
      ),
    ])
    expect(actions[0]).toMatchObject({
      rule: 'must-part-hidden',
      courses: ['a', 'b'],
      becomeReady: 2,
    })
    const waiver = {
      id: 'w',
      scope: 'rule',
      part: null,
      week: null,
      rule: 'must-part-hidden',
      fingerprint: null,
      evidence: null,
      from: '2026-09-01',
      until: null,
      reason: 'agreed',
    } as const
    expect(
      mendFirst([
        of('a', checked(hideWeek3, { exemptions: { waivers: [waiver], attestations: [] } })),
      ]),
    ).toEqual([])
  })
})

describe('by when', () => {
  const weeks = instructionalWeeks({ term: exampleCourse().facts.term })
  const broken = (...numbers: number[]) => {
    const { result } = checked(({ module }) => {
      for (const week of numbers) module('week', week).children.pop()
    })
    return result.findings
  }
  const byWhenOf = (findings: readonly Finding[], today: string) => {
    const [first] = openMustsOf(findings)
    if (!first) throw new Error('nothing is found')
    return byWhen(first, weeks, today)
  }
  it('is the first day of the earliest week in which it is open', () => {
    expect(byWhenOf(broken(4, 6), '2026-09-16')).toBe('2026-09-21')
    expect(byWhenOf(broken(6, 7), '2026-09-16')).toBe('2026-10-05')
  })
  it('is now, where students are in that week or past it, or it stands in none', () => {
    expect(byWhenOf(broken(2, 6), '2026-09-16')).toBeNull()
    expect(byWhenOf(broken(4, 6), '2026-09-21')).toBeNull()
    const { result } = checked(({ course }) => void (course.published = false))
    expect(byWhenOf(result.findings, '2026-09-16')).toBeNull()
  })
  it('does not ask for what is waived', () => {
    const [finding, ...others] = broken(2, 6)
    if (!finding) throw new Error('nothing is found')
    const waived = { id: '1', reason: 'so', until: null, changedSince: false }
    const places = finding.places.map((place) =>
      place.place.week === 2 ? { ...place, waived } : place,
    )
    expect(byWhenOf([{ ...finding, places }, ...others], '2026-09-16')).toBe('2026-10-05')
  })
})

describe('one thing to mend', () => {
  it('is found again in each course by its rule and part, with what is open of it', () => {
    const { result } = checked(({ module, item }) => {
      for (const week of [2, 3]) module('week', week).children.pop()
      item('assignment', 2).dueAt = null
    })
    const [action] = mendFirst([mustsOf(result)])
    if (!action) throw new Error('nothing to mend')
    const found = findingsOf(result.findings, action)
    expect(found.map(({ rule }) => rule)).toEqual([action.rule])
    expect(found.flatMap(({ places }) => places)).toHaveLength(action.places)
    expect(findingsOf(result.findings, { ...action, part: 'another' })).toEqual([])
    const all = mendFirst([mustsOf(result)], 99)
    expect(
      all
        .flatMap((one) => findingsOf(result.findings, one).map(({ fingerprint }) => fingerprint))
        .sort(),
    ).toEqual(
      result.findings
        .filter(isOpenMust)
        .map(({ fingerprint }) => fingerprint)
        .sort(),
    )
  })
  it('is not waived at the places it names', () => {
    const waiver = {
      id: 'w',
      scope: 'place',
      part: null,
      week: null,
      from: '2026-09-01',
      until: null,
      reason: 'agreed',
    } as const
    const hide = ({ module }: ExampleCourse) => {
      for (const week of [2, 3]) module('week', week).children.pop()
    }
    const [finding] = checked(hide).result.findings
    const [first] = finding?.places ?? []
    if (!finding || !first) throw new Error('nothing is found')
    const exemptions = {
      attestations: [],
      waivers: [
        { ...waiver, rule: finding.rule, fingerprint: first.fingerprint, evidence: first.digest },
      ],
    }
    const { result } = checked(hide, { exemptions })
    const [action] = mendFirst([mustsOf(result)])
    expect(action?.places).toBe(1)
    expect(
      findingsOf(result.findings, action ?? { rule: '', part: null }).flatMap(({ places }) =>
        places.map(({ fingerprint }) => fingerprint),
      ),
    ).toEqual(finding.places.slice(1).map(({ fingerprint }) => fingerprint))
  })
})

describe('what is kept of findings for pictures of the whole college', () => {
  const broken = ({ module, item, course }: ExampleCourse) => {
    for (const week of [2, 3]) module('week', week).children.pop()
    module('week', 4).published = false
    item('assignment', 2).dueAt = null
    course.published = false
  }
  const { result } = checked(broken)
  /** The same course with the first place of every finding waived, for its rule at that place. */
  const { result: waived } = checked(broken, {
    exemptions: {
      attestations: [],
      waivers: result.findings.flatMap(({ rule, places: [first] }, index) =>
        first
          ? {
              id: `${index}`,
              scope: 'place' as const,
              part: null,
              week: null,
              rule,
              fingerprint: first.fingerprint,
              evidence: first.digest,
              from: '2026-09-01',
              until: null,
              reason: 'agreed',
            }
          : [],
      ),
    },
  })
  const open = (findings: readonly Finding[]) =>
    findings.flatMap((finding) =>
      finding.places.filter((place) => !place.waived).map((place) => ({ finding, place })),
    )
  it.each([
    ['nothing waived', result],
    ['waivers', waived],
  ])(
    'with %s: every open place of a must stands in it once, with what may be asked of it',
    (_, of) => {
      const musts = openMustsOf(of.findings)
      expect(musts.flatMap(({ places }) => places)).toEqual(
        open(of.findings)
          .filter(({ finding }) => finding.strength === 'must')
          .map(({ place }) => ({
            fingerprint: place.fingerprint,
            week: place.place.week,
            byMachine: place.mend !== null,
          })),
      )
      expect(JSON.parse(JSON.stringify(musts))).toEqual(musts)
      for (const finding of of.findings) {
        const target = { rule: finding.rule, part: finding.places[0]?.place.part ?? null }
        expect(standsIn(musts, target)).toBe(findingsOf(of.findings, target).length > 0)
      }
      expect(standsIn(musts, { rule: 'no-rule', part: null })).toBe(false)
    },
  )
  it.each([
    ['nothing waived', result],
    ['waivers', waived],
  ])(
    'with %s: every open place that Wickerframe can mend stands in it once, under its rule',
    (_, of) => {
      const told = openMendsOf(of.findings).flatMap(({ rule, title, places }) =>
        places.map((place) => ({ rule, title, ...place })),
      )
      const expected = open(of.findings).flatMap(({ finding: { rule, title }, place }) =>
        place.mend
          ? {
              rule,
              title,
              fingerprint: place.fingerprint,
              digest: place.digest,
              message: place.message,
            }
          : [],
      )
      const byPlace = (a: { fingerprint: string }, b: { fingerprint: string }) =>
        a.fingerprint < b.fingerprint ? -1 : 1
      expect(told.sort(byPlace)).toEqual(expected.sort(byPlace))
    },
  )
  it('has something to tell of both, or nothing was tried', () => {
    expect(openMustsOf(result.findings).length).toBeGreaterThan(2)
    expect(openMendsOf(result.findings).length).toBeGreaterThan(0)
    expect(openMustsOf(waived.findings).length).toBeLessThan(openMustsOf(result.findings).length)
  })
})
