import { describe, expect, it } from 'vitest'
import type { AskingPage } from '@wickerframe/core'
import { answersOf, asForm, htmlOfTyped, typedAmiss, type Typed } from './typedAnswers.ts'

const page = (item: string, things: Partial<AskingPage['things'][number]>[]): AskingPage => ({
  item,
  name: item,
  url: null,
  week: null,
  neededBy: '2026-08-31',
  things: things.map((thing, i) => ({
    block: `b${i}`,
    title: 'Title',
    type: 'text',
    strength: 'must',
    within: null,
    hint: null,
    example: null,
    forCourse: false,
    pieces: [{ says: 'Say it', nth: 0, mayGo: false }],
    ...thing,
  })),
})

describe('what somebody typed, as it is written', () => {
  it.each<[string, Typed | undefined, Parameters<typeof htmlOfTyped>[1], string | null]>([
    ['lines', { as: 'lines', text: 'a <b>\n\nc' }, 'text', '<p>a &lt;b&gt;</p><p>c</p>'],
    ['a list', { as: 'lines', text: 'a\nb' }, 'list', '<ul><li>a</li><li>b</li></ul>'],
    ['only spaces', { as: 'lines', text: ' \n ' }, 'text', null],
    ['nothing', undefined, 'text', null],
    ['a text without words', { as: 'html', html: '<p> </p>' }, 'rich-text', null],
    ['a text', { as: 'html', html: '<h3>a</h3>' }, 'rich-text', '<h3>a</h3>'],
    [
      'an address without words',
      { as: 'link', address: ' https://a.example/?a&b ', words: '' },
      'link',
      '<p><a href="https://a.example/?a&amp;b">https://a.example/?a&amp;b</a></p>',
    ],
    [
      'somebody’s mail',
      { as: 'link', address: 'a@b.example', words: 'Write to me' },
      'e-mail',
      '<p><a href="mailto:a@b.example">Write to me</a></p>',
    ],
    [
      'what runs as an address',
      { as: 'link', address: 'javascript:alert(1)', words: 'a' },
      'link',
      null,
    ],
    ['no address yet', { as: 'link', address: '', words: 'a' }, 'link', null],
    ['what is to go', { as: 'gone' }, 'text', ''],
  ])('%s', (_, typed, type, html) => {
    expect(htmlOfTyped(typed, type)).toBe(html)
  })
  it('says what is wrong with an address, and nothing of one that is not begun', () => {
    expect(typedAmiss({ as: 'link', address: 'a.example', words: '' }, 'link')).toContain(
      'https://',
    )
    expect(typedAmiss({ as: 'link', address: 'me', words: '' }, 'e-mail')).toContain('e-mail')
    expect(typedAmiss({ as: 'link', address: '', words: 'a' }, 'link')).toBeNull()
  })
})

describe('a form of what is asked', () => {
  it('asks what holds for the whole course once, and writes it at every place', () => {
    const pages = asForm([
      page('one', [{ forCourse: true }, {}]),
      page('two', [{ forCourse: true }]),
      page('three', [{ forCourse: true }, {}]),
    ])
    expect(pages.map(({ item, asked }) => [item, asked.length])).toEqual([
      ['one', 2],
      ['three', 1],
    ])
    const [first] = pages[0]?.asked ?? []
    const answers = answersOf(pages, { [first?.key ?? '']: { as: 'lines', text: 'a' } })
    expect(answers.map(({ item, block }) => [item, block])).toEqual([
      ['one', 'b0'],
      ['two', 'b0'],
      ['three', 'b0'],
    ])
  })
  it('tells pieces that say the same apart, and asks none twice', () => {
    const piece = (nth: number) => ({ says: 'Say it', nth, mayGo: false })
    const [form] = asForm([page('one', [{ pieces: [piece(0), piece(1)] }])])
    const keys = form?.asked.map(({ key }) => key) ?? []
    expect(new Set(keys).size).toBe(2)
    expect(answersOf(form ? [form] : [], { [keys[1] ?? '']: { as: 'lines', text: 'b' } })).toEqual([
      { item: 'one', block: 'b0', says: 'Say it', nth: 1, html: '<p>b</p>' },
    ])
  })
})
