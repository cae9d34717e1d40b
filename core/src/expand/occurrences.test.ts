import { describe, expect, it } from 'vitest'
import { exampleCourse, exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { formatOf, type NameContext } from '../naming/index.ts'
import { readDocument } from '../document/index.ts'
import { Template } from '../template/index.ts'
import { deployInto, planDeployment } from '../plan/index.ts'
import {
  everyExpected,
  expandCourse,
  nameContext,
  type ExpectedCourse,
  type NamePlace,
} from './index.ts'

const expanded = (parts: object[], facts: object = {}): ExpectedCourse => {
  const read = readDocument(Template, {
    ...exampleTemplate(),
    home: { name: 'Home', blocks: [] },
    parts,
  })
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  const template = read.value
  const expansion = expandCourse({
    template,
    facts: { ...exampleFacts(), ...facts },
    mintFrom: 'turns',
  })
  if (!expansion.ok) throw new Error(JSON.stringify(expansion.problems))
  return expansion.value
}
const common = {
  strength: 'must',
  audience: 'students',
  position: 'in-order',
  span: 'module',
  may: {},
  settings: {},
}
const module = (
  key: string,
  name: string,
  per: string,
  items: object[] = [],
  more: object = {},
) => ({
  ...common,
  kind: 'module',
  key,
  name,
  repeat: { per, every: 1, except: [], ...more },
  items,
})
const page = (key: string, name: string, repeat?: object) => ({
  ...common,
  kind: 'page',
  key,
  name,
  blocks: [],
  acceptsInstead: [],
  inGroup: 'per-unit',
  ...(repeat ? { repeat: { every: 1, except: [], ...repeat } } : {}),
})
const names = (expected: ExpectedCourse) => everyExpected(expected.parts).map((part) => part.name)

describe('parts repeat', () => {
  it('per half of the week, in a class that meets twice', () => {
    const halves = expanded(
      [module('half', 'Week {week}{half} · {dates, d MMM – d MMM}', 'half')],
      { meetingDays: ['tuesday', 'thursday'] },
    )
    expect(names(halves).slice(0, 3)).toEqual([
      'Week 1A · 31 Aug – 2 Sep',
      'Week 1B · 3 Sep – 6 Sep',
      'Week 2A · 7 Sep – 9 Sep',
    ])
    expect(names(halves)).toHaveLength(16)
  })
  it('per class day, numbered through the course, without breaks and holidays', () => {
    const days = expanded([module('day', 'Day {day}, {start, EEE d MMM}', 'day')], {
      meetingDays: ['monday', 'wednesday'],
    })
    expect(names(days).slice(0, 4)).toEqual([
      'Day 1, Mon 31 Aug',
      'Day 2, Wed 2 Sep',
      'Day 3, Wed 9 Sep',
      'Day 4, Mon 14 Sep',
    ])
  })
  it('nested: days in weeks in units, each counted where it stands, and every one its own', () => {
    const nested = expanded(
      [
        module('unit', 'Unit {unit}', 'unit', [
          module('week', 'Week {week}', 'week', [module('day', 'Day {day}, {start, EEE}', 'day')]),
        ]),
      ],
      {
        units: [
          { number: 1, firstWeek: 1, lastWeek: 2 },
          { number: 2, firstDay: '2026-09-14', lastDay: '2026-09-16' },
        ],
        meetingDays: ['tuesday', 'thursday'],
      },
    )
    expect(names(nested)).toEqual([
      'Unit 1',
      'Week 1',
      'Day 1, Tue',
      'Day 2, Thu',
      'Week 2',
      'Day 1, Tue',
      'Day 2, Thu',
      'Unit 2',
      'Week 3',
      'Day 1, Tue',
    ])
    const instances = everyExpected(nested.parts).map((part) => part.instance)
    expect(new Set(instances).size).toBe(instances.length)
  })
  it('so many times inside each week, every one its own, with the dates of its week', () => {
    const times = expanded([
      module(
        'week',
        'Week {week}',
        'week',
        [
          {
            ...page('sheet', 'Week {week} sheet {number}', { per: 'times', times: 3 }),
            settings: { due: { from: 'week-end', days: 0, time: '23:59' } },
          },
        ],
        { to: 2 },
      ),
    ])
    const sheets = everyExpected(times.parts).filter((part) => part.key === 'sheet')
    expect(sheets.map((part) => part.week?.number)).toEqual([1, 1, 1, 2, 2, 2])
    expect(new Set(sheets.map((part) => part.instance)).size).toBe(6)
    expect(sheets[3]?.dueAt).toBe('2026-09-14T02:59:00Z')
  })
  it('and a plan that was run plans nothing more, for days as for weeks', () => {
    const days = expanded([module('day', 'Day {day}', 'day')], {
      meetingDays: ['monday', 'wednesday'],
    })
    const { course } = exampleCourse()
    const empty = { ...course, modules: [], stray: [], homePage: null }
    let next = 0
    const first = deployInto(
      days,
      empty,
      {
        newId: (kind) => `${kind}-${++next}`,
        urlOf: (id) => `/${id}`,
        rewriteHtml: (html) => html,
      },
      '2026-09-10',
    )
    expect(new Set(first.base.parts.map((entry) => entry.number)).size).toBe(
      first.base.parts.length,
    )
    expect(planDeployment({ expected: days, ...first, onDate: '2026-09-10' }).state).toBe(
      'nothing-to-do',
    )
  })
  it('over two terms, numbered on', () => {
    const spring = {
      ...exampleFacts().term,
      code: 'spring',
      title: 'Spring',
      firstDay: '2027-01-11',
      lastDay: '2027-02-05',
      breaks: [],
      holidays: [],
    }
    const both = expanded([module('week', 'Week {week} · {dates}', 'week')], {
      weeks: 12,
      nextTerm: spring,
    })
    expect(names(both).slice(7, 9)).toEqual([
      'Week 8 · Oct 19 – Oct 23',
      'Week 9 · Jan 11 – Jan 17',
    ])
  })
})

describe('the places of a name', () => {
  const contextFor = (format: string, place: NamePlace = {}, facts: object = {}): NameContext => {
    const made = nameContext({ facts: { ...exampleFacts(), ...facts }, place }, formatOf(format))
    if (!made.ok) throw new Error(JSON.stringify(made.problems))
    return made.value
  }
  it('are all weeks, units, days or halves that its format speaks of, or the one that is known', () => {
    expect(contextFor('Week {week}').places).toHaveLength(8)
    expect(contextFor('Unit {unit}').places.map((values) => values.weeks)).toEqual([
      { from: 1, to: 2 },
      { from: 3, to: 4 },
      { from: 5, to: 6 },
      { from: 7, to: 8 },
    ])
    expect(contextFor('{code} home').places).toHaveLength(1)
    expect(
      contextFor('Week {week}{half}', {}, { meetingDays: ['tuesday', 'thursday'] }).places,
    ).toHaveLength(16)
    expect(contextFor('Day {day}').places.length).toBeGreaterThan(30)
    expect(contextFor('Week {week}', { week: 3 }).places).toMatchObject([
      { week: 3, topic: 'Compass', code: 'NAV 110' },
    ])
  })
  it('take the number among its kind from the place alone', () => {
    expect(
      contextFor('{code} · Quiz {number}: week {week}', { week: 3 }).places[0]?.number,
    ).toBeUndefined()
    expect(
      contextFor('{code} · Quiz {number}', { number: 2, topic: 'Marks', due: '2026-09-20' })
        .places[0],
    ).toMatchObject({ number: 2, topic: 'Marks', due: '2026-09-20' })
  })
  it('that are not in the calendar are refused with what there is', () => {
    const refused = nameContext(
      { facts: exampleFacts(), place: { week: 12 } },
      formatOf('Week {week}'),
    )
    expect(refused).toMatchObject({
      ok: false,
      problems: [{ path: '/place/week', found: '12', expected: 'a week of the course, 1 to 8' }],
    })
  })
})
