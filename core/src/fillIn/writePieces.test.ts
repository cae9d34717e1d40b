import { describe, expect, it } from 'vitest'
import { linesAsHtml, writePieces, type Written } from './writePieces.ts'

type Piece = Pick<Written, 'says' | 'nth' | 'html'>
const piece = (says: string, html: string, nth = 0): Piece => ({ says, nth, html })
const asked =
  (inSentences: boolean) =>
  (html: string, ...pieces: Piece[]) =>
    writePieces(
      html,
      pieces.map((one) => ({ ...one, within: { from: 0, to: html.length }, inSentences })),
    )
const write = asked(false)
const within = asked(true)

describe('an answer in place of what asks', () => {
  it.each<[string, string, string, string]>([
    ['a paragraph’s words', '<p dir="ltr">Say it.</p>', '<p>Said.</p>', '<p dir="ltr">Said.</p>'],
    [
      'several paragraphs',
      '<p dir="ltr">Say it.</p>',
      '<p>One.</p><p>Two.</p>',
      '<p>One.</p><p>Two.</p>',
    ],
    [
      'a list in a paragraph’s place',
      '<p>Say it.</p>',
      '<ul><li>a</li></ul>',
      '<ul><li>a</li></ul>',
    ],
    [
      'a list in a member’s place',
      '<ul><li>Say it.</li><li>b</li></ul>',
      '<ul><li>a</li><li>c</li></ul>',
      '<ul><li>a</li><li>c</li><li>b</li></ul>',
    ],
    [
      'paragraphs within a member',
      '<ul><li>Say it.</li></ul>',
      '<p>a</p><p>b</p>',
      '<ul><li><p>a</p><p>b</p></li></ul>',
    ],
    [
      'a cell',
      '<table><tbody><tr><td>Say it.</td></tr></tbody></table>',
      '<p>a</p>',
      '<table><tbody><tr><td>a</td></tr></tbody></table>',
    ],
    [
      'a paragraph of a cell',
      '<table><tbody><tr><td><p>Say it.</p></td></tr></tbody></table>',
      '<p>a</p>',
      '<table><tbody><tr><td><p>a</p></td></tr></tbody></table>',
    ],
    ['words in tags of their own', '<p><em>Say</em> <b>it.</b></p>', '<p>a</p>', '<p>a</p>'],
    ['words over lines, with entities', '<p>\n  Say&nbsp;it&period;\n</p>', '<p>a</p>', '<p>a</p>'],
    ['nothing', '<p>Say it.</p><p>b</p>', '', '<p>b</p>'],
    [
      'words that stand between breaks',
      '<div>a<br>Say it.<br>b</div>',
      '<p>c</p>',
      '<div>a<br>c<br>b</div>',
    ],
  ])('%s', (_, html, answer, wanted) => {
    expect(write(html, piece('Say it.', answer))).toBe(wanted)
  })
  it('is told from another that asks the same', () => {
    const html = '<p>Say it.</p><p>x</p><p>Say it.</p>'
    expect(write(html, piece('Say it.', '<p>2</p>', 1))).toBe('<p>Say it.</p><p>x</p><p>2</p>')
    expect(write(html, piece('Say it.', '<p>1</p>'), piece('Say it.', '<p>2</p>', 1))).toBe(
      '<p>1</p><p>x</p><p>2</p>',
    )
  })
  it('is looked for in its block only', () => {
    const html = '<div><p>Say it.</p></div><div><p>Say it.</p></div>'
    expect(
      writePieces(html, [
        { ...piece('Say it.', '<p>a</p>'), within: { from: 25, to: 50 }, inSentences: false },
      ]),
    ).toBe('<div><p>Say it.</p></div><div><p>a</p></div>')
  })
  it.each([
    ['that is not there', '<p>Say something.</p>'],
    ['that is only part of a paragraph, when the answer is a list', '<div>Say it. And more.</div>'],
    ['whose paragraph is not closed', '<p>Say it.'],
  ])('is not written for a piece %s', (_, html) => {
    expect(write(html, piece('Say it.', '<ul><li>a</li></ul>'))).toBeNull()
  })
})

describe('an answer within a sentence', () => {
  it.each<[string, string, string, string]>([
    [
      'its words',
      '<p>Find me [where &amp; when], please.</p>',
      '<p>in room 4</p>',
      '<p>Find me in room 4, please.</p>',
    ],
    [
      'emphasis kept',
      '<p>Find me [where&nbsp;&amp;\n when].</p>',
      '<strong>4</strong>',
      '<p>Find me <strong>4</strong>.</p>',
    ],
    ['a note that goes, with its space', '<p>Find me [where & when].</p>', '', '<p>Find me.</p>'],
  ])('%s', (_, html, answer, wanted) => {
    expect(within(html, piece('[where & when]', answer))).toBe(wanted)
  })
  it('takes no list', () => {
    expect(within('<p>At [when].</p>', piece('[when]', '<ul><li>a</li></ul>'))).toBeNull()
  })
  it('finds signs that patterns know, and quotation marks of any kind', () => {
    expect(within('<p>“[a (b)? $1 + *]”</p>', piece('[a (b)? $1 + *]', 'c'))).toBe('<p>“c”</p>')
    expect(within('<p>[the “crew’s” words]</p>', piece('[the "crew\'s" words]', 'c'))).toBe(
      '<p>c</p>',
    )
  })
})

describe('lines', () => {
  it('are paragraphs or members of a list, and nothing of them is a tag', () => {
    expect(linesAsHtml(['a <b>', ' ', 'c & d '], 'paragraphs')).toBe(
      '<p>a &lt;b&gt;</p><p>c &amp; d</p>',
    )
    expect(linesAsHtml(['a', 'b'], 'list')).toBe('<ul><li>a</li><li>b</li></ul>')
    expect(linesAsHtml([' '], 'list')).toBe('')
  })
})
