import { parse } from 'parse5'
import { describe, expect, it } from 'vitest'
import { expandCourse } from '../expand/index.ts'
import { pageWith } from '../expand/blocks.testing.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import {
  analysePage,
  changedPhrases,
  readableDifference,
  readBlocks,
  renderPage,
  shareSurviving,
  wordDifference,
} from './index.ts'

const home = () => {
  const expansion = expandCourse({ template: exampleTemplate(), facts: exampleFacts() })
  if (!expansion.ok) throw new Error('it fits')
  return expansion.value
}
const strip = (html: string) => html.replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
const states = (html: string, part: 'home' | 'welcome' = 'home') => {
  const expected = home()
  const blocks =
    part === 'home' ? expected.home.blocks : (expected.parts[0]?.items[0]?.blocks ?? [])
  return Object.fromEntries(
    readBlocks(blocks, analysePage(html), '2026-09-16').map((reading) => [
      reading.block.key,
      reading.state,
    ]),
  )
}
const homeHtml = () => renderPage(home().home, '2026-09-16')
const welcomeHtml = () => renderPage(home().parts[0]?.items[0] ?? home().home, '2026-09-16')

describe('a paragraph of somebody’s own on a page that lost its marks', () => {
  it('above a prompt that still stands is no answer to it', () => {
    const page = pageWith([
      { kind: 'fill-in', key: 'about', prompt: 'Say what this week is about.' },
      {
        kind: 'discussion-prompt',
        key: 'ask',
        question: '<p>One open question to argue about.</p>',
        answers: 2,
        left: { as: 'asked' },
      },
      { kind: 'fixed-text', key: 'end', html: '<p>The quay is slippery when wet.</p>' },
    ])
    const html = strip(renderPage(page, '2026-09-16'))
    const own = `<p>My own words.</p>${html.replace('<p>One open', '<p>More of my words.</p><p>One open')}`
    const read = readBlocks(page.blocks, analysePage(own), '2026-09-16')
    expect(read.find(({ block }) => block.key === 'about')?.text).not.toContain('My own words')
    expect(read.find(({ block }) => block.key === 'end')?.state).toBe('unchanged')
    const above = readBlocks(page.blocks, analysePage(`<p>My own words.</p>${html}`), '2026-09-16')
    expect(above.map(({ state }) => state)).toEqual(['unfilled', 'unfilled', 'unchanged'])
  })
})

describe('whose paragraph is whose on a page that lost its marks', () => {
  const proposed = {
    kind: 'fixed-text',
    key: 'manners',
    html: '<p>Write to each other as you would speak on the quay at noon.</p>',
    left: { as: 'proposed' },
  } as const
  const asked = { kind: 'fill-in', key: 'hours', prompt: 'When can they speak to you?' } as const
  const film = {
    kind: 'fill-in',
    key: 'film',
    type: 'video',
    prompt: 'A film of the tide.',
  } as const
  const end = {
    kind: 'fixed-text',
    key: 'end',
    html: '<p><a href="https://tides.example/">Tables of the tide</a> hang in the harbour.</p>',
  } as const
  it.each([
    {
      told: 'an answer that is like the proposal above it, which is worded wholly otherwise',
      blocks: [proposed, asked, end],
      writes: ['Be kind.', 'You would find me on the quay at noon: write to me.'],
      says: {
        manners: ['altered', 'Be kind.'],
        hours: ['filled', 'You would find me on the quay at noon: write to me.'],
        end: ['unchanged'],
      },
    },
    {
      told: 'a proposal worded otherwise where the answer below it is gone',
      blocks: [proposed, asked, end],
      writes: ['Write to each other as you would speak on a ship.'],
      says: { manners: ['altered'], hours: ['missing'], end: ['unchanged'] },
    },
    {
      told: 'two texts worded otherwise that changed places',
      blocks: [
        proposed,
        {
          kind: 'fixed-text',
          key: 'rules',
          html: '<p>Nobody leaves the jetty without a vest.</p>',
        },
        end,
      ],
      writes: [
        'Nobody at all leaves the jetty without a vest.',
        'Write to each other as you would speak on a ship at noon.',
      ],
      says: { manners: ['altered'], rules: ['altered'], end: ['unchanged'] },
    },
    {
      told: 'a link of the text below, which is no film',
      blocks: [film, end],
      writes: ['It is on the wall of the office.'],
      says: { film: ['filled', 'It is on the wall of the office.', false], end: ['unchanged'] },
    },
    {
      told: 'a film that stands alone between what is said of it and the text below',
      blocks: [film, end],
      writes: ['Here it is:', '<video src="/f/1.mp4"></video>'],
      says: { film: ['filled', 'Here it is:', true], end: ['unchanged'] },
    },
  ])('tells $told', ({ blocks, writes, says }) => {
    const page = pageWith([...blocks])
    const html = `${writes.map((text) => (text.startsWith('<') ? text : `<p>${text}</p>`)).join('')}${end.html}`
    const read = readBlocks(page.blocks, analysePage(html), '2026-09-16')
    const wanted = new Map<string, readonly unknown[]>(Object.entries(says))
    for (const { block, state, text, ofType } of read)
      expect([block.key, ...[state, text, ofType].slice(0, wanted.get(block.key)?.length)]).toEqual(
        [block.key, ...(wanted.get(block.key) ?? [])],
      )
  })
})

