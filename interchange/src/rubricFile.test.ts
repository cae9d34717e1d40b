import * as fc from 'fast-check'
import { stringify } from 'csv-stringify/sync'
import { describe, expect, it } from 'vitest'
import { Rubric } from '@wickerframe/core'
import { readRubric } from './index.ts'

const read = (text: string) => readRubric(new TextEncoder().encode(text))

describe('a rubric file', () => {
  it('has a criterion in each row and the points of each level in its head', () => {
    expect(
      read(
        'Criterion,Excellent (10),Good: 7 points,"Not yet, 0"\nPlotting,"clear, to scale",readable,none\nLog,kept,gaps,\n',
      ),
    ).toEqual({
      ok: true,
      value: [
        {
          text: 'Plotting',
          levels: [
            { text: 'clear, to scale', points: 10 },
            { text: 'readable', points: 7 },
            { text: 'none', points: 0 },
          ],
        },
        {
          text: 'Log',
          levels: [
            { text: 'kept', points: 10 },
            { text: 'gaps', points: 7 },
            { text: '', points: 0 },
          ],
        },
      ],
    })
  })
  it('may be apart by semicolons or tabs, with a byte order mark', () => {
    expect(read('\ufeffCriterion;Full (2,5);None (0)\nKnots;all;none')).toMatchObject({
      ok: true,
      value: [{ levels: [{ points: 2.5 }, { points: 0 }] }],
    })
    expect(read('Criterion\tFull 2\nKnots\tall')).toMatchObject({
      ok: true,
      value: [{ text: 'Knots' }],
    })
  })
  it('is refused with the line and what is wanted', () => {
    expect(read('Criterion,Excellent\nx,y')).toMatchObject({
      ok: false,
      problems: [{ line: 1, found: 'Excellent' }],
    })
    expect(read('Criterion,Full (1)\n,y')).toMatchObject({
      ok: false,
      problems: [{ line: 2, reason: 'the criterion in the first column' }],
    })
    expect(read('')).toMatchObject({ ok: false })
    expect(read('"unclosed')).toMatchObject({ ok: false })
    expect(readRubric(new Uint8Array([0x50, 0x4b, 3, 4, 0, 0]))).toMatchObject({
      ok: false,
      problems: [{ found: 'bytes that are no text' }],
    })
  })
  it('is refused where a template could not hold it: more points than there are, a criterion of two lines', () => {
    expect(read('Criterion,Best (5),Good (20260101)\nPlotting,a,b\n')).toEqual({
      ok: false,
      problems: [
        { line: 1, found: 'Good (20260101)', reason: 'a level’s points from 0 to 10,000' },
      ],
    })
    const twoLines = read('Criterion,Best (5)\n"Plotting\nand more",a\n')
    expect(twoLines.ok || twoLines.problems[0]?.line).toBe(2)
  })
  it('that is read is one that a template holds, whatever stood in it', () => {
    const cell = fc.oneof(
      fc.string({ maxLength: 12 }),
      fc.constantFrom('5', 'Good (7)', '99999', ' ', '\n'),
    )
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { minLength: 2, maxLength: 3 }), { minLength: 2, maxLength: 4 }),
        (rows) => {
          const result = read(stringify(rows))
          if (result.ok) expect(Rubric.shape.criteria.safeParse(result.value).success).toBe(true)
        },
      ),
      { numRuns: 500 },
    )
  })
  it('reads back what a CSV library writes (csv-stringify as the oracle)', () => {
    const cell = fc
      .string({ minLength: 1, maxLength: 30, unit: 'grapheme-ascii' })
      .map((text) => text.trim())
      .filter((text) => text !== '')
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 6 }), (rows) => {
        const result = read(
          stringify([['Criterion', 'Full (4)', 'None (0)'], ...rows], { quoted: true }),
        )
        expect(
          result.ok &&
            result.value.map(({ text, levels }) => [text, ...levels.map((level) => level.text)]),
        ).toEqual(rows)
      }),
    )
  })
  it('never throws, whatever the bytes', () => {
    fc.assert(fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => void readRubric(bytes)))
  })
})
