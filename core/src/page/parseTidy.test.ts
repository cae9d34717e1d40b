import * as fc from 'fast-check'
import { parseFragment } from 'parse5'
import { describe, expect, it } from 'vitest'
import { parseTidy } from './parseTidy.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

/** Nodes with no more than what is read of them. */
const plain = (nodes: readonly object[]): unknown[] =>
  nodes.map((node) => {
    const { nodeName, value, tagName, attrs, childNodes } = node as {
      nodeName: string
      value?: string
      tagName?: string
      attrs?: { name: string; value: string }[]
      childNodes?: object[]
    }
    return tagName === undefined
      ? { nodeName, value }
      : {
          nodeName,
          tagName,
          attrs: attrs?.map((attr) => [attr.name, attr.value]),
          childNodes: plain(childNodes ?? []),
        }
  })
/** parse5 is the reference: it passes the tests that the makers of browsers share. */
const byReference = (html: string) => plain(parseFragment(html).childNodes)

const names =
  'a abbr address article b blockquote br caption code dd details div dl dt em figcaption figure font h2 h3 hr i iframe img kbd li main ol p pre q s section small span strong sub summary table tbody td tfoot th thead tr u ul video source select option button form svg math template script style textarea title nobr body'.split(
    ' ',
  )
const attrs = fc.constantFrom(
  '',
  '',
  '',
  ' class="x"',
  ' href="/a?b=1&copy=2&amp;d"',
  " id='y'",
  ' hidden',
  ' title="a &lt; b &eacute; &eacutex"',
  ' lang="de" lang="fr"',
  ' Data-X="1"',
  ' x=y',
  '  data-wicker-block="k"',
  ' style=""',
  ' a"',
  '/',
)
const text = fc.constantFrom(
  'words',
  ' ',
  '\n',
  '',
  'a &amp; b',
  '&nbsp;',
  '&eacute;t&eacute;',
  '&rsquo',
  '&#8217;',
  '&#0;',
  '&#x110000;',
  '&notit;',
  'a < b',
  '<!-- said -->',
  '\r\n',
  '\0',
  '\uFEFF',
  '\uD800',
  '&ampx',
  '<',
  '</',
  '<3',
  'x>y',
  '&CounterClockwiseContourIntegral;',
)
/** Pieces in any order: most is untidy, and what is taken must be right. */
const pieces = fc
  .array(
    fc.oneof(
      text,
      fc.tuple(fc.constantFrom(...names), attrs).map(([name, one]) => `<${name}${one}>`),
      fc.constantFrom(...names).map((name) => `</${name}>`),
    ),
    { maxLength: 14 },
  )
  .map((all) => all.join(''))
/** Elements that are closed where they should be, whatever stands in what: often what a tidy page has, now and then anything. */
const often = fc.constantFrom(
  'p',
  'p',
  'div',
  'ul',
  'li',
  'a',
  'b',
  'b',
  'em',
  'span',
  'h2',
  'td',
  'img',
  'br',
  'code',
)
const { nested } = fc.letrec<{ nested: string }>((tie) => {
  const element = fc
    .tuple(
      fc.oneof(
        { weight: 12, arbitrary: often },
        { weight: 1, arbitrary: fc.constantFrom(...names) },
      ),
      fc.oneof(
        {
          weight: 6,
          arbitrary: fc.constantFrom('', ' class="x"', ' href="/a?b=1&copy=2&amp;d"', ' hidden'),
        },
        { weight: 1, arbitrary: attrs },
      ),
      tie('nested'),
    )
    .map(([name, one, inside]) =>
      /^(?:br|hr|img|source)$/.test(name)
        ? `<${name}${one}>${inside}`
        : `<${name}${one}>${inside}</${name}>`,
    )
  const table = tie('nested').map(
    (inside) => `<table> <tr><td>${inside}</td>\n<th>h</th></tr></table>`,
  )
  const list = fc
    .array(tie('nested'), { maxLength: 3 })
    .map((items) => `<ul>${items.map((item) => `<li>${item}</li>`).join('\n')}</ul>`)
  const words = fc.oneof(
    {
      weight: 8,
      arbitrary: fc.constantFrom(
        'words',
        ' ',
        '\n',
        'a &amp; b',
        '&nbsp;',
        '&eacute;t&eacute;',
        '&notit;',
      ),
    },
    { weight: 1, arbitrary: text },
  )
  return {
    nested: fc
      .array(
        fc.oneof(
          { maxDepth: 5 },
          { weight: 3, arbitrary: words },
          { weight: 4, arbitrary: element },
          { weight: 1, arbitrary: table },
          { weight: 1, arbitrary: list },
        ),
        { maxLength: 4 },
      )
      .map((all) => all.join('')),
  }
})

describe('a tidy page', () => {
  it.each([
    '',
    'words',
    '<p>One</p>\n<p>Two <b>three</b></p>',
    '<ul>\n<li>a<ul><li>b</li></ul></li>\n</ul>',
    '<dl><dt>a</dt><dd>b</dd></dl>',
    '<table><tr><td>a</td></tr></table>',
    '<table>\n<caption>c</caption><thead><tr><th>h</th></tr></thead>\n<tbody> <tr><td><p>x</p><table><tr><td>y</td></tr></table></td></tr></tbody></table>',
    '<p><img src="a.png" alt="&quot;A&quot;" /><br/>after</p>',
    '<div data-wicker-block="k" class="a b"><h2>T</h2><a href="/x?a=1&amp;b">x</a></div>',
    '<p><iframe src="/f"></iframe></p>',
    '<video src="v"><track kind="captions"><source src="w"></video>',
    '<b><b><b><b><b>five</b></b></b></b></b>',
    '<b><table><tr><td><b>in</b></td></tr></table></b>',
  ])('is read as the reference reads it: %s', (html) => {
    const read = parseTidy(html)
    expect(read).not.toBeNull()
    expect(plain(read ?? [])).toEqual(byReference(html))
  })
  it.each([
    '<p>a<p>b',
    '<p><div>a</div></p>',
    '<b><p>a</b></p>',
    '<li>a</li>',
    '<table>words</table>',
    '<table><tr><p>a</p></tr></table>',
    '<td>a</td>',
    '<h2><h3>a</h3></h2>',
    '<a><span><a>x</a></span></a>',
    '<script>1</script>',
    '<pre>\nx</pre>',
    '<svg></svg>',
    '<p>a</p',
    '</p>',
    '<br></br>',
    '<div/>',
    '<P>a</P>',
    '<p x=y>',
    '<p x="1" x="2">a</p>',
    '<!-- x -->',
    'a\r\nb',
    'a\0b',
    '<iframe>words</iframe>',
    '<p title="a>b</p>',
  ])('is not what needs a whole parser: %s', (html) => {
    expect(parseTidy(html)).toBeNull()
  })
  it('is read as the reference reads it, or not at all, whatever the pieces', () => {
    fc.assert(
      fc.property(pieces, (html) => {
        const read = parseTidy(html)
        if (read) expect(plain(read)).toEqual(byReference(html))
      }),
      propertyRuns(10_000),
    )
  })
  it('is read as the reference reads it, or not at all, whatever stands in what', () => {
    let taken = 0
    fc.assert(
      fc.property(nested, (html) => {
        const read = parseTidy(html)
        if (!read) return
        if (html.includes('<')) taken += 1
        expect(plain(read)).toEqual(byReference(html))
      }),
      propertyRuns(10_000),
    )
    // The property says something only of pages that are taken.
    expect(taken).toBeGreaterThan(propertyRuns(10_000).numRuns / 10)
  })
})