describe('analysing a page', () => {
  it('splits at block boundaries, decodes entities and collapses space', () => {
    expect(
      analysePage(
        '<p>One&nbsp;two<br>three</p><ul><li>a &amp; <b>b</b></li></ul>tail',
      ).paragraphs.map((paragraph) => paragraph.text),
    ).toEqual(['One two', 'three', 'a & b', 'tail'])
  })
  it('reads headings, links and images, with where they stand', () => {
    const page = analysePage('<h2>A <i>b</i></h2><p><a href="/x">go  on</a> <img src="y.png"></p>')
    expect(page.headings).toEqual([
      { level: 2, text: 'A b', named: true, block: null, paragraph: 0 },
    ])
    expect(page.links).toEqual([{ href: '/x', text: 'go on', block: null, paragraph: 1 }])
    expect(page.images).toEqual([
      { source: 'y.png', alternativeText: null, named: false, block: null, paragraph: 1 },
    ])
  })
  it('reads formulas: their signs are words of the text, how they were typed is not, and how they are said is told', () => {
    const formula = (attributes: string) =>
      `<math${attributes}><semantics><mrow><mi>d</mi><mo>≈</mo><mn>2.08</mn><msqrt><mi>h</mi></msqrt></mrow><annotation encoding="application/x-tex">d \\approx 2.08\\sqrt{h}</annotation></semantics></math>`
    const page = analysePage(
      `<p>You see${formula(' alttext="about twice the root"')}miles.</p><p>${formula('')}</p>`,
    )
    expect(page.paragraphs.map(({ text }) => text)).toEqual([
      'You see d ≈ 2.08 h miles.',
      'd ≈ 2.08 h',
    ])
    expect(page.formulas).toEqual([
      { text: 'd ≈ 2.08 h', alternativeText: 'about twice the root', block: null, paragraph: 0 },
      { text: 'd ≈ 2.08 h', alternativeText: null, block: null, paragraph: 1 },
    ])
  })
  it('reads tables, films, lists, colours and languages', () => {
    const page = analysePage(
      '<table><tr><th>Port</th></tr><tr><td>4.2</td></tr></table><video src="m.mp4"><track kind="captions"></video><iframe src="https://films.example/1" title="Film"></iframe><ul><li lang="fr">mer</li></ul><p style="color:#777; font-size: 18pt"><b>dim</b></p>',
    )
    expect(page.tables).toMatchObject([{ headers: 1, cells: 1, rows: 2, layout: false }])
    expect(page.media).toMatchObject([
      { kind: 'video', source: 'm.mp4', captions: true },
      { kind: 'frame', source: 'https://films.example/1', title: 'Film' },
    ])
    expect(page.lists).toHaveLength(1)
    expect(page.paragraphs.map((paragraph) => paragraph.language)).toEqual([null, null, 'fr', null])
    expect(page.coloured).toMatchObject([
      { text: 'dim', look: { colour: '#777', size: 24, bold: true } },
    ])
  })
  it('names links by their image or label', () => {
    expect(
      analysePage(
        '<a href="a"><img src="i" alt="Chart"></a><a href="b" aria-label="Log"></a><a href="c"><p>Deep</p></a>',
      ).links.map((link) => link.text),
    ).toEqual(['Chart', 'Log', 'Deep'])
  })
  it('reads no script, style or frame, and survives nonsense', () => {
    expect(
      analysePage('<script>alert("Sep 14")</script><style>p{}</style><p>x').paragraphs.map(
        (paragraph) => paragraph.text,
      ),
    ).toEqual(['x'])
    expect(() => analysePage('<div>'.repeat(20_000) + 'x')).not.toThrow()
    expect(parse('<p>').nodeName).toBe('#document')
  })
})

