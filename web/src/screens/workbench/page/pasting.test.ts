import { describe, expect, it } from 'vitest'
import { fileOfAddress } from '../../../controls/imageFile.ts'
import { pastedIn, picturesAmong, withoutWaiting } from './pastedIn.ts'
import { addressTyped, placesFor } from './PlaceSearch.tsx'
import { dropBefore } from './usePageDrag.ts'

const png = 'data:image/png;base64,iVBORw0KGgo='
/** What a browser hands over, of which only this much is read. */
const clipboard = (kinds: Readonly<Record<string, string>>, files: readonly File[] = []) =>
  ({ getData: (kind: string) => kinds[kind] ?? '', files }) as unknown as DataTransfer

describe('pictures that are pasted', () => {
  it('wait where they stood until somebody says what they show, and are not kept before', () => {
    const pasted = pastedIn(
      clipboard({ 'text/html': `<p>a <img src="${png}" alt="A quay"> b</p>` }),
      true,
    )
    expect(
      pasted?.pictures.map(({ file, alternativeText }) => [file.type, alternativeText]),
    ).toEqual([['image/png', 'A quay']])
    expect(pasted?.html).toMatch(/^<p>a <img src="waiting:\d+"> b<\/p>$/)
    expect(withoutWaiting(pasted?.html ?? '')).toBe('<p>a  b</p>')
    expect(pasted?.left).toEqual([])
  })
  it('each wait for themselves, also those of the next paste', () => {
    const twice = `<img src="${png}"><img src="${png}">`
    const ids = [1, 2].flatMap(
      () => pastedIn(clipboard({ 'text/html': twice }), true)?.pictures.map(({ id }) => id) ?? [],
    )
    expect(new Set(ids).size).toBe(4)
  })
  it('are left out, and said to be, where no picture can be put in or one cannot be read', () => {
    const html = `<p>a<img src="${png}"></p>`
    expect(pastedIn(clipboard({ 'text/html': html }), false)).toEqual({
      html: '<p>a</p>',
      pictures: [],
      left: ['1 picture'],
    })
    const broken = '<p>a<img src="data:image/png;base64,%%%"></p>'
    expect(pastedIn(clipboard({ 'text/html': broken }), true)?.left).toEqual(['1 picture'])
  })
  it('may be files: one copied from a page is its own file, not its address', () => {
    const file = new File(['x'], 'quay.png', { type: 'image/png' })
    const page = pastedIn(
      clipboard({ 'text/html': '<img src="https://elsewhere.example/quay.png">' }, [file]),
      true,
    )
    expect([page?.pictures.length, page?.left]).toEqual([1, []])
    const other = new File(['x'], 'a.pdf', { type: 'application/pdf' })
    expect(pastedIn(clipboard({}, [file, other]), true)).toMatchObject({ left: ['1 file'] })
    expect(picturesAmong([other, other])).toEqual({ pictures: [], left: ['2 files'] })
  })
  it('is nothing for us to read where it comes from our own editor', () => {
    expect(pastedIn(clipboard({ 'text/html': '<p data-pm-slice="0 0 []">a</p>' }), true)).toBeNull()
  })
})

describe('a picture’s address', () => {
  it.each([
    [png, 'image/png', 8],
    ['data:image/svg+xml,%3Csvg/%3E', 'image/svg+xml', 6],
    ['data:image/svg+xml;charset=utf-8,<svg title="ä"/>', 'image/svg+xml', 17],
    ['data:image/svg+xml;charset=utf-8;base64,PHN2Zy8+', 'image/svg+xml', 6],
  ])('is a file: %s', (address, type, size) => {
    const file = fileOfAddress(address, 'picture-1')
    expect([file?.type, file?.size]).toEqual([type, size])
  })
  it.each(['https://elsewhere.example/a.png', 'data:text/html,x', 'data:image/png;base64,%', ''])(
    'is none: %s',
    (address) => {
      expect(fileOfAddress(address, 'x')).toBeNull()
    },
  )
})

describe('where a link leads', () => {
  const parts = [
    { key: 'home', name: 'Home page' },
    { key: 'welcome', name: 'Welcome to {code}' },
    { key: 'week', name: 'Week {week} · Übersicht' },
  ]
  it.each<[typed: string, found: string[]]>([
    ['', ['home', 'welcome', 'week']],
    ['we', ['welcome', 'week']],
    ['week uber', ['week']],
    ['PAGE', ['home']],
    ['code welcome', ['welcome']],
    ['nothing', []],
  ])('is found by words of its name, whatever marks stand on its letters: %s', (typed, found) => {
    expect(placesFor(typed, { parts }).map((place) => ('part' in place ? place.part : ''))).toEqual(
      found,
    )
  })
  it('begins with those whose names begin so', () => {
    const more = [...parts, { key: 'pages', name: 'Pages to read' }]
    expect(placesFor('page', { parts: more })[0]).toEqual({ part: 'pages', name: 'Pages to read' })
  })
  it('is a file of the template as well, told from a part of the same name', () => {
    const files = [{ key: 'plan', title: 'Week plan' }]
    expect(placesFor('week', { parts, files })).toEqual([
      { part: 'week', name: 'Week {week} · Übersicht' },
      { file: 'plan', name: 'Week plan' },
    ])
  })
  it.each([
    ['https://tides.example/a', 'https://tides.example/a'],
    [' mailto:mate@sea.example ', 'mailto:mate@sea.example'],
    ['mate@sea.example', 'mailto:mate@sea.example'],
    ['tides.example/tables?x=1', 'https://tides.example/tables?x=1'],
    ['javascript:alert(1)', null],
    ['welcome', null],
    ['part:welcome', null],
    ['https://', null],
  ])('may be an address as people type it: %s', (typed, address) => {
    expect(addressTyped(typed)).toBe(address)
  })
  it('offers eight places at most, the address before all', () => {
    const many = Array.from({ length: 30 }, (_, i) => ({ key: `k${i}`, name: `a.example ${i}` }))
    const places = placesFor('a.example', { parts: many })
    expect(places.length).toBe(8)
    expect(places[0]).toEqual({ address: 'https://a.example' })
  })
})

describe('a block that is dropped', () => {
  const boxes = [
    { top: 0, bottom: 100 },
    { top: 100, bottom: 120 },
  ]
  it.each([
    [-5, 0],
    [49, 0],
    [51, 1],
    [109, 1],
    [111, 2],
    [900, 2],
  ])('at %i stands before as many as lie above it', (y, before) => {
    expect(dropBefore(boxes, y)).toBe(before)
  })
})
