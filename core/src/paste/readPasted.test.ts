import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readPasted, readPastedText } from './readPasted.ts'

const htmlOf = (copied: string): string => readPasted(copied).html

describe('what is pasted', () => {
  it.each<[what: string, copied: string, kept: string]>([
    [
      'headings of two levels, whatever levels they were',
      '<h2>Tides</h2><p>Rise.</p><h5>Neap</h5><h6>Low</h6>',
      '<h3>Tides</h3><p>Rise.</p><h4>Neap</h4><h4>Low</h4>',
    ],
    ['a heading without its own bold', '<h1><b>Tides</b><br></h1>', '<h3>Tides</h3>'],
    [
      'a paragraph that is a heading for a screen reader',
      '<div role="heading" aria-level="1">Tides</div>',
      '<h3>Tides</h3>',
    ],
    [
      'emphasis, whether an element or a style says so',
      '<p><span style="font-weight:700">Never</span> <i>turn</i> your <span style="FONT-STYLE: italic">back</span>, <font color="red">ever</font></p>',
      '<p><strong>Never</strong> <em>turn</em> your <em>back</em>, ever</p>',
    ],
    [
      'no emphasis where a style takes it away',
      '<b style="font-weight:normal"><p>Plain</p><ul><li>one</li></ul></b>',
      '<p>Plain</p><ul><li><p>one</p></li></ul>',
    ],
    [
      'emphasis that ends and begins again as one',
      '<p><b>a</b><b>b</b> <b>c</b></p>',
      '<p><strong>ab c</strong></p>',
    ],
    [
      'a formula, once, also where it is drawn a second time for those who see, and nothing that runs in it',
      '<p>See <span><span><math onclick="x()" alttext="root of h"><msqrt><mi href="javascript:1">h</mi></msqrt></math></span><span aria-hidden="true"><span>√h</span></span></span> far.</p>',
      '<p>See <math alttext="root of h"><msqrt><mi>h</mi></msqrt></math> far.</p>',
    ],
    [
      'a formula alone',
      '<div><math display="block"><mi>h</mi></math></div>',
      '<p><math display="block"><mi>h</mi></math></p>',
    ],
    [
      'a link that leads somewhere',
      '<a href="https://charts.example/a?b=1&amp;c=2">Chart</a>',
      '<p><a href="https://charts.example/a?b=1&amp;c=2">Chart</a></p>',
    ],
    [
      'a link inside a paragraph of bold',
      '<p><b>See <a href="mailto:a@b.example"><span>us</span></a></b></p>',
      '<p><strong>See</strong> <a href="mailto:a@b.example"><strong>us</strong></a></p>',
    ],
    ['lines as lines', '<p>One<br>two</p>', '<p>One<br>two</p>'],
    ['two line ends as two paragraphs', 'One<br><br>two', '<p>One</p><p>two</p>'],
    [
      'boxes as paragraphs',
      '<div>One</div><div>two<div>three</div></div>',
      '<p>One</p><p>two</p><p>three</p>',
    ],
    [
      'nothing of what is empty',
      '<p>&nbsp;</p><p><b> </b></p><ul><li></li></ul><table><tr><td></td></tr></table>',
      '',
    ],
    [
      'lists in one another',
      '<ol><li>a<ul><li>b</li></ul></li><li><p>c</p></li></ol>',
      '<ol><li><p>a</p><ul><li><p>b</p></li></ul></li><li><p>c</p></li></ol>',
    ],
    [
      'a list that stands beside its item',
      '<ul><li>a</li><ul><li>b</li></ul><li>c</li></ul>',
      '<ul><li><p>a</p><ul><li><p>b</p></li></ul></li><li><p>c</p></li></ul>',
    ],
    [
      'lists that a word processor draws as paragraphs, deeper ones inside',
      '<p style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">1.<span>&nbsp; </span></span>Course</p><p style="mso-list:l0 level2 lfo1"><![if !supportLists]><span style="mso-list:Ignore">·</span><![endif]>true</p><p style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">2.</span>Speed</p><p>Then rest.</p>',
      '<ol><li><p>Course</p><ul><li><p>true</p></li></ul></li><li><p>Speed</p></li></ol><p>Then rest.</p>',
    ],
    [
      'lists that somebody typed',
      '<p>• gloves<br>• a hat</p><p>1) one<br>2) two</p>',
      '<ul><li><p>gloves</p></li><li><p>a hat</p></li></ul><ol><li><p>one</p></li><li><p>two</p></li></ol>',
    ],
    [
      'one line with a number as a line',
      '<p>1. August is the first day.</p>',
      '<p>1. August is the first day.</p>',
    ],
    [
      'a table with its headings',
      '<table><caption>Watches</caption><thead><tr><th>Hour</th><th>Who</th></tr></thead><tbody><tr><th>00</th><td colspan="2"><p>Mate</p></td></tr></tbody></table>',
      '<table><caption>Watches</caption><tbody><tr><th scope="col">Hour</th><th scope="col">Who</th></tr><tr><th scope="row">00</th><td colspan="2">Mate</td></tr></tbody></table>',
    ],
    [
      'a first row in bold as headings',
      '<table><tr><td><b>Hour</b></td><td><p><b>Who</b></p></td></tr><tr><td>00</td><td>Mate</td></tr></table>',
      '<table><tbody><tr><th scope="col">Hour</th><th scope="col">Who</th></tr><tr><td>00</td><td>Mate</td></tr></tbody></table>',
    ],
    [
      'what a table of one column holds',
      '<table><tr><td><h2>Tides</h2><p>Rise.</p></td></tr></table>',
      '<p>Tides</p><p>Rise.</p>',
    ],
    [
      'a quotation, a rule, superscript and subscript',
      '<blockquote>Look out.</blockquote><hr><p>H<sub>2</sub>O x<span style="vertical-align:super">2</span></p>',
      '<blockquote><p>Look out.</p></blockquote><hr><p>H<sub>2</sub>O x<sup>2</sup></p>',
    ],
    [
      'the fragment alone',
      '<html><body>before<!--StartFragment--><p>In</p><!--EndFragment-->after</body></html>',
      '<p>In</p>',
    ],
    ['signs as what they are', '<p>a &lt; b &amp; "c"</p>', '<p>a &lt; b &amp; &quot;c&quot;</p>'],
  ])('is %s', (_, copied, kept) => {
    expect(htmlOf(copied).replaceAll('"c"', '&quot;c&quot;')).toBe(kept)
  })
  it.each<[what: string, copied: string, left: string[]]>([
    ['how it looked', '<p style="color:red">Red</p>', ['fonts, colours and spacing']],
    [
      'pictures and films',
      '<p>See<img src="data:image/png;base64,AA"><img src="b.png"></p><video></video>',
      ['1 image', '1 video'],
    ],
    [
      'links that lead nowhere from here',
      '<a href="#top">up</a> <a href="file:///c:/x.doc">file</a>',
      ['2 links that lead nowhere from here'],
    ],
    [
      'what was deleted and commented',
      '<p><del>old</del>new<span class="MsoCommentReference">[1]</span></p>',
      ['fonts, colours and spacing', '1 deleted passage', '1 comment'],
    ],
    [
      'a table inside a table',
      '<table><tr><td>a</td><td><table><tr><td>x</td><td>y</td></tr></table></td></tr></table>',
      ['1 table inside a table'],
    ],
    ['nothing', '<p>Plain</p>', []],
  ])('says what was left out: %s', (_, copied, left) => {
    expect(readPasted(copied).left).toEqual(left)
  })
  it.each([
    '<p onclick="x()">a</p><script>x()</script>',
    '<a href="javascript:x()">a</a>',
    '<a href=" java\nscript:x()">a</a>',
    '<p><svg onload=x()></svg><iframe src="https://x.example"></iframe>a</p>',
    '<table><tr><td><style>*{}</style>a</td></tr></table>',
    '<math><mi><script>x()</script></mi></math>a',
  ])('never runs nor asks for anything: %s', (copied) => {
    expect(htmlOf(copied)).not.toMatch(/script|onclick|onload|style|iframe|svg/i)
    expect(htmlOf(copied)).toContain('a')
  })
  it.each<[what: string, copied: string]>([
    ['spaces', `a${' '.repeat(300_000)}b`],
    ['line ends', `a${'<br> '.repeat(30_000)}b`],
    ['line ends in a heading', `<h2>a${'<br>'.repeat(30_000)}b</h2>`],
    ['marks', `a${'<b> </b>'.repeat(30_000)}b`],
    ['bullets', `a<p>${'• '.repeat(100_000)}b</p>`],
    ['styles', `a<p style="${'mso-list:'.repeat(30_000)}">b</p>`],
    ['cells', `a<table><tr>${'<td>x</td>'.repeat(20_000)}</tr></table>b`],
  ])('is read in no time, however many %s there are', (_, copied) => {
    expect(htmlOf(copied)).toMatch(/a[^]*b/)
  })
  it('keeps pictures that came along where they stood, with what is said of them', () => {
    const dot = 'data:image/png;base64,AA=='
    const pasted = readPasted(
      `<h2><img src="${dot}"></h2><h2>Tides</h2><p>a <img src="${dot}" alt=" The
       quay "> b</p><ul><li><picture><source srcset="x"><img src="data:image/svg+xml,x"></picture></li></ul>` +
        '<p><img src="data:text/html,x" alt="x"><img src="https://elsewhere.example/a.png"></p>',
    )
    expect(pasted).toEqual({
      html:
        '<p><img src="asset:pasted-0"></p><h3>Tides</h3><p>a <img src="asset:pasted-1"> b</p>' +
        '<ul><li><p><img src="asset:pasted-2"></p></li></ul>',
      pictures: [
        { source: dot, alternativeText: '' },
        { source: dot, alternativeText: 'The quay' },
        { source: 'data:image/svg+xml,x', alternativeText: '' },
      ],
      left: ['2 images'],
    })
  })
  it('takes twenty pictures at most, and says how many it left out', () => {
    const pasted = readPasted('<p><img src="data:image/png;base64,AA"></p>'.repeat(23))
    expect([pasted.pictures.length, pasted.left]).toEqual([20, ['3 images']])
    expect(pasted.html.match(/<img/g)?.length).toBe(20)
  })
  it('is read however deep it is', () => {
    expect(htmlOf(`${'<div>'.repeat(5000)}deep${'</div>'.repeat(5000)}`)).toContain('deep')
  })
})

