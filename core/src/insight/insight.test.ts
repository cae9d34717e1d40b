import { courseModule } from '../rules/example/courseParts.ts'
import { describe, expect, it } from 'vitest'
import type { ExampleCourse } from '../rules/index.ts'
import { checked, hideWeek3 } from './checked.testing.ts'
import {
  columnTitle,
  crossingsOf,
  findingsAtColumn,
  groupOf,
  lettersAlong,
  daysAheadOf,
  outlookOf,
  strandAt,
  strandLetters,
  weaveGroups,
  worstOf,
  type Crossings,
} from './index.ts'

const rowOf = ({ example, result }: ReturnType<typeof checked>) =>
  crossingsOf(result, example.template)
/** The letters of the columns of a group. */
const lettersIn = (row: Crossings, group: string): string =>
  Object.entries(row)
    .flatMap(([key, letter]) => (groupOf(key) === group ? [letter] : []))
    .join('')
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
      part: null,
      week: null,
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
    expect(outlook.comingDue).toContainEqual(expect.objectContaining({ on: '2026-09-21' }))
    for (const { count, rules } of outlook.comingDue)
      expect(Object.values(rules).reduce((sum, times) => sum + times, 0)).toBe(count)
  })
})

describe('the days ahead', () => {
  const due = (on: string, count: number, rules: Record<string, number> = {}) => ({
    on,
    count,
    rules,
  })
  const over = (...outlooks: ReturnType<typeof due>[][]) =>
    daysAheadOf(
      outlooks.map((comingDue, i) => ({ course: i + 1, outlook: { comingDue } })),
      '2026-09-17',
      '2026-09-20',
    )
  it('has each day once, in order, also those on which nothing falls due', () => {
    expect(over().map(({ on, musts }) => [on, musts])).toEqual([
      ['2026-09-17', 0],
      ['2026-09-18', 0],
      ['2026-09-19', 0],
      ['2026-09-20', 0],
    ])
  })
  it('sums musts over courses, those with most first, and by rule', () => {
    const [, day] = over(
      [due('2026-09-18', 1, { hidden: 1 })],
      [due('2026-09-18', 3, { hidden: 2, unfilled: 1 })],
    )
    expect(day).toEqual({
      on: '2026-09-18',
      musts: 4,
      courses: [2, 1],
      rules: { hidden: 3, unfilled: 1 },
    })
  })
  it('leaves out what falls due before and after', () => {
    const days = over([due('2026-09-16', 5), due('2026-09-21', 5)])
    expect(days.reduce((sum, { musts }) => sum + musts, 0)).toBe(0)
  })
  it('reads what was kept before the rules were', () => {
    const days = daysAheadOf(
      [{ course: 1, outlook: { comingDue: [{ on: '2026-09-17', count: 2 } as never] } }],
      '2026-09-17',
      '2026-09-17',
    )
    expect(days).toEqual([{ on: '2026-09-17', musts: 2, courses: [1], rules: {} }])
  })
})
