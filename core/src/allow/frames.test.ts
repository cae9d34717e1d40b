import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { analysePage, parseTidy } from '../page/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { framed, frameOf, framesInWords, frameWords, HostName, hostOf, letIn } from './index.ts'

const host = 'film.kestrelsound.example'
const place = frameOf(`https://${host}/watch?a=1&amp;b=2`, 'How to moor, 6 &lt;min&gt;', 'wide')

describe('what is shown within a page', () => {
  it('is shown from a host that is allowed, under its title, and kept from the page around it', () => {
    const html = framed(letIn(place).html, [host])
    expect(html).toMatch(
      /^<div><iframe src="https:\/\/film\.kestrelsound\.example\/watch\?a=1&amp;b=2" title="How to moor, 6 &lt;min&gt;"/,
    )
    expect(html).toMatch(/sandbox="[a-z -]+"/)
    expect(html).not.toMatch(/allow-top-navigation/)
    expect(analysePage(html).media).toEqual([
      expect.objectContaining({
        kind: 'frame',
        source: `https://${host}/watch?a=1&b=2`,
        title: 'How to moor, 6 <min>',
      }),
    ])
    expect(parseTidy(html)).not.toBeNull()
  })

  it.each([
    ['another host', 'https://films.example/watch'],
    ['a host that only ends alike', `https://evil-${host}/watch`],
    ['a host that only begins alike', `https://${host}.evil.example/watch`],
    ['the host as a name of somebody', `https://${host}@evil.example/watch`],
    ['no TLS', `http://${host}/watch`],
    ['a script', 'javascript:alert(1)'],
    ['something inside the course', 'part:welcome'],
  ])('is not shown from %s', (_, address) => {
    expect(framed(letIn(frameOf(address, 'Film', 'tall')).html, [host])).not.toContain('iframe')
  })

  it('is nothing that pasted or imported HTML can bring along', () => {
    const { html, refused } = letIn(`<p>a</p><iframe src="https://${host}/watch"></iframe>`)
    expect(framed(html, [host])).toBe('<p>a</p>')
    expect(refused).toEqual(['the element <iframe>'])
  })

  it('never lets a title or an address out of its quotation marks (property)', () => {
    const text = fc.string({ unit: fc.constantFrom('a', '"', '<', '>', '&', "'", ' ', '=', '\n') })
    fc.assert(
      fc.property(text, text, (name, path) => {
        const written = letIn(frameOf(`https://${host}/${path}`, name, 'wide')).html
        const html = framed(written, [host])
        for (const frame of analysePage(html).media) expect(hostOf(frame.source)).toBe(host)
        expect(analysePage(html).media.length).toBeLessThanOrEqual(1)
        expect(html).not.toMatch(/<(?!\/?(?:div|iframe|p|a)\b)/)
      }),
      propertyRuns(),
    )
  })

  it('is said in words where nothing may load', () => {
    const html = framed(letIn(place).html, [host])
    expect(framesInWords(html)).toBe(
      `<div><span>[How to moor, 6 &lt;min&gt;, shown here, from ${host}]</span></div>`,
    )
    expect(frameWords('', 'about:blank')).toBe('[content, shown here]')
  })

  it('names hosts as addresses do', () => {
    expect(HostName.safeParse(host).success).toBe(true)
    for (const wrong of ['https://a.example', 'a.example/x', 'localhost', '*.example', 'A.example'])
      expect(HostName.safeParse(wrong).success, wrong).toBe(false)
    expect(hostOf('https://Film.Example:8443/x')).toBe('film.example')
  })
})
