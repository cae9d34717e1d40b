import { describe, expect, it } from 'vitest'
import { pageDocument, safeHtml } from './safeHtml.ts'

const platform = 'https://platform.example'

describe('course HTML as it is shown', () => {
  it('keeps how a house style makes it look', () => {
    const html = '<div style="float:right;background:#f6eee2;color:#1d2a32">Hours</div>'
    expect(safeHtml(html, platform)).toBe(html)
  })
  it('has nothing that leaves its place, lies over the rest, loads or runs', () => {
    expect(
      safeHtml(
        '<p style="position:fixed;z-index:9;color:red;background:url(//a.example)" onclick="x()">a</p><script>x()</script>',
        platform,
      ),
    ).toBe('<p style="color:red">a</p>')
  })
  it('shows images of the platform alone', () => {
    expect(safeHtml('<img src="/files/quay.svg" alt="A quay" width="56">', platform)).toBe(
      '<img src="https://platform.example/files/quay.svg" alt="A quay" width="56" />',
    )
    expect(safeHtml('<img src="https://a.example/t.png" alt="">', platform)).not.toContain(
      'a.example',
    )
  })
  it('is a document whose title is plain text', () => {
    expect(pageDocument('<b>Tides</b> & more', '<p>a</p>', platform)).toContain(
      '<title>&lt;b&gt;Tides&lt;/b&gt; &amp; more</title>',
    )
  })
})
