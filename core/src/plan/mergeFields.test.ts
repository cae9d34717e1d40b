import { describe, expect, it } from 'vitest'
import { expandCourse } from '../expand/index.ts'
import { courseItem } from '../rules/example/courseParts.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { mergeFields, type FieldsMergeInput } from './mergeFields.ts'

const sentAs = (sent: unknown, echo = sent) => ({ sent, echo }) as never
/** Points that the template wants to be 20, of an item that stands as `present`; `before`: what was deployed. */
const points = (
  present: number | null,
  before: FieldsMergeInput['before'],
  more: Partial<FieldsMergeInput> = {},
) =>
  mergeFields({
    wanted: { points: 20 },
    of: courseItem('i', 'Quiz', { points: present }),
    before,
    name: null,
    hasWork: false,
    decide: () => null,
    ...more,
  })
const deployed = (value: unknown, echo = value) => ({ points: sentAs(value, echo) })

describe('a field of something that stands', () => {
  it('is written where nobody touched what was deployed, and read again then', () => {
    expect(points(10, deployed(10))).toEqual({
      write: { points: 20 },
      told: [
        {
          field: 'points',
          does: 'change',
          base: 10,
          present: 10,
          wanted: 20,
          result: 20,
          decided: null,
          reason: 'changed in the template; it is as it was deployed',
        },
      ],
      fields: { points: { sent: 20, echo: null } },
      freshFields: ['points'],
    })
  })
  it('is untouched as the platform wrote it, whatever was sent', () => {
    expect(points(11, deployed(10, 11)).write).toEqual({ points: 20 })
  })
  it('that the template did not speak of before is written while nothing is set there', () => {
    expect(points(null, {})).toMatchObject({ write: { points: 20 }, told: [{ does: 'change' }] })
    expect(points(5, {})).toMatchObject({
      write: {},
      told: [{ does: 'conflict', reason: 'changed in the template and in the course' }],
    })
  })
  it('that an instructor set stays without a word while the template says the same', () => {
    expect(points(5, deployed(20))).toEqual({
      write: {},
      told: [],
      fields: deployed(20),
      freshFields: [],
    })
    expect(points(20, deployed(20)).told).toEqual([])
  })
  it('that says already what the template says now is told once, and known from then on', () => {
    const agreed = points(20, deployed(10))
    expect(agreed).toMatchObject({
      write: {},
      told: [{ does: 'agree', result: 20, reason: 'the course says what the template says now' }],
      fields: { points: { sent: 20, echo: 20 } },
      freshFields: [],
    })
    expect(points(20, agreed.fields).told).toEqual([])
    expect(points(20, null)).toMatchObject({
      told: [{ does: 'agree', base: null, reason: 'is there already' }],
      fields: { points: { sent: 20, echo: 20 } },
    })
  })
  it('that differs where nothing was deployed is nobody’s to write', () => {
    expect(points(5, null)).toMatchObject({
      write: {},
      told: [
        {
          does: 'conflict',
          base: null,
          result: 5,
          reason: 'the course says something else than the template',
        },
      ],
      fields: {},
    })
  })
  it('that counts in students’ work is left alone, where there is any', () => {
    const left = points(10, deployed(10), { hasWork: true })
    expect(left).toMatchObject({
      write: {},
      told: [
        {
          does: 'leave',
          result: 10,
          reason: 'students have work in it; it is left alone',
          because: 'student-work',
        },
      ],
      fields: deployed(10),
    })
    const renamed = points(
      null,
      { name: sentAs('Quiz') },
      { wanted: { name: 'Test' }, hasWork: true },
    )
    expect(renamed.write).toEqual({ name: 'Test' })
  })
  it.each([
    ['nobody decided', null, {}, deployed(10), 5, null],
    ['it is to stay', 'keep', {}, { points: { sent: 20, echo: 20 } }, 5, 'keep'],
    ['it is to be taken', 'take', { points: 20 }, { points: { sent: 20, echo: null } }, 20, 'take'],
    ['both are wanted, which a field cannot be', 'both', {}, deployed(10), 5, null],
  ] as const)(
    'that both changed is a conflict; where %s',
    (_, decision, write, fields, result, decided) => {
      const merged = points(5, deployed(10), { decide: () => decision })
      expect(merged.write).toEqual(write)
      expect(merged.fields).toEqual(fields)
      expect(merged.freshFields).toEqual(decision === 'take' ? ['points'] : [])
      expect(merged.told).toMatchObject([
        { does: 'conflict', result, decided, reason: 'changed in the template and in the course' },
      ])
    },
  )
  it('is asked about by its name', () => {
    const asked: string[] = []
    points(5, deployed(10), {
      decide: (field) => {
        asked.push(field)
        return null
      },
    })
    expect(asked).toEqual(['points'])
  })
})

describe('a name that both changed', () => {
  const expanded = expandCourse({
    template: exampleTemplate(),
    facts: exampleFacts(),
    mintFrom: 'c1',
    repetitions: [],
  })
  if (!expanded.ok) throw new Error('the example can be worked out')
  const week = expanded.value.parts.find(({ week }) => week?.number === 3)
  if (!week) throw new Error('the example has a third week')
  const was = 'Week 3 · Sep 14 – Sep 20 · Compass'
  const named = (
    present: string,
    wanted: string,
    format: string | null = 'Week {week} · {dates} · {topic}',
  ) =>
    mergeFields({
      wanted: { name: wanted },
      of: courseItem('m', present),
      before: { name: sentAs(was) },
      name: {
        format,
        part: {
          ...week,
          definition: { ...week.definition, name: 'Wk {week}: {topic}' },
        } as typeof week,
      },
      hasWork: false,
      decide: () => null,
    })
  it('is as the template wants it, with the words that are the instructor’s own', () => {
    expect(named('Week 3 · Sep 14 – Sep 20 · The lodestone', 'Wk 3: Compass')).toEqual({
      write: { name: 'Wk 3: The lodestone' },
      told: [
        {
          field: 'name',
          does: 'change',
          base: was,
          present: 'Week 3 · Sep 14 – Sep 20 · The lodestone',
          wanted: 'Wk 3: Compass',
          result: 'Wk 3: The lodestone',
          decided: null,
          reason: 'changed in the template; the instructor’s own words stay in it',
        },
      ],
      fields: { name: { sent: 'Wk 3: Compass', echo: 'Wk 3: Compass' } },
      freshFields: [],
    })
  })
  it('is a conflict where it cannot be read by the format it was deployed with, or there is none', () => {
    for (const merged of [
      named('Something else', 'Wk 3: Compass'),
      named('Week 3 · Sep 14 – Sep 20 · The lodestone', 'Wk 3: Compass', null),
    ])
      expect([merged.write, merged.told.map(({ does }) => does)]).toEqual([{}, ['conflict']])
  })
  it('is a conflict for any other field', () => {
    expect(points(5, deployed(10), { name: { format: '{topic}', part: week } }).told).toMatchObject(
      [{ does: 'conflict' }],
    )
  })
})
