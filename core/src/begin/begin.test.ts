import { describe, expect, it } from 'vitest'
import { readDocument } from '../document/index.ts'
import { everyExpected } from '../expand/index.ts'
import { isModule, Template } from '../template/index.ts'
import { everyVariant } from '../variant/index.ts'
import { emptyTemplate, templateFromSentences, usualSentences, type Sentences } from './index.ts'

const made = (answers: Partial<Sentences>): Template => {
  const result = templateFromSentences({ ...usualSentences(), ...answers })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}

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
})

describe('an empty template', () => {
  it('is a valid document with a home page and no parts', () => {
    const read = readDocument(Template, emptyTemplate('new', 'New'))
    expect(read.ok && read.value.parts.filter(isModule)).toEqual([])
  })
})
