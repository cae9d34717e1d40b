import { describe, expect, it } from 'vitest'
import { Asset, imageAmong, ImageName, imageNameFor, storedImage } from './image.ts'
import { imageKindOf } from './imageBytes.ts'

const bytes = (text: string): Uint8Array => Uint8Array.from(text, (letter) => letter.charCodeAt(0))
const png = '\u0089PNG\r\n\u001a\n\0\0\0\rIHDR'
const asset = (more: object) =>
  Asset.safeParse({
    key: 'photo',
    fileName: 'photo.png',
    alternativeText: 'a',
    licence: 'b',
    ...more,
  })

describe('images', () => {
  it('are told by their content: the signatures of the standards, and the root element of a drawing', () => {
    expect(imageKindOf(bytes(png))).toBe('png')
    expect(imageKindOf(bytes('\u00ff\u00d8\u00ff\u00e0\0\u0010JFIF'))).toBe('jpeg')
    expect(imageKindOf(bytes('RIFF\u0024\0\0\0WEBPVP8 '))).toBe('webp')
    expect(imageKindOf(bytes('RIFF\u0024\0\0\0WAVEfmt '))).toBeNull()
    expect(
      imageKindOf(
        bytes('\u00ef\u00bb\u00bf<?xml version="1.0"?><!-- <p> --><svg viewBox="0 0 1 1"/>'),
      ),
    ).toBe('svg')
    expect(imageKindOf(bytes('<html><svg></svg></html>'))).toBeNull()
    expect(imageKindOf(bytes(''))).toBeNull()
  })
  it('have names without folders, leading dots or two dots together; any name leads to one that may be used', () => {
    for (const name of ['photo.png', 'photo.png.svg', 'a_b-c.2.jpeg'])
      expect(ImageName.safeParse(name).success).toBe(true)
    for (const name of ['.photo.png', 'a..png', '../a.png', 'a/b.png', '', 'ä.png'])
      expect(ImageName.safeParse(name).success).toBe(false)
    for (const name of ['..', '.x', 'Übersicht Größe (2).PNG', '港.png', 'a/../b..svg', ''])
      expect(ImageName.safeParse(imageNameFor(name)).success).toBe(true)
    expect(imageNameFor('Übersicht 2.png')).toBe('Ubersicht-2.png')
  })
  it('are refused where their content is none of what the platform takes', () => {
    const base64 = Buffer.from(png, 'latin1').toString('base64')
    expect(asset({ base64 }).success).toBe(true)
    expect(asset({ svg: '<svg/>' }).success).toBe(true)
    expect(asset({ svg: '<svg/>', base64 }).success).toBe(false)
    expect(asset({}).success).toBe(false)
    expect(asset({ svg: 'hello' }).success).toBe(false)
    expect(asset({ base64: Buffer.from('%PDF-1.7').toString('base64') }).success).toBe(false)
  })
  it('are kept under a name of their content: the same name with other content is another file', () => {
    const image = Asset.parse(asset({ svg: '<svg/>' }).data)
    const same = { ...image, alternativeText: 'other words' }
    const other = { ...image, svg: '<svg></svg>' }
    expect(storedImage(image).name).toMatch(/^photo-[0-9a-f]{16}\.svg$/)
    expect(storedImage(same).name).toBe(storedImage(image).name)
    expect(storedImage(other).name).not.toBe(storedImage(image).name)
    expect(ImageName.safeParse(storedImage(image).name).success).toBe(true)
  })
})

describe('an image that comes into a template', () => {
  const drawing = (more: object): Asset => ({
    key: 'quay',
    fileName: 'quay.svg',
    svg: '<svg/>',
    alternativeText: 'The quay',
    licence: 'own work',
    ...more,
  })
  it('is the one that is there already where it shows the same, whatever it is called', () => {
    const held = [drawing({}), drawing({ key: 'boat', fileName: 'boat.svg', svg: '<svg id="b"/>' })]
    const { key: _, ...same } = drawing({ fileName: 'other.svg', svg: '<svg id="b"/>' })
    expect(imageAmong(same, held)).toBe(held[1])
  })
  it('never takes the key or the name of another, however they are written', () => {
    const held = [
      drawing({}),
      drawing({ key: 'quay-2', fileName: 'QUAY-2.svg', svg: '<svg id="2"/>' }),
    ]
    const { key: _, ...other } = drawing({ svg: '<svg id="3"/>' })
    expect(imageAmong(other, held)).toMatchObject({ key: 'quay-3', fileName: 'quay-3.svg' })
    expect(Asset.safeParse(imageAmong(other, held)).success).toBe(true)
    expect(imageAmong(drawing({ fileName: 'sign', svg: '<svg id="4"/>' }), held)).toMatchObject({
      key: 'quay-3',
      fileName: 'sign',
    })
  })
})
