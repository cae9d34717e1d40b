import { describe, expect, it } from 'vitest'
import { usualSentences } from '../begin/index.ts'
import { dayNumber } from '../calendar/index.ts'
import { faultless, treatments, type FaultlessCase } from '../check/faultless.testing.ts'
import { itemsIn, type Course, type CourseItem } from '../course/index.ts'
import { readModel, templateFromModel } from './index.ts'

const weeks: FaultlessCase = {
  from: usualSentences(),
  language: 'English',
  named: null,
  home: { without: 0, turned: 0 },
  exceptionIn: null,
  layered: false,
  styled: false,
  begins: dayNumber('2026-08-31'),
  breakAfter: 0,
  reader: undefined,
  timeZone: 'America/Halifax',
  looked: 0,
  asks: false,
  leaves: [],
  answers: 'long',
}
const units = (count: number): FaultlessCase => ({
  ...weeks,
  from: { ...usualSentences(), per: 'unit', units: count },
})
const renamed = (course: Course, name: (old: string, at: number) => string): void =>
  course.modules.forEach((module, at) => {
    module.name = name(module.name, at)
  })

/** A course without marks or identity, changed, as a model; and the template that it makes. */
const modelOf = (given: FaultlessCase, change: (course: Course) => void) => {
  const { course, facts } = faultless(given)
  treatments['loses its marks'](course)
  treatments['loses its identity'](course)
  change(course)
  const reading = readModel(course, facts)
  const made = templateFromModel(reading, { key: 'read', title: 'Read' })
  if (!made.ok) throw new Error(JSON.stringify(made.problems))
  return { reading, ...made.value }
}
const romans = ['', 'I', 'II', 'III', 'IV', 'V', 'VI', 'VII', 'VIII']

describe('a model course, in whatever way it counts', () => {
  it.each([
    ['units', units(4), () => {}, 'unit', 4, 'Unit {unit} · {dates} · {topic}'],
    [
      'roman numerals',
      units(8),
      (course: Course) =>
        renamed(course, (name) =>
          name.replace(/Unit (\d)/, (_, digit: string) => `Unit ${romans[Number(digit)]}`),
        ),
      'unit',
      8,
      'Unit {unit} · {dates} · {topic}',
    ],
    [
      'modules of one shape, without a number',
      units(8),
      (course: Course) => renamed(course, (name) => name.split(' · ').at(-1) ?? name),
      'unit',
      8,
      '{topic}',
    ],
    [
      'two languages in each name',
      weeks,
      (course: Course) =>
        renamed(course, (name) => name.replace(/Week (\d+)/, 'Week $1 / Semaine $1')),
      'week',
      16,
      'Week {week} / Semaine {week} · {dates} · {topic}',
    ],
    [
      'two languages by turns',
      weeks,
      (course: Course) =>
        renamed(course, (name, at) => (at % 2 ? name.replace('Week', 'Semaine') : name)),
      'week',
      16,
      'Semaine {week} · {dates} · {topic}',
    ],
  ] as const)('%s: repeats, named, with its due dates', (_, given, change, per, count, format) => {
    const { reading, template, proposals } = modelOf(given, change)
    expect(reading.group).toMatchObject({ per })
    expect(reading.group?.repetitions).toHaveLength(count)
    expect(reading.moduleFormat?.format).toBe(format)
    // Every piece of work was due three days before the end of its stretch, or at its end.
    const due = reading.slots.flatMap((slot) => (slot.due ? [slot.due] : []))
    expect(due).toEqual([
      { from: 'week-end', days: -3, time: '23:59' },
      { from: 'week-end', days: 0, time: '23:59' },
    ])
    expect(template.parts.find(({ repeat }) => repeat)?.repeat?.per).toBe(per)
    expect(template.units).toBe(per === 'unit' ? count : undefined)
    expect(proposals.map(({ about }) => about)).toContain('repeat')
  })

  it('counts in roman numerals: its names do not follow, and it says so', () => {
    const { reading } = modelOf(units(8), (course) =>
      renamed(course, (name) => name.replace('Unit 3', 'Unit III')),
    )
    expect(reading.moduleFormat?.leftOut).toEqual([expect.stringContaining('Unit III')])
  })

  it('does something alike in two of its units: one proposal, an exception in each', () => {
    const { template, proposals } = modelOf(units(8), (course) => {
      for (const number of [2, 4]) {
        const module = course.modules[number]
        const like = module ? itemsIn(module).find(({ dueAt }) => dueAt !== null) : undefined
        if (!module || !like) throw new Error('no such unit')
        const report: CourseItem = {
          ...structuredClone(like),
          id: `report-${number}`,
          url: `/courses/f/report-${number}`,
          kind: 'assignment',
          name: `Lab report ${number}`,
        }
        module.children.splice(1, 0, report)
      }
    })
    expect(proposals.filter(({ about }) => about === 'different')).toEqual([
      expect.objectContaining({ words: expect.stringContaining('in units 2, 4 only') }),
    ])
    const repeated = template.parts.find(({ repeat }) => repeat)
    expect(
      repeated?.kind === 'module'
        ? repeated.exceptions.map(({ anchor, add }) => [anchor, add.map(({ name }) => name)])
        : [],
    ).toEqual([
      [{ at: 'number', number: 2 }, ['Lab report 2']],
      [{ at: 'number', number: 4 }, ['Lab report 4']],
    ])
  })

  it('has a few modules that merely look alike: nothing is taken for a repetition', () => {
    const { reading } = modelOf(units(4), (course) =>
      renamed(course, (name) => name.split(' · ').at(-1) ?? name),
    )
    expect(reading.group).toBeNull()
  })
})
