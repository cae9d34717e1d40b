import { describe, expect, it } from 'vitest'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, type Template } from '../template/index.ts'
import { emptyBase, type Decisions, type WorkedOutPlan } from './index.ts'
import { platformNames, Standing } from './standing.testing.ts'

const withPromise = (html: string): Template => {
  const template = exampleTemplate()
  const block = everyItem(template)
    .find((item) => item.key === 'welcome')
    ?.blocks.find((block) => block.key === 'promise')
  if (block?.kind !== 'fixed-text') throw new Error('no promise')
  block.html = html
  return template
}
const linked = withPromise(
  '<p>We answer every letter. See <a href="https://a.example/">the list</a>.</p>',
)
const two = withPromise(
  '<p>We answer every letter in a day. See <a href="https://a.example/">the list</a>.</p>',
)
const take: { decisions: Decisions } = { decisions: { rule: 'take', single: {} } }
const fieldsOf = (plan: WorkedOutPlan, part: string) =>
  plan.steps.filter((step) => step.part === part).flatMap((step) => step.fields)

describe.each(platformNames)(
  'what an instructor changed in fixed text, on a platform that %s',
  (platform) => {
    it.each([
      ['a link that leads elsewhere', 'https://a.example/', 'https://mine.example/'],
      ['emphasis', 'every letter', '<em>every</em> letter'],
      ['alternative text of a picture', 'the list', '<img src="x.png" alt="mine">the list'],
    ])('%s is a conflict with a new text, though no word differs', (_name, from, to) => {
      const at = new Standing(platform)
      at.deploy(linked)
      const welcome = at.item('Welcome')
      at.write(welcome, (welcome.html ?? '').replace(from, to))
      const stood = at.item('Welcome').html
      const plan = at.plan(two)
      expect(fieldsOf(plan, 'welcome').map(({ does }) => does)).toEqual([
        // A picture changes what the block is told by where its mark is gone: then it is left and told.
        to.includes('<img') && platform !== 'keeps marks'
          ? expect.stringMatching(/conflict|leave/)
          : 'conflict',
      ])
      at.carry(plan)
      expect(at.item('Welcome').html).toBe(stood)
    })
  },
)

describe('a course that is taken over', () => {
  const adopted = (edit: (html: string) => string): Standing => {
    const at = new Standing('keeps marks')
    at.deploy(linked)
    const found = new Map(at.base.parts.map((entry) => [entry.instance, entry.platformId]))
    at.write(at.item('Welcome'), edit(at.item('Welcome').html ?? ''))
    at.base = emptyBase()
    at.deploy(linked, exampleFacts(), { adopt: found })
    return at
  }
  it('keeps a link of its own in a text of the same words: a later version asks', () => {
    const at = adopted((html) => html.replace('https://a.example/', 'https://mine.example/'))
    expect(fieldsOf(at.plan(two), 'welcome').map(({ does }) => does)).toEqual(['conflict'])
  })
  it('keeps an answer that was there, whatever becomes of the prompt', () => {
    const at = adopted((html) =>
      html.replace(/Tell[^<]*|In two[^<]*|say what[^<]*/, 'Mine, all of it'),
    )
    expect(at.item('Welcome').html).toContain('Mine, all of it')
    const asked = structuredClone(linked)
    const hello = everyItem(asked)
      .find((item) => item.key === 'welcome')
      ?.blocks.find((block) => block.key === 'hello')
    if (hello?.kind === 'fill-in') hello.prompt = 'Say it anew.'
    at.deploy(asked)
    expect(at.item('Welcome').html).toContain('Mine, all of it')
  })
  it('that says exactly what the template says is as deployed: a later version writes over it', () => {
    const at = adopted((html) => html)
    expect(fieldsOf(at.plan(two), 'welcome').map(({ does }) => does)).toEqual(['change'])
  })
})

describe('a paragraph of an instructor’s own, written where a block was taken out', () => {
  const own = '<p>Bring a torch, a whistle and a rope of ten metres.</p>'
  const blockOf = /<div data-wicker-block="promise"[^>]*>.*?<\/div>/s
  const replaced = (): Standing => {
    const at = new Standing('keeps marks')
    at.deploy(linked)
    at.write(at.item('Welcome'), (at.item('Welcome').html ?? '').replace(blockOf, own))
    return at
  }
  it('is not taken for the block while others have their marks', () => {
    const at = replaced()
    expect(fieldsOf(at.plan(two), 'welcome')).toMatchObject([
      { does: 'keep', reason: 'was removed from the page; stays removed' },
    ])
  })
  it('is not written over, even where the template is to be taken', () => {
    const at = replaced()
    at.deploy(two, exampleFacts(), take)
    expect(at.item('Welcome').html).toContain('Bring a torch')
  })
  it('stays where fixed text is restored beside it on a platform that strips marks', () => {
    const at = new Standing('strips marks')
    at.deploy(linked)
    const html = at.item('Welcome').html ?? ''
    at.write(
      at.item('Welcome'),
      html
        .replace('every letter. See', 'any letter. Look at')
        .replace(/(the list.*?<\/p>)/s, `$1${own}`),
    )
    expect(at.item('Welcome').html).toContain('Bring a torch')
    at.deploy(linked, exampleFacts(), { restore: { fixedText: true } })
    expect(at.item('Welcome').html).toContain('Bring a torch')
  })
  it('stays in its place when blocks move around it', () => {
    const at = replaced()
    const moved = structuredClone(linked)
    const welcome = everyItem(moved).find((item) => item.key === 'welcome')
    welcome?.blocks.reverse()
    at.deploy(moved, exampleFacts(), take)
    expect((at.item('Welcome').html ?? '').split('Bring a torch')).toHaveLength(2)
  })
})
