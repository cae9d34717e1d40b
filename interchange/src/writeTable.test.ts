import { parse } from 'csv-parse/sync'
import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { writeTable } from './writeTable.ts'

const read = (text: string): string[][] => parse(text, { bom: true, relax_column_count: true })

describe('a table that is written', () => {
  it('is read as it was by a library that we have no part in, but for formulas', () => {
    const value = fc
      .string({ unit: 'grapheme' })
      .filter((text) => !/^[=+\-@\t\r]/.test(text) && text.trim() !== '')
    fc.assert(
      fc.property(
        fc.array(fc.array(value, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 6 }),
        (rows) => {
          expect(read(writeTable(rows))).toEqual(rows)
        },
      ),
    )
  })
  it.each(['=HYPERLINK("http://x.example")', '+1', '-1+1', '@SUM(A1)', '\t=1'])(
    'runs nothing in a spreadsheet: %s',
    (value) => {
      expect(read(writeTable([[value, 'b']]))).toEqual([[`'${value}`, 'b']])
    },
  )
})
