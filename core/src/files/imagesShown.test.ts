import { describe, expect, it } from 'vitest'
import { withImages } from './imagesShown.ts'

const html =
  '<p><img src="asset:quay.svg" alt="The quay"><img alt="" src="asset:buoy-2_a.png"><img src="asset:quay.svg"></p>'

describe('images that HTML shows', () => {
  it.each([
    ['of elsewhere', '<img src="https://kestrelsound.example/asset:quay.svg">'],
    ['that is only written of', '<p>src=asset:quay.svg</p>'],
    ['with a name that no file has', '<img src="asset:../quay.svg">'],
    ['in another attribute', '<img data-src="quay" title="asset:quay.svg">'],
  ])('are none %s', (_, other) => {
    expect(withImages(other, () => 'x')).toBe(other)
  })
  it('lead elsewhere once they are written anew, each where it stands, and stay where there is nowhere', () => {
    expect(withImages(html, (name) => (name === 'quay.svg' ? '/files/1' : null))).toBe(
      html.replaceAll('asset:quay.svg', '/files/1'),
    )
  })
})
