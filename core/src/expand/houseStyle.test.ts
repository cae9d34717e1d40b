import { describe, expect, it } from 'vitest'
import { firstHouseStyle } from '../houseStyle/index.ts'
import { analysePage, contrastOf, renderPage } from '../page/index.ts'
import { offeredBlocks } from '../template/index.ts'
import { exampleFile, exampleForm } from '../testing/exampleFiles.testing.ts'
import { htmlOf, pageWith } from './blocks.testing.ts'

const image = {
  key: 'quay',
  fileName: 'quay.svg',
  svg: '<svg xmlns="http://www.w3.org/2000/svg"></svg>',
  alternativeText: 'A quay at low water',
  licence: 'own',
}
const files = [exampleFile('tides', 1), exampleForm('form', 2)]
const styled = { houseStyle: firstHouseStyle, assets: [image], files }
const plain = { assets: [image], files }
const words = (html: string) => analysePage(html).paragraphs.map(({ text }) => text)

describe('blocks in a house style', () => {
  it('have a banner with its title on it, on a ground of its own', () => {
    const banner = {
      kind: 'banner',
      key: 'b',
      strength: 'must',
      image: 'quay',
      above: '{code} · {term}',
      text: '{title}',
    }
    const html = htmlOf(banner, styled)
    expect(html).toMatch(/<img [^>]*alt="A quay at low water"/)
    expect(html).toMatch(
      /background:#143f52;color:#ffffff[^>]*><p [^>]*>NAV 110 · Autumn 2026<\/p><h2/,
    )
    expect(words(html)).toEqual(words(htmlOf(banner, plain)))
    expect(htmlOf(banner, plain)).not.toContain('style=')
    expect(htmlOf({ ...banner, text: undefined, above: undefined }, plain)).toMatch(
      /^<p><img src="asset:quay-[0-9a-f]+\.svg" alt="A quay at low water"><\/p>$/,
    )
  })

  it('have signposts as a numbered route, as cards, or as the list they always were', () => {
    const signposts = (as?: string) => ({
      kind: 'signposts',
      key: 's',
      strength: 'must',
      ...(as ? { as } : {}),
      links: [
        { text: 'Begin', to: 'welcome', about: 'read this first', image: 'quay' },
        { text: 'Go on', to: 'week-overview' },
      ],
    })
    expect(words(htmlOf(signposts('route'), styled))).toEqual([
      '1 Begin: read this first',
      '2 Go on',
    ])
    expect(htmlOf(signposts('route'), plain)).toMatch(
      /^<ol><li><a href="ref:[^"]+">Begin<\/a>: read/,
    )
    expect(htmlOf(signposts('cards'), styled)).toMatch(/<li style="[^"]*"><img [^>]*alt=""/)
    expect(htmlOf(signposts(), styled)).toMatch(/^<ul><li><a/)
  })

  it('have a letter signed by those who teach, or by whom it says', () => {
    const letter = { kind: 'letter', key: 'l', strength: 'must', html: '<p>Dear all,</p>' }
    const [first, by] = words(htmlOf(letter, styled))
    expect(first).toBe('Dear all,')
    expect(by).not.toBe(undefined)
    expect(words(htmlOf({ ...letter, signed: 'The harbour office' }, plain))).toEqual([
      'Dear all,',
      'The harbour office',
    ])
  })

  it('stand beside the text where it is said, with or without a style; the page ends below both', () => {
    const text = (key: string, more = {}) => ({
      kind: 'fixed-text',
      key,
      strength: 'must',
      html: `<p>${key}</p>`,
      ...more,
    })
    for (const more of [styled, plain]) {
      const page = renderPage(
        pageWith([text('a', { beside: true }), text('b')], more),
        '2026-09-16',
      )
      expect(page).toMatch(/<div style="float:right[^"]*"><p>a<\/p><\/div>/)
      expect(page).toMatch(/<p>b<\/p><div style="clear:both"><\/div><\/div>$/)
      expect(words(page)).toEqual(['a', 'b'])
    }
    expect(renderPage(pageWith([text('a'), text('b')], plain), '2026-09-16')).not.toContain('style')
  })

  it('say the same with a style and without it, whatever the kind, and nothing that is hard to read', () => {
    const own: Record<string, object> = {
      'fixed-text': {
        html: '<h2>Tides</h2><p>See <a href="part:welcome">the welcome</a>.</p><hr>',
      },
      title: { text: '{title}' },
      objectives: { objectives: [{ key: 'o', text: 'Plot a fix' }] },
      checklist: { lines: ['Chart'] },
      reading: { works: [{ text: 'Tables' }] },
      video: { title: 'Tides', url: 'https://film.example/1' },
      'assignment-brief': { why: '', whatToDo: '<p>Plot.</p>', handIn: '', judged: '' },
      document: { title: 'Tide table', about: 'For the whole term.', files: ['tides', 'form'] },
      'discussion-prompt': { question: '<p>Why?</p>' },
      'from-elsewhere': { title: 'A model', url: 'https://models.example/1' },
      letter: { html: '<p>Dear all,</p>' },
      'take-care': { html: '<p>Mind the <a href="part:welcome">tide</a>.</p>' },
      'in-short': { html: '<p>Twice a day.</p>' },
      fold: { summary: 'More', html: '<p>The moon.</p>' },
      table: { caption: 'Tides', header: ['Day'], rows: [['Monday']] },
      banner: { image: 'quay', text: '{title}' },
      signposts: { links: [{ text: 'Begin', to: 'welcome' }] },
      'fill-in': { prompt: 'Say it in your words.' },
      'guidance-note': { html: '<p>Advice.</p>' },
      'house-text': { houseText: 'muster' },
      'work-list': {},
      'key-dates': { of: 'term' },
      schedule: {},
      'outcome-map': {},
      'contact-card': {},
    }
    for (const { kind } of offeredBlocks) {
      if (kind === 'kept-block') continue
      const block = { kind, key: 'k', strength: 'must', ...own[kind] }
      expect(own[kind], kind).toBeDefined()
      for (const card of [{}, { card: true }, { card: true, beside: true }]) {
        const [inStyle, without] = [styled, plain].map((more) =>
          renderPage(pageWith([{ ...block, ...card }], more), '2026-09-16'),
        )
        expect(words(inStyle ?? ''), kind).toEqual(words(without ?? ''))
        for (const { look, text } of analysePage(inStyle ?? '').coloured)
          expect(contrastOf(look)?.ratio, `${kind}: ${text}`).toBeGreaterThanOrEqual(4.5)
      }
    }
  })
})
