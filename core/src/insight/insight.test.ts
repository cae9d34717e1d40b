import { courseModule } from '../rules/example/courseParts.ts'
import { describe, expect, it } from 'vitest'
import { checkCourse, type Check, type CheckResult } from '../check/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import type { ExampleCourse } from '../rules/index.ts'
import {
  columnTitle,
  crossingsOf,
  findingsAtColumn,
  groupOf,
  lettersAlong,
  mendFirst,
  outlookOf,
  strandAt,
  strandLetters,
  weaveGroups,
  worstOf,
  type Crossings,
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
  crossingsOf(result, example.template)
/** The letters of the columns of a group. */
const lettersIn = (row: Crossings, group: string): string =>
  Object.entries(row)
    .flatMap(([key, letter]) => (groupOf(key) === group ? [letter] : []))
    .join('')
const hideWeek3 = ({ module }: ExampleCourse) => void (module('week', 3).published = false)
const ownModule = ({ course }: ExampleCourse) =>
  void course.modules.push(courseModule('own', 'Sea stories'))

describe('the weave', () => {
  it('has groups for the home page, each module and week, names and the course, with what stands in each', () => {
    const { example, result } = checked(() => undefined)
    const groups = weaveGroups([example.template], [crossingsOf(result, example.template)])
    expect(groups.map(({ key, title }) => [key, title])).toEqual([
      ['home', 'Home'],
      ['module:casting-off', 'Start here'],
      ...[1, 2, 3, 4, 5, 6, 7, 8].map((week) => [`week:${week}`, `Week ${week}`]),
      ['names', 'Names'],
      ['course', 'Course'],
    ])
    const week = groups.find(({ key }) => key === 'week:2')
    expect(week?.columns.map(({ title }) => title)).toEqual(
      expect.arrayContaining(['the module', 'Discussion', 'Assignment', 'Quiz']),
    )
  })
  it('draws what is open where it stands, and nothing open elsewhere', () => {
    const row = rowOf(checked(hideWeek3))
    expect(lettersIn(row, 'week:3')).toContain('X')
    for (const [column, letter] of Object.entries(row))
      if (groupOf(column) !== 'week:3') expect([column, letter]).not.toEqual([column, 'X'])
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
    expect(lettersIn(waived, 'week:3')).toContain('w')
    expect(lettersIn(waived, 'week:3')).not.toContain('X')
    expect(
      checked(ownModule).result.findings.map((finding) => [finding.rule, finding.strength]),
    ).toContainEqual(['extra-module', 'may'])
    expect(checked(ownModule).result.counts).toMatchObject({ openMusts: 1, openShoulds: 0 })
  })
  it('shows at a crossing the worst of what is asked there, whatever the order', () => {
    expect([worstOf('mnX.'), worstOf('nms?'), worstOf('wm'), worstOf('nm'), worstOf('')]).toEqual([
      'X',
      's',
      'w',
      'm',
      '.',
    ])
  })
  it('is a letter for each column, in every course under every column of all of them', () => {
    const { example, result } = checked(hideWeek3)
    const crossings = crossingsOf(result, example.template)
    const columns = weaveGroups([example.template], [crossings, { 'week:9/essay': 's' }]).flatMap(
      (group) => group.columns,
    )
    const letters = lettersAlong(crossings, columns)
    expect(letters).toHaveLength(columns.length)
    columns.forEach(({ key }, i) => expect([key, letters[i]]).toEqual([key, crossings[key] ?? '.']))
    expect(columns.at(-1)?.key).toMatch(/^course\//)
    expect(
      strandAt(
        letters,
        columns.findIndex(({ key }) => key === 'week:9/essay'),
      ),
    ).toBe('not-applicable')
    for (const [strand, letter] of Object.entries(strandLetters))
      expect(strandAt(letter, 0)).toBe(strand)
  })
})

describe('findings of one column of the weave', () => {
  const { result, example } = checked(({ module }) => {
    for (const week of [2, 4]) module('week', week).children.pop()
  })
  const { template } = example
  it('are those of that week, or of one part of it, with only its places', () => {
    const [finding] = findingsAtColumn(result, template, 'week:2')
    expect(finding?.places.map(({ place }) => place.week)).toEqual([2])
    const part = finding?.places[0]?.place.part ?? ''
    expect(findingsAtColumn(result, template, `week:2/${part}`)).toEqual([finding])
    for (const elsewhere of ['week:3', 'week:2/nothing', 'home'])
      expect(findingsAtColumn(result, template, elsewhere)).toEqual([])
  })
  it.each([
    ['week:2', 'Week 2'],
    ['week:2/discussion', 'Week 2 › Discussion'],
    ['home', 'Home'],
    ['module:casting-off', 'Start here'],
    ['names/item-name', 'Names › Items are named by their format'],
  ])('%s is called %s', (column, title) => {
    expect(columnTitle(template, column)).toBe(title)
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
