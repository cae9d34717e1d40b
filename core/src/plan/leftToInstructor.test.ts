import { describe, expect, it } from 'vitest'
import { everyCourseItem } from '../course/index.ts'
import { exampleFacts } from '../rules/example/exampleCourse.ts'
import { everyItem, type Block, type Template } from '../template/index.ts'
import { firstVersion } from './generated.testing.ts'
import { platformNames, Standing, type PlatformName } from './standing.testing.ts'

const blockOf = (template: Template, key: string): Block => {
  const block = [template.home, ...everyItem(template)]
    .flatMap(({ blocks }) => blocks)
    .find((other) => other.key === key)
  if (!block) throw new Error(`no ${key}`)
  return block
}
/** A second version in which one block is other than in the first. */
const changed = (key: string, change: object): Template => {
  const template = firstVersion(true)
  Object.assign(blockOf(template, key), change)
  return template
}
const facts = exampleFacts()
const deployed = (
  write: (html: string) => string = (html) => html,
  platform: PlatformName = 'keeps marks',
) => {
  const at = new Standing(platform)
  at.deploy(firstVersion(true), facts)
  at.writePages(write)
  return at
}
const pages = (at: Standing): string =>
  everyCourseItem(at.course)
    .map(({ item }) => item.html ?? '')
    .join('\n')
/** What a plan says of a block, once for all places it stands in. */
const said = (at: Standing, two: Template, key: string, then = facts): string[] => [
  ...new Set(
    at
      .plan(two, then)
      .steps.flatMap((step) => step.fields)
      .filter(({ field }) => field === `block:${key}`)
      .map(({ does, reason }) => `${does}: ${reason}`),
  ),
]

describe('a new version of what is left to the instructor', () => {
  it('asks in other words where nothing was answered yet', () => {
    const two = changed('left-brief', { whatToDo: '<p>Say it in three steps.</p>' })
    const at = deployed()
    at.deploy(two, facts)
    expect(pages(at)).toContain('Say it in three steps.')
    expect(pages(at)).not.toContain('what they do, step by step')
  })
  it('leaves an answer as it is, though half of the pieces still ask', () => {
    const two = changed('left-brief', { whatToDo: '<p>Say it in three steps.</p>' })
    const at = deployed((html) =>
      html.replace('Tell students why they do this.', 'So that nobody runs aground.'),
    )
    expect(said(at, two, 'left-brief')).toEqual([
      'keep: the prompt changed in the template; the answer stays',
    ])
    const before = pages(at)
    at.deploy(two, facts)
    expect(pages(at)).toBe(before)
  })
  it('leaves a proposal that was worded otherwise, without asking anybody, and brings the new one elsewhere', () => {
    const two = changed('left-proposal', { lines: ['A lamp', 'A whistle'] })
    const reworded = deployed((html) => html.replace('A logbook by Friday', 'Your good eyes'))
    expect(said(reworded, two, 'left-proposal')).toEqual([
      'keep: the proposal changed in the template; what was written in its place stays',
    ])
    const untouched = deployed()
    untouched.deploy(two, facts)
    expect(pages(untouched)).toContain('A whistle')
  })
  it('says where what stands beside an answer has changed, and does not touch the answer', () => {
    const at = deployed((html) =>
      html.replace('Tell students when they find you', 'On Tuesdays at ten'),
    )
    const another = structuredClone(facts)
    another.instructors = [{ name: 'Oddny Vale', email: 'oddny.vale@kestrelsound.example' }]
    expect(said(at, firstVersion(true), 'left-card', another)).toEqual([
      expect.stringMatching(/^leave: what stands beside the answer changed/),
    ])
  })
  it('that fixes what was asked for asks whoever plans it, as what was answered would be lost', () => {
    const two = changed('left-brief', { left: undefined })
    const at = deployed((html) =>
      html.replace('Tell students why they do this.', 'So that nobody runs aground.'),
    )
    // Nothing but how it is left has changed: no word is written.
    expect(said(at, two, 'left-brief')).toEqual([])
    const three = changed('left-brief', { left: undefined, whatToDo: '<p>A log.</p>' })
    expect(said(at, three, 'left-brief')).toEqual([
      'conflict: changed in the template and in the course',
    ])
  })
  it.each(platformNames)(
    'brings other words around a spot that was filled in, and leaves what stands in it (%s)',
    (platform) => {
      const two = changed('left-spots', {
        html: '<p>Whoever needs more time asks [[Tell whom]] before [[Tell when]].</p>',
      })
      const at = deployed(
        (html) => html.replace('[Tell whom]', 'Oddny & the mate').replace('[Tell when]', 'noon'),
        platform,
      )
      expect(said(at, two, 'left-spots')).toEqual([
        'change: changed in the template; what was filled in within it stays',
      ])
      at.deploy(two, facts)
      expect(pages(at)).toContain('asks Oddny &amp; the mate before noon.')
      // And it stays somebody's own at the version after.
      const three = changed('left-spots', {
        html: '<p>Whoever needs time asks [[Tell whom]] before [[Tell when]].</p>',
      })
      at.deploy(three, facts)
      expect(pages(at)).toContain('needs time asks Oddny &amp; the mate before noon.')
      expect(at.plan(three, facts).changes).toEqual([])
    },
  )
  it('asks where more than the spot was changed, or more than words was put into it', () => {
    const two = changed('left-spots', { html: '<p>Write to [[Tell whom]] by [[Tell when]].</p>' })
    const only = changed('left-spots', { html: '<p>Write to [[Tell whom]].</p>' })
    expect(
      said(
        deployed((html) => html.replace('[Tell when]', 'noon')),
        only,
        'left-spots',
      ),
    ).toEqual(['conflict: changed in the template and in the course'])
    for (const write of [
      (html: string) => html.replace('needs more time', 'is late'),
      (html: string) => html.replace('[Tell whom]', '<a href="https://desk.example/">the desk</a>'),
    ])
      expect(said(deployed(write), two, 'left-spots')).toEqual([
        'conflict: changed in the template and in the course',
      ])
  })
})
