import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { emptyTemplate, newItem } from '@wickerframe/core'
import { columns } from '../../screens/workbench/columns.ts'
import { outlineRows } from '../../screens/workbench/outlineRows.ts'
import { actOfKey } from '../../screens/workbench/sheetKeys.ts'
import { hitsIn, rankOf } from './hits.ts'
import { keyActs } from './keys.ts'

describe('what was typed, in what was found', () => {
  it.each([
    ['Übersicht', 'uber', 'Über'],
    ['ﬁve ﬁshes', 'fi', 'ﬁ|ﬁ'],
    ['Week 3 overview', 'over 3', '3|over'],
    ['e\u0301clair', 'ec', 'e\u0301c'],
    ['Terms', '', ''],
  ])('%s, for %s, is marked at %s', (text, typed, marked) => {
    expect(
      hitsIn(text, typed)
        .filter(({ hit }) => hit)
        .map((stretch) => stretch.text)
        .join('|'),
    ).toBe(marked)
  })
  it('leaves the text as it is, whatever the text and whatever was typed', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.string(), (text, typed) => {
        expect(
          hitsIn(text, typed)
            .map((stretch) => stretch.text)
            .join(''),
        ).toBe(text)
      }),
    )
  })
  it('ranks what begins with it before what has a word with it, and that before the rest', () => {
    const texts = ['Close the term', 'Midterms', 'Terms of autumn', 'Courses']
    expect(texts.map((text) => rankOf(text, 'term'))).toEqual([1, 2, 0, null])
  })
})

describe('a key of the outline sheet that is done by name', () => {
  const template = { ...emptyTemplate('small', 'Small'), parts: [newItem('page', 'a', 'A')] }
  const row = outlineRows(template, null, null).find(({ key }) => key === 'a')
  it.each(
    keyActs.flatMap(({ place, does, press }) =>
      place === 'sheet' && press ? [[does, press] as const] : [],
    ),
  )('does something there: %s', (_, { key, ctrl, alt, shift }) => {
    if (!row) throw new Error('no row')
    const act = actOfKey(
      {
        key,
        ctrlKey: ctrl === true,
        metaKey: false,
        altKey: alt === true,
        shiftKey: shift === true,
      },
      {
        row,
        column: columns[1],
        columnAt: 1,
        columnCount: columns.length,
        isClosed: false,
        mayEdit: true,
        mayType: true,
        severalChosen: false,
      },
    )
    expect(act).not.toBeNull()
    expect(act?.act === 'type' && 'start' in act).toBe(false)
  })
})
