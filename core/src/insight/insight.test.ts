import { courseModule } from '../rules/example/courseParts.ts'
import { describe, expect, it } from 'vitest'
import { checkCourse, type Check, type CheckResult } from '../check/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import type { ExampleCourse } from '../rules/index.ts'
import {
  mendFirst,
  outlookOf,
  sampleStrands,
  weaveColumns,
  weaveRow,
  type Strand,
} from './index.ts'

const checked = (
  change: (example: ExampleCourse) => void,
  more: Partial<Check> = {},
): { example: ExampleCourse; result: CheckResult } => {
  const example = exampleCourse()
  change(example)
  const result = checkCourse({ ...example, asOf: '2026-09-16', ...more })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return { example, result: result.value }
}
const rowOf = ({ example, result }: ReturnType<typeof checked>) =>
  new Map(
    weaveRow(result, example.template, weaveColumns([example.template], 8)).map(
      ({ column, strands }) => [column, strands],
    ),
  )
const hideWeek3 = ({ module }: ExampleCourse) => void (module('week', 3).published = false)
const ownModule = ({ course }: ExampleCourse) =>
  void course.modules.push(courseModule('own', 'Sea stories'))

describe('the weave', () => {
  it('has a column for the home page, each module and week, names and the course', () => {
    expect(weaveColumns([exampleCourse().template], 2).map((column) => column.key)).toEqual([
      'home',
      'module:casting-off',
      'week:1',
      'week:2',
      'names',
      'course',
    ])
  })
  it('draws what is open where it stands, and nothing open elsewhere', () => {
    const row = rowOf(checked(hideWeek3))
    expect(row.get('week:3')).toContain('open-must')
    for (const [column, strands] of row)
      if (column !== 'week:3')
        expect([column, strands.includes('open-must')]).toEqual([column, false])
  })
  it('draws what is waived as waived, what is attested as met, and nothing for what is only information', () => {
    const open = checked(hideWeek3)
    const outcome = open.result.outcomes.find(
      (outcome) => outcome.rule === 'must-part-hidden' && outcome.outcome === 'failed',
    )
    const waiver = {
      id: 'w',
      scope: 'place',
      rule: 'must-part-hidden',
      fingerprint: outcome?.fingerprint ?? '',
      evidence: null,
      from: '2026-09-01',
      until: null,
      reason: 'agreed',
    } as const
    const waived = rowOf(
      checked(hideWeek3, { exemptions: { waivers: [waiver], attestations: [] } }),
    )
    expect(waived.get('week:3')).toContain('waived')
    expect(waived.get('week:3')).not.toContain('open-must')
    expect(
      checked(ownModule).result.findings.map((finding) => [finding.rule, finding.strength]),
    ).toContainEqual(['extra-module', 'may'])
    expect(checked(ownModule).result.counts).toMatchObject({ openMusts: 1, openShoulds: 0 })
  })
  it('samples a long column without losing what is open', () => {
    const strands: Strand[] = [
      ...Array.from({ length: 200 }, (): Strand => 'met'),
      'open-must',
      ...Array.from({ length: 50 }, (): Strand => 'not-due-yet'),
    ]
    const sampled = sampleStrands(strands)
    expect(sampled.length).toBeLessThanOrEqual(12)
    expect(sampled).toContain('open-must')
  })
})

describe('mend first', () => {
  it('puts first what brings most courses to ready, and leaves out what is waived', () => {
    const of = (id: string, { result }: ReturnType<typeof checked>) => ({
      course: { ...result.course, id },
      findings: result.findings,
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

describe('the outlook', () => {
  it('knows who has not begun, and what falls due in the seven days ahead', () => {
    expect(outlookOf(checked(() => {}).result).begun).toBe(true)
    const outlook = outlookOf(
      checked(
        ({ item }) =>
          void (item('week-overview', 4).html = (item('week-overview', 4).html ?? '').replace(
            /We learn[^<]*/,
            'In two or three sentences, say what this week is about.',
          )),
      ).result,
    )
    expect(outlook.comingDue).toContainEqual({ on: '2026-09-21', count: 1 })
  })
})
