import { describe, expect, it } from 'vitest'
import { addDays, type Week } from '../calendar/index.ts'
import { expectationFor } from '../check/index.ts'
import { courseModule } from '../rules/example/courseParts.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { pairCourse, readGroupings } from './index.ts'

describe('groupings', () => {
  const grouped = (names: readonly string[], more: readonly Week[] = []) => {
    const example = exampleCourse()
    const start = example.course.modules[0]
    example.course.modules = start ? [start] : []
    names.forEach((name, i) => example.course.modules.push(courseModule(`u${i}`, name)))
    const worked = expectationFor(example)
    if (!worked.ok) throw new Error('the example fits')
    return readGroupings(
      example.template,
      example.facts,
      [...worked.value.expected.weeks, ...more],
      example.course,
    )['week']
  }
  it('read uneven units by their weeks or their dates', () => {
    expect(
      grouped(['Unit 1 · Weeks 1–2', 'Unit 2 · Sep 14 – Sep 27', 'Unit 3: weeks 5 to 8']),
    ).toMatchObject({
      state: 'grouped',
      units: [
        { firstWeek: 1, lastWeek: 2 },
        { firstWeek: 3, lastWeek: 4 },
        { firstWeek: 5, lastWeek: 8 },
      ],
    })
  })
  it('read units and single weeks side by side, which cover every week once', () => {
    const mixed = [
      'Unit 1 · Weeks 1–2',
      'Week 3 · Sep 14 – Sep 20 · Compass',
      'Week 4 · Sep 21 – Sep 27 · Tides',
      'Unit 2 · Weeks 6–8',
    ]
    expect(grouped(mixed)).toMatchObject({
      state: 'grouped',
      units: [
        { number: 1, firstWeek: 1, lastWeek: 2 },
        { number: 2, firstWeek: 6, lastWeek: 8 },
      ],
    })
    const example = exampleCourse()
    example.course.modules = [
      ...example.course.modules.slice(0, 1),
      ...mixed.map((name, i) => courseModule(`m${i}`, name)),
    ]
    const worked = expectationFor(example)
    const modules = worked.ok
      ? worked.value.expected.parts
          .filter((part) => part.key === 'week')
          .map((part) => [part.values.unit ?? null, part.weeks.map((week) => week.number)])
      : []
    expect(modules).toEqual([
      [1, [1, 2]],
      [null, [3]],
      [null, [4]],
      [2, [6, 7, 8]],
    ])
    expect(
      (worked.ok ? pairCourse(worked.value.expected, example.course, () => null).pairs : [])
        .filter((pair) => /^m\d/.test(pair.found))
        .map((pair) => pair.found),
    ).toEqual(['m0', 'm1', 'm2', 'm3'])
  })
  it('have a unit of their own that is missing where they leave weeks out', () => {
    expect(
      grouped(['Unit 1 · Weeks 1–2', 'Unit 2 · Weeks 3–4', 'Unit 3 · Weeks 7–8']),
    ).toMatchObject({
      state: 'grouped',
      units: [
        { number: 1, firstWeek: 1, lastWeek: 2 },
        { number: 2, firstWeek: 3, lastWeek: 4 },
        { number: 3, firstWeek: 6, lastWeek: 6 },
        { number: 4, firstWeek: 7, lastWeek: 8 },
      ],
    })
  })
  it('are none where most weeks stand alone, whatever two of them are called', () => {
    const later = Array.from({ length: 8 }, (_, i) => ({
      number: 9 + i,
      first: addDays('2026-10-24', 7 * i),
      last: addDays('2026-10-30', 7 * i),
      breakName: null,
      interruptedBy: null,
    }))
    const alone = Array.from({ length: 12 }, (_, i) => `Week ${5 + i}`)
    expect(grouped(['Weeks 1 and 2: Charts', 'Weeks 3 and 4: Tides', ...alone], later)).toEqual({
      state: 'weekly',
    })
    for (const called of ['N. Topic', 'Mod N: Topic', 'Semana N', 'Leg N']) {
      const others = alone.map((_, i) => called.replace('N', String(5 + i)))
      expect(grouped(['Weeks 1 and 2: Charts', 'Weeks 3 and 4: Tides', ...others], later)).toEqual({
        state: 'weekly',
      })
    }
    expect(grouped(['Unit 1 · Weeks 1–2', 'Unit 2 · Weeks 3–4', ...alone], later)).toMatchObject({
      state: 'grouped',
      units: [{ number: 1 }, { number: 2 }],
    })
  })
  it('are not read from a topic that begins with a number', () => {
    const names = ['Week 1 - 10 knots you need', 'Week 2 - 12 lights', 'Week 3 - 4 winds', 'Week 4']
    expect(grouped(names)).toEqual({ state: 'weekly' })
  })
  it('cannot be told where they cover a week twice, or say nothing', () => {
    expect(
      grouped(['Unit 1 · Weeks 1–3', 'Unit 2 · Weeks 3–5', 'Unit 3 · Weeks 6–8']),
    ).toMatchObject({ state: 'unreadable', why: 'week 3 stands in two units' })
    expect(grouped(['Unit 1', 'Unit 2', 'Unit 3'])).toMatchObject({ state: 'unreadable' })
  })
})
