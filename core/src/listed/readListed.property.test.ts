import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { emptyTemplate } from '../begin/index.ts'
import { Part, partsWithin, pasteEdits } from '../template/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { partsOfListed, readListed } from './index.ts'

describe('any list', () => {
  const tree = fc.array(
    fc.record({ name: fc.constantFrom('Harbour', 'Tides', 'Wind', 'Ropes'), down: fc.nat(3) }),
    { minLength: 1, maxLength: 30 },
  )
  const outline = tree.map((all) => {
    let depth = 0
    return all.map(({ name, down }, i) => {
      depth = i === 0 ? 0 : Math.min(depth + 1, down)
      // Letters, so that no two are the same row with another number.
      return {
        depth,
        name: `${name} ${String.fromCodePoint(97 + (i % 26))}${i > 25 ? 'z' : ''}${'y'.repeat(depth)}`,
      }
    })
  })
  const html = (rows: readonly { depth: number; name: string }[]): string => {
    let written = ''
    let open = -1
    for (const { depth, name } of rows) {
      while (open > depth) {
        written += '</li></ul>'
        open -= 1
      }
      written += open === depth ? '</li><li>' : '<ul><li>'
      open = depth
      written += name
    }
    return written + '</li></ul>'.repeat(open + 1)
  }
  const ways: Record<
    string,
    (rows: readonly { depth: number; name: string }[]) => [string, string]
  > = {
    'in spaces': (rows) => [
      rows.map(({ depth, name }) => `${'  '.repeat(depth)}${name}`).join('\n'),
      '',
    ],
    'in tabs, with bullets': (rows) => [
      rows.map(({ depth, name }) => `${'\t'.repeat(depth)}•\u00a0${name}`).join('\r\n'),
      '',
    ],
    'with numbers': (rows) => [
      rows.map(({ depth, name }, i) => `${'   '.repeat(depth)}${i + 1}. ${name}`).join('\n'),
      '',
    ],
    'as HTML': (rows) => ['', html(rows)],
  }
  it.each(Object.entries(ways))(
    'written %s comes out row by row, as deep as it was written',
    (_, write) => {
      fc.assert(
        fc.property(outline, (rows) => {
          expect(
            readListed(...write(rows)).rows.map(({ depth, name }) => ({ depth, name })),
          ).toEqual(rows)
        }),
        propertyRuns(),
      )
    },
  )
  it('of whatever characters makes parts that a template takes, and none of two that have one key', () => {
    const line = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 40 }),
      fc.string({
        unit: fc.constantFrom(
          '\t',
          ' ',
          '-',
          '1',
          '.',
          '{',
          'week',
          'Week ',
          '}',
          '\\',
          'each ',
          '×',
          '|',
          '\u00a0',
        ),
        maxLength: 12,
      }),
    )
    fc.assert(
      fc.property(fc.array(line, { maxLength: 12 }), (lines) => {
        const { rows } = readListed(lines.join('\n'))
        if (rows.length === 0) return
        const { parts } = partsOfListed(rows)
        for (const part of parts) expect(Part.safeParse(part).error?.issues).toBeUndefined()
        const { edits } = pasteEdits(emptyTemplate('x', 'X'), partsOfListed(rows), null, 0)
        const added = edits.flatMap((edit) => (edit.edit === 'add-part' ? [edit.part] : []))
        const keys = partsWithin(added).map(({ key }) => key)
        expect(new Set(keys).size).toBe(keys.length)
        expect(keys.length).toBe(rows.length)
      }),
      propertyRuns(),
    )
  })
})
