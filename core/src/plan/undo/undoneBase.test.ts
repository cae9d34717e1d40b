import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { emptyBase, type Base, type BaseEntry } from '../base.ts'
import { sameValue } from '../mergeCase.ts'
import type { BaseChange } from './undoRecord.ts'
import { undoneBase } from './undoneBase.ts'

const field = (value: string) => ({ sent: value, echo: value })
const question = (key: string, text: string) => {
  const body = { kind: 'true-or-false' as const, text, points: 1, right: true }
  return { key, id: key, sent: body, echo: body }
}
const entry = (instance: string, more: Partial<BaseEntry> = {}): BaseEntry => ({
  instance,
  platformId: `p-${instance}`,
  template: 'standard',
  part: instance,
  repetition: null,
  number: null,
  kind: 'page',
  parent: null,
  format: null,
  fields: {},
  blocks: [],
  page: null,
  ...more,
})
const baseOf = (parts: BaseEntry[], course: Base['course'] = {}): Base => ({
  ...emptyBase(),
  course,
  parts,
})
const instances = (parts: readonly BaseEntry[]): string[] => parts.map(({ instance }) => instance)
/** What a deployment recorded that made the one of the other. */
const changeOf = (before: Base, after: Base): BaseChange => {
  const other = (base: Base) => (one: BaseEntry) =>
    !base.parts.some((two) => two.instance === one.instance && sameValue(one, two))
  return {
    course: before.course,
    courseAfter: after.course,
    entries: before.parts.filter(other(after)),
    after: after.parts.filter(other(before)),
    order: { before: instances(before.parts), after: instances(after.parts) },
  }
}
const taken = (
  before: Base,
  after: Base,
  present = after,
  stays: (entry: BaseEntry) => boolean = () => false,
) => undoneBase(changeOf(before, after), present, stays)

const short = fc.constantFrom('x', 'y', 'z')
const someFields = fc.dictionary(fc.constantFrom('name', 'points', 'due'), short.map(field))
const someEntries = fc
  .uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f'))
  .chain((names) =>
    fc.tuple(
      ...names.map((name) =>
        fc
          .record({
            platformId: short,
            template: short,
            part: short,
            repetition: fc.constantFrom(null, 'week:1', 'week:2'),
            number: fc.constantFrom(null, 1, 2),
            parent: fc.constantFrom(null, 'm'),
            format: fc.constantFrom(null, '{code}', '{week}'),
            fields: someFields,
            blocks: fc.uniqueArray(
              fc.record({ key: short, sent: short, page: fc.constantFrom(null, 'x') }),
              { selector: ({ key }) => key },
            ),
            page: fc.constantFrom(null, 'x'),
          })
          .chain((made) =>
            fc
              .uniqueArray(fc.tuple(short, short), { selector: ([key]) => key, maxLength: 2 })
              .map((asked) =>
                entry(name, {
                  ...made,
                  ...(asked.length > 0
                    ? { questions: asked.map(([key, text]) => question(key, text)) }
                    : {}),
                }),
              ),
          ),
      ),
    ),
  )
  .map((parts) => parts as BaseEntry[])
const someBase = fc.tuple(someEntries, someFields).map(([parts, course]) => baseOf(parts, course))

