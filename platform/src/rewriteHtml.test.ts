import { describe, expect, it } from 'vitest'
import { analysePage } from '@wickerframe/core'
import { rewriteHtml } from './rewriteHtml.ts'
import { safeHtml } from './screens/layout.ts'

const html =
  '<div data-wicker-block="a" id="x"><p>It’s open – from 9…</p><p onclick="steal()">b</p></div><script>alert(1)</script><a href="javascript:alert(1)">c</a>'

const keepsAll = { unknownAttributes: false, styles: false }

describe('the platform’s rewriting', () => {
  it('drops what runs, prefixes ids, writes entities, keeps the words', () => {
    const rewritten = rewriteHtml(html, keepsAll)
    expect(rewritten).not.toMatch(/script|onclick|javascript/)
    expect(rewritten).toContain('id="kp-x"')
    expect(rewritten).toContain('It&rsquo;s open &ndash; from 9&hellip;')
    expect(analysePage(rewritten).paragraphs.map((paragraph) => paragraph.text)).toEqual([
      "It's open – from 9…",
      'b',
      'c',
    ])
  })
  it('strips markers only where it is told to, and comes to rest', () => {
    expect(rewriteHtml(html, keepsAll)).toContain('data-wicker-block="a"')
    expect(rewriteHtml(html, { ...keepsAll, unknownAttributes: true })).not.toContain('data-wicker')
    expect(rewriteHtml(rewriteHtml(html, keepsAll), keepsAll)).toBe(rewriteHtml(html, keepsAll))
  })
  it('keeps what is shown from a host on its list, and no other frame', () => {
    const frame = (source: string) => `<iframe src="${source}" title="a"></iframe>`
    expect(rewriteHtml(frame('https://film.kestrelsound.example/1'), keepsAll)).toContain('iframe')
    expect(rewriteHtml(frame('https://films.example/1'), keepsAll)).toBe('')
    expect(rewriteHtml('<iframe srcdoc="<script>x()</script>"></iframe>', keepsAll)).toBe('')
    expect(safeHtml(frame('https://film.kestrelsound.example/1'))).toBe(
      '<p>[a, shown here, from film.kestrelsound.example]</p>',
    )
  })
  it('strips styles only where it is told to', () => {
    const styled = '<p style="color:#143f52">a</p>'
    expect(rewriteHtml(styled, keepsAll)).toBe(styled)
    expect(rewriteHtml(styled, { ...keepsAll, styles: true })).toBe('<p>a</p>')
  })
})

describe('what is shown', () => {
  it('keeps the styles on the list, and nothing that leaves its place', () => {
    expect(
      safeHtml('<p style="color:#143f52;position:fixed;background:url(//a.example)">a</p>'),
    ).toBe('<p style="color:#143f52">a</p>')
    expect(
      safeHtml('<div style="width:max(270px,min(100%,(600px - 100%)*999))">a</div>'),
    ).toContain('width:max(270px,min(100%,(600px - 100%)*999))')
  })
  it('never runs', () => {
    expect(
      safeHtml(
        '<img src=x onerror=alert(1)><iframe src="//evil"></iframe><a href="javascript:alert(1)">x</a><svg onload=alert(1)>',
      ),
    ).toBe('<img src="x" /><p>[content, shown here]</p><a>x</a>')
  })
})
