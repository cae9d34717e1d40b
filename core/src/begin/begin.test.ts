import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readDocument } from '../document/index.ts'
import { everyExpected } from '../expand/index.ts'
import { proofread } from '../proofread/index.ts'
import { isModule, Template } from '../template/index.ts'
import { everyVariant } from '../variant/index.ts'
import {
  emptyTemplate,
  holdings,
  templateFromSentences,
  usualSentences,
  type Sentences,
} from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

const made = (answers: Partial<Sentences>): Template => {
  const result = templateFromSentences({ ...usualSentences(), ...answers })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}
const errors = (template: Template) =>
  proofread(template).filter(({ severity }) => severity === 'error')

describe('a template from a page of sentences', () => {
  it('has one module that repeats, not sixteen copies', () => {
    const template = made({})
    expect(template.parts.map((part) => [part.key, part.name, part.repeat?.per])).toEqual([
      ['casting-off', 'Start here', undefined],
      ['learning', 'Week {week} · {dates} · {topic}', 'week'],
    ])
    expect(everyVariant(template)[0]?.expected.parts).toHaveLength(17)
  })
  it('puts what stands at the end of units there, and a notice alone into the pause', () => {
    const template = made({
      units: 4,
      holds: [
        { what: 'overview', strength: 'must', often: 'each', points: null },
        { what: 'quiz', strength: 'must', often: 'end-of-unit', points: 50 },
      ],
    })
    const course = everyVariant(template)[0]?.expected
    expect(
      everyExpected(course?.parts ?? [])
        .filter((part) => part.key === 'quiz')
        .map((part) => part.week?.number),
    ).toEqual([4, 8, 12, 16])
    expect(
      course?.parts.find((part) => part.week?.breakName)?.items.map((part) => part.name),
    ).toEqual(['Week 9: no class'])
  })
  it('has weights that come to 100, or none', () => {
    expect(made({}).grading.categories.map((category) => [category.name, category.weight])).toEqual(
      [
        ['Discussions', 50],
        ['Assignments', 50],
      ],
    )
    expect(made({ grading: 'none' }).grading.categories).toEqual([])
  })
  it('tells what is wrong with an answer', () => {
    expect(templateFromSentences({ ...usualSentences(), title: '' })).toMatchObject({ ok: false })
  })
  const answers: fc.Arbitrary<Partial<Sentences>> = fc.record({
    modalities: fc.constantFrom<Sentences['modalities']>(['online'], ['on-campus', 'hybrid']),
    lengths: fc.constantFrom([16], [8, 7], [15, 16]),
    per: fc.constantFrom('week', 'unit', 'day'),
    units: fc.constantFrom(null, 2, 4),
    named: fc.constantFrom('number', 'number-dates', 'number-topic', 'number-dates-topic'),
    opens: fc.constantFrom('week-by-week', 'all-at-once'),
    pause: fc.boolean(),
    begins: fc.boolean(),
    ends: fc.boolean(),
    grading: fc.constantFrom('weights', 'points', 'none'),
    holds: fc
      .subarray([...holdings])
      .map((chosen) =>
        chosen.map((what, i) => ({
          what,
          strength: 'must' as const,
          often: (['each', 'every-other', 'end-of-unit'] as const)[i % 3] ?? 'each',
          points: 10,
        })),
      ),
  })
  it('can be released as it stands, whatever was answered (property)', () => {
    fc.assert(
      fc.property(answers, (some) => {
        const needsUnits = some.per === 'unit' && some.units === null
        const template = made({ ...some, ...(needsUnits ? { units: 4 } : {}) })
        expect(readDocument(Template, template).ok).toBe(true)
        expect(errors(template)).toEqual([])
      }),
      propertyRuns(),
    )
  })
})

describe('an empty template', () => {
  it('is a valid document with a home page and no parts', () => {
    const read = readDocument(Template, emptyTemplate('new', 'New'))
    expect(read.ok && read.value.parts.filter(isModule)).toEqual([])
  })
})