describe('a base once a deployment is taken back', () => {
  it('is the base before it, where nothing was deployed since, whatever it changed, made, moved and took out', () => {
    fc.assert(
      fc.property(someBase, someBase, (before, after) => {
        expect(taken(before, after)).toEqual({ course: before.course, parts: before.parts })
      }),
    )
  })
  it('keeps whatever a later deployment changed, made and took out, where the first changed nothing', () => {
    fc.assert(
      fc.property(someBase, someBase, (before, present) => {
        expect(taken(before, before, present)).toEqual({
          course: present.course,
          parts: present.parts,
        })
      }),
    )
  })
  it('keeps of one part what was changed again, and gives back the rest of it', () => {
    const [was, then] = ['Knots', 'Bends'].map((name) =>
      entry('a', {
        fields: { name: field(name), points: field(name) },
        format: name,
        questions: [question('q', name), question('r', name)],
      }),
    ) as [BaseEntry, BaseEntry]
    const now = {
      ...then,
      number: 3,
      fields: { ...then.fields, name: field('Hitches') },
      questions: [question('q', 'Hitches'), question('r', 'Bends'), question('s', 'Hitches')],
    }
    expect(taken(baseOf([was]), baseOf([then]), baseOf([now])).parts).toEqual([
      {
        ...was,
        number: 3,
        fields: { name: field('Hitches'), points: field('Knots') },
        questions: [question('q', 'Hitches'), question('r', 'Knots'), question('s', 'Hitches')],
      },
    ])
  })
  it('holds no questions of a part that has none, though it changed again since', () => {
    const [was, then, now] = ['Knots', 'Bends', 'Hitches'].map((name) =>
      entry('a', { fields: { name: field(name) } }),
    ) as [BaseEntry, BaseEntry, BaseEntry]
    const [back] = taken(baseOf([was]), baseOf([then]), baseOf([{ ...now, page: 'x' }])).parts
    expect(back).toEqual({ ...now, page: 'x' })
    expect(back).not.toHaveProperty('questions')
  })
  it.each<[string, string, string, string, string, string?]>([
    ['as before, where they stand as it left them', 'xy', 'yx', 'yx', 'xy'],
    // What is asked besides keeps its place among questions, as on the platform.
    ['as before, with what came since after what it follows', 'xy', 'yx', 'yxz', 'xzy', 'xyz'],
    ['as before, with what it made and a later one changed', 'xy', 'yzx', 'yzx', 'xy'],
    ['as before, without what a later one took out', 'xyw', 'ywx', 'yw', 'yw'],
    ['as now, where they were moved since', 'xy', 'yx', 'xzy', 'xzy'],
    ['as now, where only a later one moved them', 'xy', 'xy', 'yx', 'yx'],
    ['as now, with what it took out after what that followed', 'xyw', 'yx', 'xzy', 'xzyw'],
  ])(
    'has the blocks and questions of a part %s',
    (_, before, after, present, blocks, questions = blocks) => {
      const of = (keys: string, name: string) =>
        baseOf([
          entry('a', {
            fields: { name: field(name) },
            blocks: [...keys].map((key) => ({ key, sent: key, page: null })),
            questions: [...keys].map((key) => question(key, key)),
          }),
        ])
      const [back] = taken(of(before, 'Knots'), of(after, 'Bends'), of(present, 'Hitches')).parts
      const keysOf = (list: readonly { key: string }[] = []) => list.map(({ key }) => key).join('')
      expect([keysOf(back?.blocks), keysOf(back?.questions)]).toEqual([blocks, questions])
    },
  )
  it.each<[string, string, string, string, string]>([
    ['as before it, with what came since after what it follows', 'abc', 'cba', 'cxba', 'abcx'],
    ['as before it, with what came since at the beginning', 'abc', 'cba', 'xycba', 'xyabc'],
    ['as now, where they were moved since', 'abc', 'cba', 'bca', 'bca'],
    ['as now, with what it took out after what that followed', 'abcd', 'cba', 'bca', 'bcda'],
  ])('has its parts %s', (_, before, after, present, expected) => {
    const of = (names: string) => baseOf([...names].map((name) => entry(name)))
    expect(instances(taken(of(before), of(after), of(present)).parts).join('')).toBe(expected)
  })
  describe('of what it made', () => {
    const made = baseOf([entry('a')])
    const none = baseOf([])
    const stay = () => true
    it.each<[string, Base, (entry: BaseEntry) => boolean, number]>([
      ['keeps nothing that goes', made, () => false, 0],
      ['keeps what stays in the course', made, stay, 1],
      [
        'keeps nothing that goes, though it was deployed to again',
        baseOf([entry('a', { page: 'x' })]),
        () => false,
        0,
      ],
      [
        'keeps what a later one made anew',
        baseOf([entry('a', { platformId: 'new' })]),
        () => false,
        1,
      ],
      ['keeps nothing that a later one took out', none, stay, 0],
    ])('%s', (_, present, stays, expected) => {
      expect(taken(none, made, present, stays).parts).toHaveLength(expected)
    })
    it('keeps what it brought back under a new id, while that is in use', () => {
      const before = baseOf([entry('a', { platformId: 'old', page: 'x' })])
      const after = baseOf([entry('a', { platformId: 'new' })])
      expect(taken(before, after, after, stay).parts).toEqual(after.parts)
      expect(taken(before, after, after).parts).toEqual(before.parts)
      // Under its own id, what stays in the course is what stood there before.
      const renamed = baseOf([entry('a', { platformId: 'old' })])
      expect(taken(before, renamed, renamed, stay).parts).toEqual(before.parts)
    })
    it('leaves out what it changed and a later one took out', () => {
      const changed = baseOf([entry('a', { page: 'x' })])
      expect(taken(made, changed, none).parts).toEqual([])
    })
    it('gives back what it took out, as it is where a later one made it again', () => {
      expect(taken(made, none).parts).toEqual(made.parts)
      const again = baseOf([entry('a', { page: 'x' })])
      expect(taken(made, none, again).parts).toEqual(again.parts)
    })
  })
})
