import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { blockRegions, normalHtml } from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

const marked = (key: string, inner: string) =>
  `<div data-wicker-block="${key}" data-wicker-part="p">${inner}</div>`
const textOf = (
  html: string,
  key: string,
  blocks: { key: string; html: string }[],
  needed?: ReadonlySet<string>,
) => {
  const region = blockRegions(html, blocks, needed ?? null).regions.get(key)
  return region ? html.slice(region.inner.from, region.inner.to) : null
}

describe('where blocks stand in a page', () => {
  const blocks = [
    { key: 'a', html: '<p>One</p>' },
    { key: 'b', html: '<p>Two</p><p>Three</p>' },
    { key: 'c', html: '<p>Four</p>' },
  ]
  it('is told by their markers, with the bytes between them', () => {
    const html = `<p>mine</p>${marked('a', '<p>changed</p>')}\n${marked('b', '<p>Two</p>')}`
    expect([
      textOf(html, 'a', blocks),
      textOf(html, 'b', blocks),
      textOf(html, 'c', blocks),
    ]).toEqual(['<p>changed</p>', '<p>Two</p>', null])
  })
  it('by what they say where markers were stripped, also unwrapped, wrapped again or rewrapped', () => {
    expect(textOf('<div><p>One</p></div><div><p>Two</p>\n<p>Three</p></div>', 'b', blocks)).toBe(
      '<p>Two</p>\n<p>Three</p>',
    )
    expect(
      textOf('<section><p>One</p><p>Two</p><p>Three</p><p>Four</p></section>', 'b', blocks),
    ).toBe('<p>Two</p><p>Three</p>')
    expect(textOf('<p dir="auto"> O n e </p><p>Two</p>', 'a', blocks)).toBe(
      '<p dir="auto"> O n e </p>',
    )
  })
  it('by the gap between its neighbours when it says something else, and not where two could stand there', () => {
    const html = '<p>One</p><p>My own words, and more</p><p>Four</p>'
    expect(textOf(html, 'b', blocks)).toBe('<p>My own words, and more</p>')
    const both = blockRegions('<p>My own</p><p>Four</p>', blocks)
    expect([both.doubtful.has('a'), both.doubtful.has('b'), both.regions.has('c')]).toEqual([
      true,
      true,
      true,
    ])
  })
  it('where a parser ends them: a heading in a heading closes more than its tags say', () => {
    const html = `${marked('a', '<h2><p><div><h2><h2></h2></h2></div></p></h2>')}<p>mine</p>`
    const alone = new Set(['a'])
    expect(blockRegions(html, blocks, alone).regions.get('a')?.outer).toEqual(
      blockRegions(html, blocks).regions.get('a')?.outer,
    )
  })
  it('two with the same marker are in doubt', () => {
    expect(blockRegions(marked('a', 'x') + marked('a', 'y'), blocks).doubtful.has('a')).toBe(true)
  })
  it('is the same told from the tags alone as by the parser (WHATWG HTML, parse5), in generated pages', () => {
    const text = fc.constantFrom('words', 'a &amp; b', '“quoted”', '', '1 &lt; 2')
    const inline = fc.letrec((tie) => ({
      node: fc.oneof(
        { depthSize: 'small' },
        text,
        fc
          .tuple(
            fc.constantFrom(
              'p',
              'b',
              'a href="x>y"',
              "span title='</div>'",
              'ul',
              'li',
              'dd',
              'h2',
              'h3',
              'button',
              'div',
              'div class="x"',
            ),
            fc.array(tie('node'), { maxLength: 3 }),
          )
          .map(([tag, inner]) => `<${tag}>${inner.join('')}</${tag.split(' ')[0]}>`),
      ),
    })).node as fc.Arbitrary<string>
    const pages = fc.array(
      fc.oneof(
        inline,
        fc.tuple(fc.constantFrom('a', 'b', 'c'), inline).map(([key, inner]) => marked(key, inner)),
      ),
      { maxLength: 6 },
    )
    fc.assert(
      fc.property(pages, (parts) => {
        const html = parts.join('\n')
        const keys = ['a', 'b', 'c'].filter(
          (key) => html.split(`data-wicker-block="${key}"`).length === 2,
        )
        const quick = blockRegions(html, blocks, new Set(keys))
        const parsed = blockRegions(html, blocks)
        for (const key of keys)
          expect([key, quick.regions.get(key)?.outer, quick.regions.get(key)?.inner]).toEqual([
            key,
            parsed.regions.get(key)?.outer,
            parsed.regions.get(key)?.inner,
          ])
      }),
      propertyRuns(),
    )
  })
})

describe('the normal form of HTML', () => {
  it('does not mind what platforms rewrite: entities, space, ids, classes, order of attributes', () => {
    expect(normalHtml('<p id="kp-1" class="x">A &ndash; b</p>\n')).toBe(normalHtml('<p>A – b</p>'))
    expect(normalHtml('<a title="t" href="/x">l</a>')).toBe(
      normalHtml('<a href="/x" title="t" data-y="1">l</a>'),
    )
  })
  it('minds words, targets and structure', () => {
    const forms = [
      '<p>A</p>',
      '<p>B</p>',
      '<p><b>A</b></p>',
      '<p>A</p><p></p>',
      '<a href="/1">A</a>',
      '<a href="/2">A</a>',
    ].map(normalHtml)
    expect(new Set(forms).size).toBe(forms.length)
  })
})
