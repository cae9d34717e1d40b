import * as fc from 'fast-check'
import { parse, parseFragment, type DefaultTreeAdapterTypes as Tree } from 'parse5'
import { describe, expect, it } from 'vitest'
import { addressOf } from '../document/index.ts'
import { letIn } from './letIn.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

/** What of a page would run or load by itself, as a browser's parser sees it; no line of the list that is tested. */
const activeIn = (html: string): string[] => {
  const found: string[] = []
  const look = (nodes: readonly Tree.ChildNode[]): void => {
    for (const node of nodes) {
      if (!('tagName' in node)) continue
      if (
        /^(?:script|iframe|frame|object|embed|applet|svg|form|input|button|textarea|select|link|meta|base|style|template|noscript|video|audio|foreignobject|annotation-xml|math-x)$/i.test(
          node.tagName,
        )
      )
        found.push(`<${node.tagName}>`)
      for (const { name, value } of node.attrs) {
        if (/^on/i.test(name) || /^(?:srcdoc|formaction|action|srcset|ping)$/i.test(name))
          found.push(name)
        // oxlint-disable-next-line no-control-regex
        const bare = value.replace(/[\u0000-\u0020]/g, '')
        if (
          /^(?:href|src|xlink:href|cite)$/i.test(name) &&
          /^[a-z][a-z0-9+.-]*:/i.test(bare) &&
          !/^(?:https?|mailto|tel|ref|item|part|asset|house-text):/i.test(bare)
        )
          found.push(`${name}=${bare}`)
        if (name === 'style' && /url\(|expression|@import/i.test(value)) found.push('style')
      }
      look(node.childNodes)
    }
  }
  look(parseFragment(html).childNodes)
  // In a page, and in a table's cell, the same text may be read otherwise.
  for (const whole of [
    `<body><div>${html}</div></body>`,
    `<table><tr><td>${html}</td></tr></table>`,
  ])
    look(
      parse(whole)
        .childNodes.flatMap((node) => ('childNodes' in node ? node.childNodes : []))
        .filter((child) => !('tagName' in child && child.tagName === 'head')),
    )
  return found
}

const pieces = fc.constantFrom(
  '<p>Words</p>',
  '<b>',
  '</b>',
  '<p',
  '>',
  '"',
  "'",
  '=',
  ' ',
  '\n',
  '/',
  '<!--',
  '-->',
  '<![CDATA[',
  ']]>',
  '&lt;',
  '&#x6a;',
  '&colon;',
  '&Tab;',
  '\u0000',
  'x',
  '<script>',
  '</script>',
  '<SCRIPT SRC=//a.example>',
  '<style>',
  '</style>',
  '<svg>',
  '</svg>',
  '<svg/onload=alert(1)>',
  '<math>',
  '</math>',
  '<mtext>',
  '<mglyph>',
  '<annotation-xml encoding="text/html">',
  '<table>',
  '<td>',
  '</table>',
  '<textarea>',
  '</textarea>',
  '<title>',
  '</title>',
  '<noscript>',
  '<template>',
  '<select>',
  '<iframe srcdoc="<script>1</script>">',
  '<img src=x onerror=alert(1)>',
  '<img src="data:image/png;base64,AA">',
  '<img src="https://a.example/x.png" alt="x">',
  '<a href="javascript:alert(1)">',
  '<a href=" java\tscript:alert(1)">',
  '<a href="&#106;avascript:1">',
  '<a href="vbscript:x">',
  '<a href="https://a.example/">',
  '<a xlink:href="javascript:1">',
  '</a>',
  '<form action="javascript:1">',
  '<button formaction=x>',
  '<object data=x>',
  '<base href="//a.example">',
  '<meta http-equiv=refresh content=0>',
  '<div style="background:url(//a.example)">',
  '<div style="color:red">',
  '<p onclick=alert(1)>',
  '<p ONCLICK=1>',
  '<details ontoggle=1 open>',
  '<o:p>',
  '<font color=red>',
  '<plaintext>',
  '<xmp>',
  '<frameset>',
  '<html onload=1>',
  '<body onload=1>',
)
const hostile = fc.array(pieces, { maxLength: 12 }).map((all) => all.join(''))

describe('what is let in', () => {
  it('holds nothing that runs or loads by itself, stays as it is when it is let in again, and names what was refused', () => {
    let named = 0
    fc.assert(
      fc.property(hostile, (html) => {
        const { html: let1, refused } = letIn(html)
        expect(activeIn(let1)).toEqual([])
        const again = letIn(let1)
        expect(again).toEqual({ html: let1, refused: [] })
        if (refused.length > 0) named += 1
      }),
      propertyRuns(10_000),
    )
    expect(named).toBeGreaterThan(propertyRuns(10_000).numRuns / 10)
  })
  it.each([
    '<p>See <a href="https://tides.example/a?b=1&amp;c=2">the tables</a>, or <a href="mailto:a@b.example">write</a>.</p>',
    '<h3>Due</h3><ul><li><strong>Log</strong></li></ul><table class="grid"><tr><th scope="col">Day</th></tr></table>',
    '<p style="color: #a63d22">In red</p>',
    '<math display="block" alttext="x squared"><msup><mi>x</mi><mn>2</mn></msup></math>',
    '<img src="asset:chart.svg" alt="A chart"><p><a href="part:welcome" data-follows="name">Welcome</a></p>',
    '<p>5 &lt; 6 &amp; 7 &gt; 3</p>',
  ])('is byte for byte what tidy people write: %s', (html) => {
    expect(letIn(html)).toEqual({ html, refused: [] })
  })
  it.each([
    // Out of its place on the page, or over the rest of it.
    ['position:fixed;color:red;top:0', 'color:red'],
    ['z-index:9; color: red', 'color: red'],
    ['color:red;content:"<b>"', 'color:red'],
    ['COLOR: Red', 'COLOR: Red'],
    ['color:red;;', 'color:red;;'],
    ['mso-list:l0', ''],
  ])('lets a style say how words look and where they stand, and no more: %s', (style, kept) => {
    expect(letIn(`<p style='${style}'>a</p>`)).toEqual({
      html: kept === '' ? '<p>a</p>' : `<p style="${kept}">a</p>`,
      refused: [],
    })
  })
  it('keeps words, and names elements, attributes and addresses', () => {
    expect(
      letIn(
        '<p onclick="x()">Read <a href="javascript:x">this</a><script>x</script></p><form><p>Kept</p></form>',
      ),
    ).toEqual({
      html: '<p>Read <a>this</a></p><p>Kept</p>',
      refused: [
        'the address “javascript:x”',
        'the attribute onclick',
        'the element <form>',
        'the element <script>',
      ],
    })
  })
})

describe('an address', () => {
  it.each([
    'https://a.example/',
    'HTTP://a.example',
    'mailto:a@b',
    'tel:+1',
    '#top',
    '/courses/1',
    'page.html',
    '?x=javascript:1',
    '',
    'ref:welcome',
    '//a.example/x',
  ])('may be %s', (address) => {
    expect(addressOf(address)).toBe(address)
  })
  it.each([
    'javascript:1',
    ' javascript:1',
    'java\nscript:1',
    'JAVASCRIPT:1',
    '\u0001javascript:1',
    'java\u200bscript:1',
    'data:text/html,x',
    'vbscript:x',
    'file:///etc/passwd',
    'blob:x',
    'about:blank',
    'ws://a',
  ])('may not be %j', (address) => {
    expect(addressOf(address)).toBeNull()
  })
})
