import { describe, expect, it } from 'vitest'
import { cutAroundMiddle, ImageSet, sizeMisfit } from './imageSet.ts'
import { aspectOf, imageSizeOf } from './imageSize.ts'

describe('how many times wider an image is than high', () => {
  const svg = (attributes: string) => ({
    svg: `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${attributes}></svg>`,
  })
  /** The first bytes of a PNG: its signature, and the header with its sides. */
  const png = (width: number, height: number) => {
    const bytes = Buffer.alloc(32)
    bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
    bytes.writeUInt32BE(width, 16)
    bytes.writeUInt32BE(height, 20)
    return { base64: bytes.toString('base64') }
  }
  it.each<[string, Parameters<typeof aspectOf>[0], number | null]>([
    ['a drawing by its view box', svg('viewBox="0 0 1200 300"'), 4],
    ['by that rather than by its sides', svg('width="10" height="10" viewBox="0,0,300,100"'), 3],
    ['a drawing by its sides', svg('height="50px" width="100px"'), 2],
    ['a drawing that says neither', svg('width="100%"'), null],
    ['a flat one', svg('viewBox="0 0 10 0"'), null],
    ['a PNG', png(1600, 400), 4],
    ['another photograph', { base64: Buffer.from([0xff, 0xd8, 0xff]).toString('base64') }, null],
  ])('%s', (_, image, wanted) => expect(aspectOf(image)).toBe(wanted))
})

/** Each of 37 by 23 pixels as Chromium's encoders wrote them, colour profiles left out. */
const encoded = {
  jpeg: '/9j/4AAQSkZJRgABAQAAAQABAAD/2wBDAFA3PEY8MlBGQUZaVVBfeMiCeG5uePWvuZHI////////////////////////////////////////////////////2wBDAVVaWnhpeOuCguv/////////////////////////////////////////////////////////////////////////wAARCAAXACUDASIAAhEBAxEB/8QAFQABAQAAAAAAAAAAAAAAAAAAAAP/xAAUEAEAAAAAAAAAAAAAAAAAAAAA/8QAFQEBAQAAAAAAAAAAAAAAAAAAAAL/xAAUEQEAAAAAAAAAAAAAAAAAAAAA/9oADAMBAAIRAxEAPwCACkgAAAAAAAAAP//Z',
  lossy:
    'UklGRj4AAABXRUJQVlA4IDIAAAAwAwCdASolABcAP3G202G0ryqmJWgCkC4JZwDO7A8KmggAAP7l+iE3Yd89NItWdaAAAA==',
  lossless: 'UklGRh4AAABXRUJQVlA4TBEAAAAvJIAFAAdQoorUrP+BiOh/AAA=',
  extended:
    'UklGRn4AAABXRUJQVlA4WAoAAAAQAAAAJAAAFgAAQUxQSBkAAAABDzD/ERGCLMBkJvnbZbCvK4CI/gfU3KsbAFZQOCA+AAAAUAMAnQEqJQAXAD9lnMFYsyunI7Vb+AJgLIljAMtoVFSthsAA/u9y0/ZBQZBGNVvvA3xaQvUmj6bjywrAAAA=',
  png: 'iVBORw0KGgoAAAANSUhEUgAAACUAAAAXCAYAAACMLIalAAAASElEQVR4AezSMQ0AQAgEwQ9SXgta8O8ALGwJyZLQXUGGi5/V2zbewvEo+hSllKICNGenlKICNGenlKICNGenlKICNGenTksNAAAA//8Q8iV6AAAABklEQVQDABOaQobC3qWrAAAAAElFTkSuQmCC',
}
/** A segment of a JPEG that says nothing of its size, as a camera writes before the picture (ITU-T T.81, section B.2.4.6). */
const preface = (bytes: number): Buffer =>
  Buffer.concat([
    Buffer.from([0xff, 0xe1, (bytes + 2) >> 8, (bytes + 2) & 255]),
    Buffer.alloc(bytes),
  ])

describe('the size of a photograph', () => {
  it.each(Object.entries(encoded))('as it says of itself: %s', (_, base64) =>
    expect(imageSizeOf({ base64 })).toEqual({ width: 37, height: 23, isDrawn: false }),
  )
  it('is found behind long prefaces', () => {
    const jpeg = Buffer.from(encoded.jpeg, 'base64')
    const long = Buffer.concat([
      jpeg.subarray(0, 2),
      preface(60_000),
      preface(30_000),
      jpeg.subarray(2),
    ])
    expect(imageSizeOf({ base64: long.toString('base64') })).toMatchObject({
      width: 37,
      height: 23,
    })
  })
  it('is told by none that is cut off, and by none at any length otherwise than it is', () => {
    for (const base64 of Object.values(encoded))
      for (let length = 0; length < base64.length; length += 4) {
        const size = imageSizeOf({ base64: base64.slice(0, length) })
        if (size !== null) expect(size).toMatchObject({ width: 37, height: 23 })
      }
  })
})

describe('the size of a set', () => {
  const banners = { width: 1200, height: 240 }
  const drawn = (width: number, height: number) => ({
    svg: `<svg viewBox="0 0 ${width} ${height}"></svg>`,
  })
  const photograph = (width: number, height: number) => {
    const bytes = Buffer.from(encoded.png, 'base64')
    bytes.writeUInt32BE(width, 16)
    bytes.writeUInt32BE(height, 20)
    return { base64: bytes.toString('base64') }
  }
  it.each([
    ['a drawing of its proportion, at any size', drawn(5, 1), null],
    ['a drawing of another', drawn(4, 1), 'proportion'],
    ['a photograph of its size', photograph(1200, 240), null],
    ['one with more pixels', photograph(2400, 480), null],
    ['one off by what rounding costs', photograph(1201, 241), null],
    ['one with fewer pixels', photograph(600, 120), 'small'],
    ['one of another proportion, large as it is', photograph(4000, 3000), 'proportion'],
    ['one that does not say', { base64: 'AAAA' }, 'untold'],
  ])('%s', (_, image, why) => {
    expect(sizeMisfit(image, banners)?.why ?? null).toBe(why)
  })
  it.each([
    [4000, 3000, { left: 0, top: 1100, width: 4000, height: 800 }],
    [3000, 300, { left: 750, top: 0, width: 1500, height: 300 }],
    [1200, 240, { left: 0, top: 0, width: 1200, height: 240 }],
  ])('cut out of %i × %i around the middle', (width, height, cut) => {
    expect(cutAroundMiddle({ width, height }, banners)).toEqual(cut)
  })
  it('holds each image once', () => {
    const set = { key: 'a', title: 'A', size: banners, images: ['x', 'y'] }
    expect(ImageSet.safeParse(set).success).toBe(true)
    expect(ImageSet.safeParse({ ...set, images: ['x', 'x'] }).success).toBe(false)
  })
})
