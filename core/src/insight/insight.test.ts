import { courseModule } from '../rules/example/courseParts.ts'
import { describe, expect, it } from 'vitest'
import { checkCourse, type Check, type CheckResult, type Finding } from '../check/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import type { ExampleCourse } from '../rules/index.ts'
import { instructionalWeeks } from '../calendar/index.ts'
import {
  byWhen,
  columnTitle,
  crossingsOf,
  findingsAtColumn,
  findingsOf,
  groupOf,
  isOpenMust,
  lettersAlong,
  mendFirst,
  openMendsOf,
  openMustsOf,
  standsIn,
  daysAheadOf,
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
const mustsOf = ({ course, findings }: CheckResult) => ({ course, musts: openMustsOf(findings) })
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
