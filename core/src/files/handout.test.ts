import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addressOf } from '../document/index.ts'
import { letIn } from '../allow/index.ts'
import { escapeHtml } from '../template/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import {
  filesLedTo,
  handoutsIn,
  handoutTo,
  houseFileAt,
  readHandoutAddress,
  sentHandout,
  withFilesLedTo,
  withHandoutLinks,
  type WrittenFile,
} from './index.ts'

const content = 'ab'.repeat(32)
const anyFile: fc.Arbitrary<WrittenFile> = fc
  .record({
    name: fc.string({ unit: 'grapheme', minLength: 1, maxLength: 60 }),
    fields: fc.option(
      fc.dictionary(
        // What no object of ours holds: reading a document leaves it out.
        fc
          .string({ unit: 'grapheme', minLength: 1, maxLength: 20 })
          .filter((field) => field !== '__proto__'),
        fc.string({ unit: 'grapheme', maxLength: 60 }),
        { minKeys: 1, maxKeys: 4 },
      ),
    ),
  })
  .map(({ name, fields }) => ({ name, content, ...(fields ? { fields } : {}) }))

describe('a link of a page to a file', () => {
  it('whatever the file is called and filled with, is read back from the page that is sent, which lets it in', () => {
    fc.assert(
      fc.property(anyFile, (file) => {
        const address = sentHandout(file)
        expect(readHandoutAddress(address)).toEqual(file)
        expect(address).toBe(escapeHtml(address))
        const page = `<p>Bring <a href="${address}">this</a>.</p>`
        expect(letIn(page)).toMatchObject({ html: page, refused: [] })
        expect(filesLedTo(page)).toEqual([file])
        expect(withFilesLedTo(page, () => '/files/1')).toBe(
          '<p>Bring <a href="/files/1">this</a>.</p>',
        )
      }),
      propertyRuns(),
    )
  })
  it.each([
    ['another scheme', `file:${content}/a.pdf`],
    ['no name', `handout:${content}/`],
    ['a folder', `handout:${content}/a/b.pdf`],
    ['no SHA-256', 'handout:abc/a.pdf'],
    ['what cannot be decoded', `handout:${content}/%E0%A4%A.pdf`],
    ['texts that are none', `handout:${content}/a.docx?%7B`],
    ['texts of another shape', `handout:${content}/a.docx?%5B1%5D`],
    ['the key of a template', 'handout:planner'],
  ])('that is %s is none', (_, address) => {
    expect(readHandoutAddress(address)).toBeNull()
    expect(filesLedTo(`<a href="${address}">a</a>`)).toEqual([])
  })
  it.each([
    ['house-file:muster', 'muster'],
    ['https://wickerframe.kestrelsound.example/house-files/muster', 'muster'],
    ['http://127.0.0.1:4310/house-files/muster-2', 'muster-2'],
    ['https://elsewhere.example/?u=/house-files/muster', null],
    ['https://elsewhere.example/house-files/muster/more', null],
    ['/house-files/muster', null],
    ['handout:muster', null],
  ])('to what the house keeps current is known by its address: %s', (address, key) =>
    expect(houseFileAt(address)).toBe(key),
  )
  it('of a file whose name is broken is written all the same', () => {
    const address = sentHandout({ name: 'a\ud800b.pdf', content, fields: { '{x}': '\udc00' } })
    expect(readHandoutAddress(address)?.name).toBe('a\ufffdb.pdf')
  })
  it('of a template leads to one of its files by its key', () => {
    const page = `<a href="${handoutTo('planner')}">a</a> <a href="${handoutTo('map')}">b</a> <a href="${handoutTo('planner')}">c</a>`
    expect(handoutsIn(page)).toEqual(['planner', 'map'])
    expect(withHandoutLinks(page, (key) => (key === 'map' ? null : '/x'))).toBe(
      '<a href="/x">a</a> <a href="handout:map">b</a> <a href="/x">c</a>',
    )
    expect(addressOf(handoutTo('planner'))).not.toBeNull()
  })
})