describe.each([
  ['with markers', (html: string) => html],
  ['without markers', strip],
])('blocks %s', (_, through) => {
  it('are as deployed: fixed text unchanged, fill-ins unfilled', () => {
    expect(states(through(homeHtml()))).toEqual({
      'course-title': 'unchanged',
      'office-hours': 'unfilled',
      begin: 'unchanged',
      help: 'unchanged',
    })
  })
  it('tell a filled fill-in', () => {
    expect(
      states(through(homeHtml().replace('When can students see you?', 'Mondays at ten, room 4'))),
    ).toMatchObject({ 'office-hours': 'filled' })
  })
  it('tell a prompt beside its answer', () => {
    expect(
      states(
        through(
          homeHtml().replace(
            'When can students see you?',
            'When can students see you? Mondays at ten',
          ),
        ),
      ),
    ).toMatchObject({ 'office-hours': 'prompt-beside-answer' })
  })
  it('tell fixed text that was altered, and a block that is gone', () => {
    expect(
      states(
        through(
          homeHtml().replace('open every weekday until six', 'open every weekday until noon'),
        ),
      ),
    ).toMatchObject({ help: 'altered' })
    expect(states(through(homeHtml().replace(/<p>The help desk.*?<\/p>/, '')))).toMatchObject({
      help: 'missing',
    })
  })
  it('know an earlier revision of a house text', () => {
    const old = welcomeHtml().replace('Call 5500.', 'Call 4400.')
    expect(
      readBlocks(
        home().parts[0]?.items[0]?.blocks ?? [],
        analysePage(through(old)),
        '2026-09-16',
      ).map(({ revision }) => revision),
    ).toEqual([null, null, 1])
  })
  it('do not mind rewrapped paragraphs, other entities and wrappers of the platform', () => {
    const rewritten = `<div class="platform"><section>${homeHtml().replaceAll('<p>', '<p dir="auto">\n   ').replaceAll('help desk', 'help&#32;desk')}</section></div>`
    expect(states(through(rewritten))).toMatchObject({
      help: 'unchanged',
      'office-hours': 'unfilled',
    })
  })
})

describe('word difference', () => {
  it('names what is gone and new', () => {
    const runs = wordDifference(
      'answered within one working day by us',
      'answered when I get round to it by us',
    )
    expect(changedPhrases(runs, 'gone')).toEqual(['within one working day'])
    expect(changedPhrases(runs, 'new')).toEqual(['when I get round to it'])
  })
  it('is told in stretches for reading; texts with little in common as one gone and one new', () => {
    const told = (before: string, after: string) =>
      readableDifference(before, after).map((run) => [run.change, run.text])
    expect(told('answered within one working day by us', 'answered when I can by us')).toEqual([
      ['same', 'answered '],
      ['gone', 'within one working day'],
      ['new', 'when I can'],
      ['same', ' by us'],
    ])
    expect(
      told('How the course runs on each week', 'You will have an answer to every question'),
    ).toEqual([
      ['gone', 'How the course runs on each week'],
      ['new', 'You will have an answer to every question'],
    ])
    expect(told('', 'New words')).toEqual([['new', 'New words']])
    for (const [before, after] of [
      ['a b c d', 'a x y d'],
      ['one two', 'one two three'],
      ['x', 'x'],
    ] as const) {
      const runs = readableDifference(before, after)
      expect(runs.flatMap((run) => (run.change === 'new' ? [] : [run.text])).join('')).toBe(before)
      expect(runs.flatMap((run) => (run.change === 'gone' ? [] : [run.text])).join('')).toBe(after)
    }
  })
  it('counts surviving words as often as they stand', () => {
    expect(shareSurviving('one two two', 'two one')).toBeCloseTo(2 / 3)
    expect(shareSurviving('', 'x')).toBe(1)
  })
})
