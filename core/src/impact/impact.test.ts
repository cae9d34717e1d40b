import { describe, expect, it } from 'vitest'
import { checkCourse } from '../check/index.ts'
import { bodiesOfBase, emptyBase, keptBodies } from '../plan/index.ts'
import { Standing } from '../plan/standing.testing.ts'
import { exampleCourse, exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import type { Template } from '../template/index.ts'
import {
  courseImpact,
  foreseeRelease,
  movedBetween,
  sumImpacts,
  type CourseImpact,
  type MovedRequirement,
} from './index.ts'

const onDate = '2026-09-16'
const drafted = (edit: (template: Template) => void): Template => {
  const template = { ...exampleTemplate(), version: 2 }
  edit(template)
  return template
}
const withRules = (template: Template): void => {
  const [opening] = template.parts
  if (opening?.kind !== 'module') throw new Error('the example begins with a module')
  const [like] = opening.items
  if (like)
    opening.items.push({ ...structuredClone(like), key: 'house-rules', name: 'House rules' })
}
const resultOf = (check: Parameters<typeof checkCourse>[0]) => {
  const result = checkCourse(check)
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}
const deployed = () => {
  const at = new Standing('keeps marks')
  at.deploy(exampleTemplate(), exampleFacts())
  const check = {
    template: exampleTemplate(),
    facts: exampleFacts(),
    course: at.course,
    asOf: onDate,
  }
  const foresee = (template: Template) =>
    courseImpact(
      resultOf(check),
      foreseeRelease(check, { template, base: at.base, bodies: at.bodies, onDate }),
    )
  return { at, check, foresee }
}

describe('what a version would change for a course', () => {
  it('is nothing, when nothing differs', () => {
    expect(deployed().foresee(drafted(() => undefined))).toMatchObject({
      state: 'foreseen',
      moved: [],
      rollout: { state: 'nothing-to-do', undecided: 0 },
    })
  })
  it('is a part that comes with its rollout and asks to be filled in', () => {
    const impact = deployed().foresee(drafted(withRules))
    if (impact.state !== 'foreseen') throw new Error(impact.state)
    expect(impact.moved).toMatchObject([
      { rule: 'fill-in-unfilled', part: 'house-rules', opens: 1, closes: 0 },
    ])
    expect(impact.after.openMusts).toBe(impact.now.openMusts + 1)
    expect(impact.rollout).toMatchObject({ state: 'ready', counts: { create: 1 } })
  })
  it('is what it is held to and no rollout, where nothing was deployed', () => {
    const { course, facts, template } = exampleCourse()
    const check = { course, facts, template, asOf: onDate }
    const impact = courseImpact(
      resultOf(check),
      foreseeRelease(check, {
        template: drafted(withRules),
        base: emptyBase(),
        bodies: keptBodies(),
        onDate,
      }),
    )
    expect(impact).toMatchObject({
      state: 'foreseen',
      rollout: null,
      moved: [{ rule: 'item-missing', part: 'house-rules', opens: 1, closes: 0 }],
    })
  })
  it('is that it does not fit, where it cannot be worked out for the course, and says why', () => {
    const impact = deployed().foresee(
      drafted((template) => {
        template.policies.push({ rule: 'no-such-rule', parameters: {} } as never)
      }),
    )
    expect(impact).toEqual({
      state: 'does-not-fit',
      reason: expect.stringContaining('no-such-rule'),
    })
  })
  it('is judged as the course stands and no rollout, where what was deployed is not kept any more', () => {
    const { at, check } = deployed()
    expect(bodiesOfBase(at.base).length).toBeGreaterThan(0)
    const impact = courseImpact(
      resultOf(check),
      foreseeRelease(check, {
        template: drafted(({ home }) => home.blocks.reverse()),
        base: at.base,
        bodies: { idOf: at.bodies.idOf.bind(at.bodies), htmlOf: () => undefined },
        onDate,
      }),
    )
    expect(impact).toMatchObject({ rollout: { state: 'unusable', counts: {} } })
  })
  it('counts a place that becomes a must as closed as a should and open as a must', () => {
    const now = resultOf({ ...exampleCourse(), asOf: onDate })
    const place = { place: { part: 'syllabus' }, waived: null, message: 'It is old.' }
    const finding = (strength: string, more: object = {}) =>
      ({
        rule: 'old',
        title: 'Old',
        mender: 'instructor',
        strength,
        places: [{ ...place, fingerprint: 'f1', ...more }],
      }) as never
    const told = (...findings: never[]) => ({ ...now, findings })
    const after = told(finding('must'), finding('may', { fingerprint: 'f2' }))
    expect(movedBetween(told(finding('should')), after)).toEqual([
      expect.objectContaining({ strength: 'must', opens: 1, closes: 0 }),
      expect.objectContaining({ strength: 'should', opens: 0, closes: 1 }),
    ])
    const waived = told(finding('must', { waived: { id: 'w' } }))
    expect(movedBetween(waived, waived)).toEqual([])
    expect(movedBetween(told(), waived)).toEqual([])
  })
})

const standing = (openMusts: number) => ({
  readiness: openMusts > 0 ? ('not-ready' as const) : ('ready' as const),
  openMusts,
  openShoulds: 0,
})
const moved = (part: string, opens: number, strength = 'must' as const): MovedRequirement => ({
  rule: 'item-missing',
  part,
  strength,
  title: 'Missing',
  says: `“${part}” is missing.`,
  mender: 'designer',
  opens,
  closes: 0,
})
const foreseen = (
  musts: readonly [before: number, after: number],
  more: object = {},
): CourseImpact => ({
  state: 'foreseen',
  now: standing(musts[0]),
  after: standing(musts[1]),
  moved: [],
  rollout: { state: 'ready', reason: '', counts: { create: 2 }, undecided: 0 },
  ...more,
})

describe('what a version would change over many courses', () => {
  const sum = sumImpacts([
    { course: 1, impact: foreseen([1, 0]) },
    { course: 2, impact: foreseen([0, 3], { moved: [moved('quiz', 3), moved('map', 1)] }) },
    { course: 3, impact: foreseen([0, 1], { moved: [moved('quiz', 1)] }) },
    {
      course: 4,
      impact: foreseen([0, 0], {
        rollout: { state: 'nothing-to-do', reason: '', counts: { keep: 1 }, undecided: 2 },
      }),
    },
    { course: 5, impact: foreseen([2, 2], { rollout: null }) },
    { course: 6, impact: { state: 'unread' } },
    { course: 7, impact: { state: 'does-not-fit', reason: 'too long' } },
  ])
  it('tells which become ready and which stop', () => {
    expect([sum.becomeReady, sum.stopBeingReady]).toEqual([[1], [2, 3]])
    expect([sum.now.ready, sum.after.ready]).toEqual([3, 2])
    expect([sum.now.openMusts, sum.after.openMusts]).toEqual([3, 6])
  })
  it('counts requirements by the courses in which they move, those in most courses first', () => {
    expect(sum.requirements.map(({ part, opens }) => [part, opens])).toEqual([
      ['quiz', 2],
      ['map', 1],
    ])
  })
  it('tells what a rollout would do, and of which courses nothing can be told', () => {
    expect(sum.rollout).toEqual({
      changed: 3,
      untouched: 1,
      leftOut: 0,
      checkedOnly: 1,
      undecided: 1,
      counts: { create: 6, keep: 1 },
    })
    expect([sum.courses, sum.unread, sum.doNotFit]).toEqual([
      5,
      1,
      [{ course: 7, reason: 'too long' }],
    ])
  })
  it('is nothing over no courses', () => {
    expect(sumImpacts([])).toMatchObject({ courses: 0, requirements: [], becomeReady: [] })
  })
})
