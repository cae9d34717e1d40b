import { describe, expect, it } from 'vitest'
import { templateFromSentences, usualSentences } from '../begin/index.ts'
import { expandCourse, everyExpected } from '../expand/index.ts'
import { filledIn, firstCourse, perfectAnswer, type FillIn } from '../firstCourse/index.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, answerTypes, isModule, type Block, type Template } from '../template/index.ts'
import { firstCourseRemarks } from './firstCourseRemarks.ts'
import { findingsOverTerm, firstFindings } from './firstFindings.ts'

const found = (change: (template: Template) => void, template = exampleTemplate()) => {
  const changed = structuredClone(template)
  change(changed)
  const facts = exampleFacts()
  const course = firstCourse(changed, facts, facts.term.lastDay)
  if (!course.ok) throw new Error(JSON.stringify(course.problems))
  return findingsOverTerm(changed, facts, course.value)?.map(({ rule, part }) => `${rule} ${part}`)
}
const page = (template: Template, key: string) => {
  const item = everyItem(template).find((each) => each.key === key)
  if (!item) throw new Error(`no part ${key}`)
  return item
}
const text = (html: string): Block => ({ kind: 'fixed-text', key: 'new', strength: 'must', html })
const onWelcome = (html: string) => (template: Template) =>
  void page(template, 'welcome').blocks.push(text(html))

describe('the first course of a template', () => {
  it('of which all is right is told nothing, on no day of its term', () => {
    expect(found(() => undefined)).toEqual([])
    const begun = templateFromSentences({ ...usualSentences(), lengths: [5] })
    if (!begun.ok) throw new Error('it can be made')
    expect([...firstFindings(begun.value)].map(({ found }) => found)).toEqual([[]])
  })
  it.each<[what: string, change: (template: Template) => void, told: string]>([
    [
      'sample text left in fixed text',
      onWelcome('<p>Lorem ipsum dolor sit amet, consectetur adipiscing elit.</p>'),
      'filler-text welcome',
    ],
    [
      'an image that nobody described',
      onWelcome('<p><img src="/files/a.png"></p>'),
      'alt-missing welcome',
    ],
    [
      'a link to what is not there',
      onWelcome('<p><a href="/courses/first/gone">the map</a></p>'),
      'link-dead welcome',
    ],
    [
      'a table whose headings head nothing',
      onWelcome(
        '<table><tr><td>Hour</td><td>Who</td></tr><tr><td>1</td><td>Mate</td></tr><tr><td>2</td><td>Cook</td></tr></table>',
      ),
      'table-without-headers welcome',
    ],
    [
      'a due date after its week',
      (template) => {
        page(template, 'assignment').settings.due = { from: 'week-end', days: 9, time: '23:59' }
      },
      'due-outside-module assignment',
    ],
  ])('is told of %s, which is the template’s own', (_, change, told) => {
    expect(found(change)).toContain(told)
  })
  it('is told once of what is wrong for every kind of course, with the first kind and day', () => {
    const template = exampleTemplate()
    template.appliesTo = {
      ...template.appliesTo,
      modalities: ['on-campus', 'online'],
      weeks: [5, 6],
    }
    onWelcome('<p><img src="/files/a.png"></p>')(template)
    const all = [...firstFindings(template)].map(({ found }) => found)
    expect(all.length).toBe(4)
    expect(all[0]).toMatchObject([
      { rule: 'alt-missing', part: 'welcome', variant: 'on campus, 5 weeks', fromWeek: null },
    ])
    expect(all.slice(1)).toEqual([[], [], []])
  })
})

describe('remarks of the first course', () => {
  it('say of which courses nothing is known: what cannot be checked is not what is told nothing', () => {
    const template = exampleTemplate()
    template.appliesTo = { ...template.appliesTo, weeks: [8] }
    template.policies = [{ rule: 'no-such-rule', strength: 'must', parameters: {}, off: false }]
    expect([...firstFindings(template)]).toEqual([{ variant: 'on campus, 8 weeks', found: null }])
    expect([...firstCourseRemarks(template)].flat()).toMatchObject([
      {
        part: null,
        message: expect.stringMatching(
          /^It cannot be worked out for courses that are on campus, 8 weeks:/,
        ),
      },
    ])
  })
  it('say what would be told, in which kind of course and from when on, in one sentence', () => {
    const template = exampleTemplate()
    template.appliesTo = { ...template.appliesTo, weeks: [8] }
    onWelcome('<p>Lorem ipsum dolor sit amet.</p>')(template)
    expect([...firstCourseRemarks(template)].flat()).toEqual([
      {
        check: 'first-course',
        severity: 'warning',
        part: 'welcome',
        block: null,
        message:
          'A course filled in perfectly would be told: “Welcome to XYZ 100” still says “Lorem ipsum dolor sit amet.” (on campus, 8 weeks).',
      },
    ])
  })
})

describe('an answer of somebody who does all that is asked', () => {
  const asked = (more: object): FillIn => ({
    kind: 'fill-in',
    key: 'x',
    strength: 'must',
    type: 'text',
    prompt: 'What?',
    scope: 'place',
    earlierPrompts: [],
    ...more,
  })
  const count = (html: string) => html.replace(/<[^>]*>/g, ' ').match(/\S+/g)?.length ?? 0
  it.each([
    { minWords: 40 },
    { maxWords: 5 },
    { minWords: 3, maxWords: 3 },
    { maxWords: 1 },
    { minWords: 300 },
  ])('has as many words as are wanted: %o', (wanted) => {
    for (const type of ['text', 'rich-text', 'list'] as const) {
      const words = count(perfectAnswer(asked({ type, ...wanted }), 3, undefined))
      expect(words).toBeGreaterThanOrEqual(wanted.minWords ?? 1)
      if (!(type === 'list' && wanted.maxWords === 1))
        expect(words).toBeLessThanOrEqual(wanted.maxWords ?? Infinity)
    }
  })
  it('is another one each time, whatever is asked for', () => {
    for (const type of answerTypes) {
      if (type === 'e-mail') continue
      const answers = Array.from({ length: 40 }, (_, i) =>
        perfectAnswer(asked({ type }), i + 1, undefined),
      )
      expect([type, new Set(answers).size]).toEqual([type, 40])
    }
  })
  it('stands in every fill-in; asked for once, it is the same everywhere, and no note stays', () => {
    const template = exampleTemplate()
    const question: Block = {
      kind: 'fill-in',
      key: 'room',
      strength: 'must',
      type: 'text',
      prompt: 'Which room?',
      scope: 'course',
      earlierPrompts: [],
    }
    for (const part of template.parts)
      if (isModule(part))
        for (const item of part.items) if (!isModule(item)) item.blocks.push(question)
    const expected = expandCourse({ template, facts: exampleFacts() })
    if (!expected.ok) throw new Error(JSON.stringify(expected.problems))
    const filled = filledIn(expected.value)
    const blocks = [filled.home, ...everyExpected(filled.parts)].flatMap((part) => part.blocks)
    expect(blocks.some(({ kind }) => kind === 'guidance-note')).toBe(false)
    for (const { definition, html } of blocks)
      if (definition.kind === 'fill-in') expect(html).not.toContain(definition.prompt)
    const rooms = blocks.filter(({ key }) => key === 'room').map(({ html }) => html)
    expect(rooms.length).toBeGreaterThan(3)
    expect(new Set(rooms).size).toBe(1)
  })
})
