import { describe, expect, it } from 'vitest'
import { askedThing, askingPage } from '../../../testing/asked.testing.ts'
import type { Typed } from './keptAnswers.ts'
import { answersOf, asForm, htmlOfTyped, readyIn, typedAmiss } from './typedAnswers.ts'

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
    [
      'a file, which is sent beside',
      { as: 'file', file: { fileName: 'plan.pdf', content: 'ab'.repeat(32), bytes: 4 } },
      'file',
      '',
    ],
    ['a day', { as: 'lines', text: 'Monday, 14 September' }, 'date', '<p>Monday, 14 September</p>'],
    ['what is no day', { as: 'lines', text: 'soon' }, 'date', null],
    ['what is to go', { as: 'gone' }, 'text', ''],
  ])('%s', (_, typed, type, html) => {
    expect(htmlOfTyped(typed, type)).toBe(html)
  })
  it('says what is wrong with an address or a day, and nothing of one that is not begun', () => {
    expect(typedAmiss({ as: 'link', address: 'a.example', words: '' }, 'link')).toContain(
      'https://',
    )
    expect(typedAmiss({ as: 'link', address: 'me', words: '' }, 'e-mail')).toContain('e-mail')
    expect(typedAmiss({ as: 'link', address: '', words: 'a' }, 'link')).toBeNull()
    expect(typedAmiss({ as: 'lines', text: 'soon' }, 'date')).toContain('14 September')
    expect(typedAmiss({ as: 'lines', text: ' ' }, 'date')).toBeNull()
    expect(typedAmiss({ as: 'lines', text: 'soon' }, 'text')).toBeNull()
  })
})

describe('a form of what is asked', () => {
  it('asks what holds for the whole course once, and writes it at every place', () => {
    const everywhere = askedThing('Say it', { forCourse: true })
    const pages = asForm([
      askingPage('one', [everywhere, askedThing('Only here')]),
      askingPage('two', [everywhere]),
      askingPage('three', [everywhere, askedThing('Only there')]),
    ])
    expect(pages.map(({ item, asked }) => [item, asked.length])).toEqual([
      ['one', 2],
      ['three', 1],
    ])
    const [first] = pages[0]?.asked ?? []
    const answers = answersOf(pages, { [first?.key ?? '']: { as: 'lines', text: 'a' } })
    expect(readyIn(pages, { [first?.key ?? '']: { as: 'lines', text: 'a' } })).toBe(1)
    expect(answers.map(({ item, block }) => [item, block])).toEqual([
      ['one', everywhere.block],
      ['two', everywhere.block],
      ['three', everywhere.block],
    ])
  })
  it('tells pieces that say the same apart, and asks none twice', () => {
    const piece = (nth: number) => ({ says: 'Say it', nth, mayGo: false })
    const [form] = asForm([
      askingPage('one', [askedThing('Say it', { pieces: [piece(0), piece(1)] })]),
    ])
    const keys = form?.asked.map(({ key }) => key) ?? []
    expect(new Set(keys).size).toBe(2)
    expect(answersOf(form ? [form] : [], { [keys[1] ?? '']: { as: 'lines', text: 'b' } })).toEqual([
      { item: 'one', block: 'block of Say it', says: 'Say it', nth: 1, html: '<p>b</p>' },
    ])
  })
})
