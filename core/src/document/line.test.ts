import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Facts } from '../course/index.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { Template } from '../template/index.ts'
import { isLine, readDocument, safeCell } from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

const named = new Set([
  'name',
  'title',
  'label',
  'code',
  'caption',
  'courseName',
  'courseLabel',
  'email',
  'text',
])
/** Every place of a document where a name, title or label stands. */
const places = (value: unknown, path: (string | number)[] = []): (string | number)[][] =>
  value === null || typeof value !== 'object'
    ? []
    : Object.entries(value).flatMap(([field, inner]) => {
        const at = [...path, Array.isArray(value) ? Number(field) : field]
        return typeof inner === 'string' && named.has(field) ? [at] : places(inner, at)
      })
const withText = <T>(document: T, path: readonly (string | number)[], text: string): T => {
  const copy = structuredClone(document)
  let at = copy as Record<string | number, unknown>
  for (const step of path.slice(0, -1)) at = at[step] as Record<string | number, unknown>
  at[path.at(-1) ?? ''] = text
  return copy
}

describe('a name or title', () => {
  it.each([
    ['a template', Template, exampleTemplate()],
    ['the facts of a course', Facts, exampleFacts()],
  ])('anywhere in %s is one line without control characters', (_, schema, document) => {
    const all = places(document)
    expect(all.length).toBeGreaterThan(5)
    for (const path of all)
      for (const text of [
        'A\r\nBEGIN:VEVENT',
        'A\u0000',
        'A\tB',
        'A\u2028B',
        'A\u001b[31m',
        'A\u0085B',
      ])
        expect([
          path.join('/'),
          JSON.stringify(text),
          readDocument(schema, withText(document, path, text)).ok,
        ]).toEqual([path.join('/'), JSON.stringify(text), false])
  })
  it('may hold every letter that people write', () => {
    for (const text of ['Œuvre – “été”', '航海', 'א ב', '👩‍🏫 Team', 'a\u00a0b', 'Ångström'])
      expect([text, isLine(text)]).toEqual([text, true])
  })
})

describe('a cell that leaves for a spreadsheet', () => {
  it('never begins as a formula does, and ends as it was', () => {
    fc.assert(
      fc.property(
        fc
          .tuple(fc.constantFrom('', '=', '+', '-', '@', '\t', "'", "'="), fc.string())
          .map(([head, rest]) => head + rest),
        (text) => {
          const cell = safeCell(text)
          expect(/^[=+@\t\r]|^-(?!\d)/.test(cell) && !/^[+-]?\d+(?:[.,]\d+)?$/.test(cell)).toBe(
            false,
          )
          expect(cell.endsWith(text)).toBe(true)
        },
      ),
      propertyRuns(5000),
    )
  })
  it('stays a number where it is one', () => {
    for (const text of ['-5', '+1', '-0.5', '12,5']) expect(safeCell(text)).toBe(text)
    expect(safeCell('=1+1')).toBe("'=1+1")
    expect(safeCell('-1+cmd')).toBe("'-1+cmd")
  })
})
