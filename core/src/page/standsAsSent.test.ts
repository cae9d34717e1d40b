import { describe, expect, it } from 'vitest'
import { standsAsSent } from './index.ts'

const sent =
  '<div style="background:#f6eee2;color:#1d2a32"><p>Mind the <a href="/t" style="color:#0b5a6e">tide</a> – twice.</p></div>'

describe('whether a piece of a page is what was sent', () => {
  it('is told as a platform writes it', () => {
    expect(standsAsSent(sent.replace('–', '&ndash;').replace('<p>', '<p id="kp-1">'), sent)).toBe(
      true,
    )
  })
  it('is told where a page has no look at all: of a platform that drops styles, or from before there were any', () => {
    expect(standsAsSent('<div><p>Mind the <a href="/t">tide</a> – twice.</p></div>', sent)).toBe(
      true,
    )
    expect(standsAsSent('<p>Mind the <a href="/t">tide</a> – twice.</p>', sent)).toBe(true)
  })
  it.each([
    ['other words', '<p>Mind the <a href="/t">tide</a> – thrice.</p>'],
    ['a link of somebody’s own', '<p>Mind the <a href="/other">tide</a> – twice.</p>'],
    ['a picture of somebody’s own', '<p>Mind the <a href="/t">tide</a> – twice.<img src="a"></p>'],
    ['a stress of somebody’s own', '<p>Mind the <a href="/t"><em>tide</em></a> – twice.</p>'],
    [
      'a colour of somebody’s own',
      '<p style="color:red">Mind the <a href="/t">tide</a> – twice.</p>',
    ],
  ])('is not where it has %s', (_, there) => {
    expect(standsAsSent(there, sent)).toBe(false)
  })
})
