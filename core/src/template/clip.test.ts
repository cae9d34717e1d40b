import { describe, expect, it } from 'vitest'
import { readDocument } from '../document/index.ts'
import { emptyTemplate } from '../begin/index.ts'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import {
  applyEdit,
  ClippedParts,
  clipParts,
  everyPart,
  isModule,
  pasteEdits,
  type Template,
} from './index.ts'

const clipped = (template: Template, ...keys: string[]) => {
  const clip = clipParts(template, new Set(keys))
  if (!clip) throw new Error('nothing was clipped')
  const read = readDocument(ClippedParts, JSON.parse(JSON.stringify(clip)))
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value
}
const pasted = (into: Template, clip: ClippedParts, parent: string | null, at: number): Template =>
  pasteEdits(into, clip, parent, at).edits.reduce((now, edit) => {
    const next = applyEdit(now, edit)
    if (!next.ok) throw new Error(JSON.stringify(next.problems))
    return next.value.template
  }, into)

describe('rows that are copied', () => {
  it('come under fresh keys, what is inside a chosen module only once', () => {
    const template = exampleTemplate()
    const twice = pasted(template, clipped(template, 'week', 'quiz'), null, 2)
    expect(
      everyPart(twice)
        .map((part) => part.key)
        .slice(-6),
    ).toEqual([
      'week-2',
      'week-overview-2',
      'discussion-2',
      'assignment-2',
      'quiz-2',
      'checklist-2',
    ])
    expect(everyPart(twice)).toHaveLength(everyPart(template).length + 6)
  })
  it('take along what they show into a template that has none of it', () => {
    const other = pasted(
      emptyTemplate('other', 'Other'),
      clipped(exampleTemplate(), 'welcome'),
      null,
      0,
    )
    expect(other.houseTexts.map((text) => text.key)).toEqual(['muster'])
    expect(other.parts.map((part) => part.key)).toEqual(['welcome'])
  })
  it('take along every image they show: on a card, as a portrait, in a text', () => {
    const template = exampleTemplate()
    const page = everyPart(template).find(({ key }) => key === 'welcome')
    if (!page || isModule(page)) throw new Error('the example has a welcome')
    const images = ['in-text', 'on-card', 'portrait', 'elsewhere'].map((key) => ({
      key,
      fileName: `${key}.svg`,
      svg: `<svg xmlns="http://www.w3.org/2000/svg"><title>${key}</title></svg>`,
      alternativeText: key,
      licence: 'own',
    }))
    template.assets.push(...images)
    page.blocks.push(
      {
        kind: 'signposts',
        key: 'ways',
        strength: 'must',
        as: 'cards',
        links: [{ text: 'Here', to: 'welcome', image: 'on-card' }],
      },
      {
        kind: 'letter',
        key: 'letter',
        strength: 'must',
        html: '<p>Dear all, <img src="asset:in-text.svg" alt="a chart"></p>',
        portrait: 'portrait',
      },
    )
    expect(
      clipped(template, 'welcome')
        .assets.map(({ key }) => key)
        .sort(),
    ).toEqual(expect.arrayContaining(['in-text', 'on-card', 'portrait']))
    expect(clipped(template, 'welcome').assets.map(({ key }) => key)).not.toContain('elsewhere')
  })
  it('take along what their questions show, and lead to each other in them', () => {
    const template = exampleTemplate()
    template.assets.push({
      key: 'buoy',
      fileName: 'buoy.svg',
      svg: '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><circle r="4"/></svg>',
      alternativeText: 'A buoy',
      licence: 'drawn for the college',
    })
    const quiz = everyPart(template).find(({ key }) => key === 'quiz')
    if (!quiz || isModule(quiz)) throw new Error('the example has a quiz')
    const text =
      '<p>As <a href="part:checklist">here</a>? <img src="asset:buoy.svg" alt="A buoy"></p>'
    quiz.questions = {
      list: [{ key: 'q', body: { kind: 'true-or-false', text, points: 1, right: true } }],
    }
    const clip = clipped(template, 'quiz', 'checklist')
    expect(clip.assets.map(({ key }) => key)).toEqual(['buoy'])
    const twice = everyPart(pasted(template, clip, null, 2)).find(({ key }) => key === 'quiz-2')
    expect(JSON.stringify(twice)).toContain('part:checklist-2')
  })
  it('speak of each other under their new keys, exceptions too', () => {
    const template = exampleTemplate()
    const week = template.parts[1]
    const first = template.parts[0]
    if (!week || !isModule(week) || !first || !isModule(first)) throw new Error('they are modules')
    week.exceptions = [
      {
        key: 'first-week',
        anchor: { at: 'first' },
        omit: false,
        leaveOut: ['quiz'],
        set: [{ part: 'discussion', strength: 'may' }],
        add: [],
      },
    ]
    const overview = week.items[0]
    if (!overview || isModule(overview)) throw new Error('it is a page')
    overview.blocks = [
      {
        kind: 'fixed-text',
        key: 'go',
        strength: 'must',
        html: '<p><a href="part:quiz">quiz</a> <a href="part:welcome">welcome</a></p>',
      },
    ]
    const twice = pasted(template, clipped(template, 'week'), null, 2).parts[2]
    if (!twice || !isModule(twice)) throw new Error('it is a module')
    expect(twice.exceptions[0]).toMatchObject({
      key: 'first-week-2',
      leaveOut: ['quiz-2'],
      set: [{ part: 'discussion-2' }],
    })
    expect(JSON.stringify(twice.items[0])).toContain('part:quiz-2')
    expect(JSON.stringify(twice.items[0])).toContain('part:welcome\\"')
  })
  it('lose signposts to what is not there, and nothing else', () => {
    const template = exampleTemplate()
    const first = template.parts[0]
    if (!first || !isModule(first) || !first.items[0] || isModule(first.items[0]))
      throw new Error('it is a page')
    first.items[0].blocks.push({
      kind: 'signposts',
      key: 'way',
      strength: 'must',
      links: [
        { text: 'Quiz', to: 'quiz' },
        { text: 'Here', to: 'welcome' },
      ],
    })
    const other = pasted(emptyTemplate('other', 'Other'), clipped(template, 'welcome'), null, 0)
      .parts[0]
    expect(other && !isModule(other) && other.blocks.at(-1)).toMatchObject({
      links: [{ text: 'Here', to: 'welcome' }],
    })
  })
  it('that are no parts are refused', () => {
    expect(
      readDocument(ClippedParts, {
        schema: 'wickerframe.parts/1',
        parts: [{ kind: 'page', key: 'x', name: '{nonsense}' }],
      }).ok,
    ).toBe(false)
  })
})
