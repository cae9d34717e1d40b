import { stringify } from 'csv-stringify/sync'
import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { propertyRuns } from '@wickerframe/core/testing'
import { delimiterOf, readTable, readText, takenForWords } from './tableFile.ts'

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text)
const swapped = (bytes: Buffer): Uint8Array => new Uint8Array(bytes.swap16())
const words = 'code,title\nNAV 110,Navigation côtière – é\n'

describe('a text file', () => {
  it.each([
    ['UTF-8', utf8(words), 'UTF-8'],
    ['UTF-8 with a byte order mark', utf8(`\uFEFF${words}`), 'UTF-8'],
    [
      'UTF-16, little end first, with its mark',
      new Uint8Array(Buffer.from(`\uFEFF${words}`, 'utf16le')),
      'UTF-16',
    ],
    [
      'UTF-16, big end first, with its mark',
      swapped(Buffer.from(`\uFEFF${words}`, 'utf16le')),
      'UTF-16',
    ],
    ['UTF-16 without a mark', new Uint8Array(Buffer.from(words, 'utf16le')), 'UTF-16'],
    // 0xF4 ô, 0xE8 è, 0x96 –, 0xE9 é: from the WHATWG Encoding Standard's index of windows-1252.
    [
      'Windows-1252',
      new Uint8Array([
        ...utf8('code,title\nNAV 110,Navigation c'),
        0xf4,
        ...utf8('ti'),
        0xe8,
        ...utf8('re '),
        0x96,
        0x20,
        0xe9,
        0x0a,
      ]),
      'Windows-1252',
    ],
  ])('in %s is read letter by letter', (_, bytes, takenFor) => {
    expect(readText(bytes)).toEqual({ text: words, takenFor })
  })
  it('that is none is refused', () => {
    expect(readText(new Uint8Array([0x50, 0x4b, 3, 4, 0, 0, 0, 8, 0xff]))).toBeNull()
    expect(readText(utf8('a\u0000b'))).toBeNull()
  })
  it('that was taken for Windows-1252 says so plainly; UTF-8 says nothing', () => {
    expect(takenForWords('Windows-1252')).toMatch(/taken for Windows-1252/)
    expect(takenForWords('UTF-8')).toBe('')
  })
})

describe('a table', () => {
  it.each([',', ';', '\t'])(
    'is read as csv-stringify writes it, with %j between cells',
    (delimiter) => {
      const cell = fc.string({ minLength: 1, maxLength: 20 }).map((text) =>
        // oxlint-disable-next-line no-control-regex
        text.replace(/[\u0000-\u001F\uFEFF]/g, '').trim(),
      )
      fc.assert(
        fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 8 }), (rows) => {
          const text = stringify([['first', 'second'], ...rows], { delimiter, quoted: true })
          const read = readTable(utf8(text), 100)
          expect(read.ok && read.value.rows.map((row) => row.cells)).toEqual([
            ['first', 'second'],
            ...rows,
          ])
        }),
        propertyRuns(),
      )
    },
  )
  it('has the delimiter its first row has most of, quotation marks aside', () => {
    expect(delimiterOf('code;title, and more;term')).toBe(';')
    expect(delimiterOf('"a;b;c",d')).toBe(',')
    expect(delimiterOf('one')).toBe(',')
  })
  it('is refused with its line where it is not closed, and where it is too long', () => {
    expect(readTable(utf8('a,b\n"c,d'), 10)).toMatchObject({ ok: false })
    expect(readTable(utf8('a\n1\n2\n3\n'), 2)).toMatchObject({
      ok: false,
      problems: { found: 'more than 2 rows' },
    })
  })
  it('never throws, whatever the bytes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
        expect(typeof readTable(bytes, 100).ok).toBe('boolean')
      }),
    )
  })
  it('reads lines that end in different ways in one file, each with its number', () => {
    const read = readTable(new TextEncoder().encode('a,b\r\n1,2\n3,4\r5,"6\n7"\r\n8,9'), 10)
    expect(read.ok && read.value.rows.map((row) => row.cells)).toEqual([
      ['a', 'b'],
      ['1', '2'],
      ['3', '4'],
      ['5', '6\n7'],
      ['8', '9'],
    ])
  })
})