/** Written by Debian’s LibreOffice 7.4.7 (Writer, Calc), from a document and a sheet of our own. */
describe('what a word processor wrote', () => {
  const sample = (name: string): string =>
    readFileSync(new URL(`samples/${name}.html`, import.meta.url), 'utf8')
  it('is read with its headings, lists in one another, table, link, lines and quotation', () => {
    expect(readPasted(sample('wordProcessor'))).toEqual({
      html:
        '<h3>Standing a watch</h3><p>Read the <strong>standing orders</strong> and <em>the night book</em> before <a href="https://charts.example/orders">you come up</a>.</p>' +
        '<h4>Before the watch</h4><ul><li><p>Eat something</p></li><li><p>Dress for the wind</p><ul><li><p>gloves</p></li><li><p>a hat</p></li></ul></li><li><p>Be early</p></li></ul>' +
        '<h4>Handing over</h4><ol><li><p>Course and speed</p></li><li><p>Traffic</p></li></ol>' +
        '<table><tbody><tr><th scope="col">Hour</th><th scope="col">Who</th></tr><tr><td>00–04</td><td>Second mate</td></tr><tr><td>04–08</td><td>Chief mate</td></tr></tbody></table>' +
        '<p>One line<br>and another.</p><blockquote><p>Keep a sharp lookout.</p></blockquote><p>H<sub>2</sub>O and x<sup>2</sup></p>',
      pictures: [],
      left: ['fonts, colours and spacing'],
    })
  })
  it('is a table, where it was a sheet', () => {
    expect(readPasted(sample('spreadsheet')).html).toBe(
      '<table><tbody><tr><td>Week</td><td>Topic</td><td>Due</td></tr><tr><td>1</td><td>Charts &amp; &lt;datums&gt;</td><td>14 Sep</td></tr><tr><td>2</td><td>Tides</td><td>21 Sep</td></tr></tbody></table>',
    )
  })
})

describe('pasted text', () => {
  it.each<[what: string, text: string, kept: string]>([
    [
      'keeps lines, and parts paragraphs at blank lines',
      'One\r\ntwo\n\nthree\n',
      '<p>One<br>two</p><p>three</p>',
    ],
    ['keeps signs as what they are', '<b>&', '<p>&lt;b&gt;&amp;</p>'],
    [
      'makes lists of lines with bullets',
      '- gloves\n- a hat',
      '<ul><li><p>gloves</p></li><li><p>a hat</p></li></ul>',
    ],
    [
      'makes a table of columns',
      'a\tb\nc\t',
      '<table><tbody><tr><td>a</td><td>b</td></tr><tr><td>c</td><td></td></tr></tbody></table>',
    ],
    ['is empty where it says nothing', '\n \n', ''],
  ])('%s', (_, text, kept) => {
    expect(readPastedText(text).html).toBe(kept)
  })
})
