import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readDocument } from '../document/index.ts'
import { deployInto, emptyBase, keptBodies, planDeployment } from '../plan/index.ts'
import { emptyCourse, exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { Template } from '../template/index.ts'
import { everyExpected, expandCourse, type ExpectedCourse } from './index.ts'

const page = (key: string, name: string, more: object = {}) => ({
  kind: 'page',
  key,
  name,
  ...more,
})
const week = (exceptions: object[], more: object = {}) => ({
  kind: 'module',
  key: 'week',
  name: 'Week {week}',
  repeat: { per: 'week' },
  items: [
    page('overview', 'Week {week} overview'),
    page('quiz', 'Week {week} quiz', { kind: 'assessment', settings: { points: 10 } }),
  ],
  exceptions,
  ...more,
})
const templateOf = (...parts: object[]): Template => {
  const read = readDocument(Template, {
    ...exampleTemplate(),
    home: { name: 'Home', blocks: [] },
    units: 2,
    parts,
  })
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value
}
const expanded = (
  template: Template,
  more: object = {},
  facts = exampleFacts(),
): ExpectedCourse => {
  const expansion = expandCourse({ template, facts, mintFrom: 'exceptions', ...more })
  if (!expansion.ok) throw new Error(JSON.stringify(expansion.problems))
  return expansion.value
}
const within = (expected: ExpectedCourse, module: string) =>
  expected.parts.find((part) => part.name === module)?.items.map((part) => part.name)
const survey = {
  key: 'first-week',
  anchor: { at: 'first' },
  add: [page('survey', 'How are you placed? Week {week}')],
}
const exam = {
  key: 'unit-end',
  anchor: { at: 'last-of-unit' },
  leaveOut: ['quiz'],
  add: [page('exam', 'Unit exam in week {week}', { kind: 'assessment' })],
}
const pause = {
  key: 'in-the-pause',
  anchor: { at: 'pause' },
  name: 'Week {week}: no class',
  leaveOut: 'all',
  add: [page('notice', 'No class this week')],
}

describe('one repetition made different', () => {
  it('has what its exception adds, and the others do not', () => {
    const course = expanded(templateOf(week([survey])))
    expect(within(course, 'Week 1')).toEqual([
      'Week 1 overview',
      'Week 1 quiz',
      'How are you placed? Week 1',
    ])
    expect(within(course, 'Week 2')).toEqual(['Week 2 overview', 'Week 2 quiz'])
    expect(
      everyExpected(course.parts)
        .filter((part) => part.exception !== null)
        .map((part) => part.name),
    ).toEqual(['Week 1', 'How are you placed? Week 1'])
  })
  it('goes without what it leaves out, and has fields of its own laid over', () => {
    const course = expanded(
      templateOf(
        week([
          {
            key: 'third',
            anchor: { at: 'number', number: 3 },
            name: 'Week {week}, at sea',
            set: [{ part: 'quiz', name: 'Big quiz', strength: 'may', settings: { points: 40 } }],
            leaveOut: ['overview'],
          },
        ]),
      ),
    )
    const third = course.parts[2]
    expect([
      third?.name,
      third?.items.map((part) => [part.name, part.strength, part.values.points]),
    ]).toEqual(['Week 3, at sea', [['Big quiz', 'may', 40]]])
    expect(course.parts[3]?.items[1]).toMatchObject({ strength: 'must', values: { points: 10 } })
  })
  it('may not exist at all', () => {
    expect(
      expanded(templateOf(week([{ key: 'no-last', anchor: { at: 'last' }, omit: true }])))
        .parts.map((part) => part.name)
        .at(-1),
    ).toBe('Week 7')
  })
  it('is the last of each unit, in whatever weeks the units end', () => {
    const template = templateOf(week([exam]))
    expect(
      everyExpected(expanded(template).parts)
        .filter((part) => part.key === 'exam')
        .map((part) => part.name),
    ).toEqual(['Unit exam in week 4', 'Unit exam in week 8'])
    expect(within(expanded(template), 'Week 4')).toEqual(['Week 4 overview', 'Unit exam in week 4'])
  })
  it('moves with its unit: the same part, not one taken away and another made', () => {
    const template = templateOf(week([exam]))
    const instances = (units: object[]) =>
      everyExpected(expanded(template, {}, { ...exampleFacts(), units: units as never }).parts)
        .filter((part) => part.key === 'exam')
        .map((part) => part.instance)
    expect(
      instances([
        { number: 1, firstWeek: 1, lastWeek: 4 },
        { number: 2, firstWeek: 5, lastWeek: 8 },
      ]),
    ).toEqual(
      instances([
        { number: 1, firstWeek: 1, lastWeek: 3 },
        { number: 2, firstWeek: 4, lastWeek: 8 },
      ]),
    )
  })
  it('in the pause has only its notice, which is asked for although other work is not', () => {
    const course = expanded(templateOf(week([pause])))
    expect(within(course, 'Week 5: no class')).toEqual(['No class this week'])
    const plan = planDeployment({
      expected: course,
      course: emptyCourse('c', 'New'),
      base: emptyBase(),
      bodies: keptBodies(),
      onDate: '2026-09-10',
    })
    expect(
      plan.state === 'ready' &&
        plan.steps.filter((step) => step.into === 'Week 5: no class').map((step) => step.name),
    ).toEqual(['No class this week'])
  })
  it('holds in a week nested in a unit, at that unit’s end', () => {
    const unit = {
      kind: 'module',
      key: 'unit',
      name: 'Unit {unit}',
      repeat: { per: 'unit' },
      items: [week([exam, { ...survey, key: 'opens-unit' }])],
    }
    const course = expanded(templateOf(unit))
    expect(
      course.parts.map((part) =>
        part.items.map((inner) => `${inner.name}: ${inner.items.at(-1)?.name}`),
      ),
    ).toEqual([
      [
        'Week 1: How are you placed? Week 1',
        'Week 2: Week 2 quiz',
        'Week 3: Week 3 quiz',
        'Week 4: Unit exam in week 4',
      ],
      [
        'Week 5: How are you placed? Week 5',
        'Week 6: Week 6 quiz',
        'Week 7: Week 7 quiz',
        'Week 8: Unit exam in week 8',
      ],
    ])
    const instances = everyExpected(course.parts).map((part) => part.instance)
    expect(new Set(instances).size).toBe(instances.length)
  })
  it('stands in its unit where units take the place of weeks', () => {
    const template = templateOf(
      week([exam], { groupings: { min: 2, max: 4, name: 'Unit {unit}' } }),
    )
    const units = [
      { number: 1, firstWeek: 1, lastWeek: 4 },
      { number: 2, firstWeek: 5, lastWeek: 8 },
    ]
    const course = expanded(template, { groupings: { week: units } })
    expect(
      course.parts.map((part) =>
        part.items.filter((item) => item.key === 'exam').map((item) => item.name),
      ),
    ).toEqual([['Unit exam in week 4'], ['Unit exam in week 8']])
  })
  it('holds week by week in a unit: left out and laid over there, in its week’s place, and counted alike', () => {
    const parts = week([pause, { ...survey, set: [{ part: 'quiz', name: 'First quiz' }] }], {
      groupings: { min: 2, max: 4, name: 'Unit {unit}' },
    })
    const weekly = {
      ...parts,
      items: parts.items.map((item) => ({
        ...item,
        inGroup: 'per-week',
        name: item.key === 'quiz' ? 'Quiz {number}' : item.name,
      })),
    }
    const template = templateOf(weekly)
    const units = [
      { number: 1, firstWeek: 1, lastWeek: 4 },
      { number: 2, firstWeek: 5, lastWeek: 8 },
    ]
    const grouped = expanded(template, { groupings: { week: units } })
    expect(within(grouped, 'Unit 1')?.slice(0, 5)).toEqual([
      'Week 1 overview',
      'First quiz',
      'How are you placed? Week 1',
      'Week 2 overview',
      'Quiz 2',
    ])
    expect(within(grouped, 'Unit 2')).toEqual([
      'No class this week',
      'Week 6 overview',
      'Quiz 5',
      'Week 7 overview',
      'Quiz 6',
      'Week 8 overview',
      'Quiz 7',
    ])
    const numbers = (course: ExpectedCourse) =>
      everyExpected(course.parts)
        .filter((part) => part.key === 'quiz')
        .map((part) => part.name)
    expect(numbers(grouped)).toEqual(numbers(expanded(template)))
    // Whatever weeks stand together, and whatever stand alone between them.
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 5, max: 7 }), (from, to) => {
        const beside = [
          { number: 1, firstWeek: from, lastWeek: 4 },
          { number: 2, firstWeek: to, lastWeek: 8 },
        ]
        expect(numbers(expanded(template, { groupings: { week: beside } }))).toEqual(
          numbers(expanded(template)),
        )
      }),
    )
  })
  it('is planned once: running the plan and planning again gives nothing', () => {
    const course = expanded(templateOf(week([survey, exam, pause])))
    const empty = emptyCourse('c', 'New')
    let next = 0
    const first = deployInto(
      course,
      empty,
      {
        newId: (kind) => `${kind}-${++next}`,
        urlOf: (id) => `/${id}`,
        rewriteHtml: (html) => html,
      },
      '2026-09-10',
    )
    expect(planDeployment({ expected: course, ...first, onDate: '2026-09-10' }).state).toBe(
      'nothing-to-do',
    )
  })
  it('is refused when it speaks of parts that are not there, or takes a key that is', () => {
    const problems = (exception: object) => {
      const read = readDocument(Template, {
        ...exampleTemplate(),
        home: { name: 'Home', blocks: [] },
        parts: [week([exception])],
      })
      return read.ok ? [] : read.problems.map((problem) => problem.path)
    }
    expect(problems({ ...survey, leaveOut: ['nobody'] })).toEqual([
      '/parts/0/exceptions/0/leaveOut/0',
    ])
    expect(problems({ ...survey, set: [{ part: 'survey' }] })).toEqual([
      '/parts/0/exceptions/0/set/0/part',
    ])
    expect(problems({ ...survey, key: 'quiz' })).toEqual(['/parts/0/exceptions/0/key'])
    expect(problems({ ...survey, add: [page('quiz', 'Again')] })).toEqual([
      '/parts/0/exceptions/0/add/0/key',
    ])
  })
})
