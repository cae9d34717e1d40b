import { describe, expect, it } from 'vitest'
import { everyCourseItem } from '../course/index.ts'
import { newModule } from '../template/index.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { carryKinds, carryOver, keptBodies } from './index.ts'
import { Standing } from './standing.testing.ts'
import { textPage } from './textPage.testing.ts'
import { undonePage } from './undo/undonePage.ts'
import { isTextUntold } from './untold.ts'
import { changedExample, partOf } from './versions.testing.ts'

const deployed = (): Standing => {
  const at = new Standing('keeps marks')
  at.deploy()
  return at
}
/** The platform does not tell what a page says any more. */
const hide = (at: Standing, name: string): string => {
  const { id } = at.item(name)
  at.course = structuredClone(at.course)
  for (const { item } of everyCourseItem(at.course)) if (item.id === id) item.html = null
  return id
}

describe('a page that the platform does not tell', () => {
  it('gets no new block, for all it may say would be written over', () => {
    const at = deployed()
    hide(at, 'Welcome')
    const plan = at.plan(
      changedExample((template) =>
        partOf(template, 'welcome').blocks.push({
          kind: 'fixed-text',
          key: 'newly',
          strength: 'must',
          html: '<p>New.</p>',
        }),
      ),
    )
    expect(plan.changes).toEqual([])
    expect(
      plan.steps.flatMap(({ instance, fields }) => (instance === 'welcome' ? fields : [])),
    ).toMatchObject([
      {
        field: 'block:newly',
        does: 'keep',
        present: null,
        result: null,
        reason: 'the page cannot be seen; it stays as it is',
      },
    ])
  })
  it('does not go with its part', () => {
    const at = deployed()
    const id = hide(at, 'Welcome')
    const { plan } = at.deploy(
      changedExample((template) => {
        for (const part of template.parts)
          if (part.kind === 'module') part.items = part.items.filter(({ key }) => key !== 'welcome')
      }),
    )
    expect(plan.steps.find(({ instance }) => instance === 'welcome')).toMatchObject({
      reason: expect.stringContaining('its page cannot be seen'),
    })
    expect(everyCourseItem(at.course).map(({ item }) => item.id)).toContain(id)
  })
  it('does not go with the rollout that made it', () => {
    const at = deployed()
    const { record } = at.deploy(
      changedExample(({ parts }) => {
        parts.push({ ...newModule('tour', 'The tour'), items: [textPage('quay', 'The quay')] })
      }),
    )
    const id = hide(at, 'The quay')
    const { plan } = at.undo(record)
    expect(plan.steps.find(({ instance }) => instance === 'quay')).toMatchObject({
      does: 'keep',
      reason: 'its page cannot be seen; it stays',
    })
    expect(everyCourseItem(at.course).map(({ item }) => item.id)).toContain(id)
  })
  it.each([
    ['now', { was: '<p>Then.</p>', after: '<p>After.</p>', is: null }],
    ['before the rollout', { was: null, after: '<p>After.</p>', is: '<p>After.</p>' }],
  ])('%s is neither emptied by an undo nor written over', (_, states) => {
    const block = { key: 'say', sent: 'x', page: null }
    const undone = undonePage(states, [block], [block], new Set(['say']), keptBodies())
    expect(undone).toMatchObject({
      html: null,
      steps: [{ does: 'keep', reason: 'cannot be seen; stays' }],
    })
  })
  it('is told as left behind where a next course is made from this one, and nothing is made of it', () => {
    const at = deployed()
    const [module] = at.course.modules
    at.edit([
      {
        change: 'create-item',
        clientId: 'own',
        module: module?.id ?? null,
        at: null,
        kind: 'page',
        fields: { name: 'My own page', html: '<p>Mine.</p>' },
      },
    ])
    const names = ['Welcome', 'My own page'].map((begins) => at.item(begins).name)
    for (const name of names) hide(at, name)
    const into = new Standing('keeps marks')
    const plan = carryOver(
      into.plan(),
      into.expand(exampleTemplate(), exampleFacts()),
      { course: at.course, base: at.base, bodies: at.bodies, facts: exampleFacts() },
      new Set(carryKinds),
    )
    if (plan.state !== 'ready') throw new Error(plan.state)
    expect(plan.consequences.find(({ code }) => code === 'left-behind')?.all).toEqual([
      `the page “${names[1]}”, which cannot be seen`,
      `what stands on “${names[0]}”, which cannot be seen`,
    ])
    expect(
      plan.changes.flatMap((change) => (change.change === 'create-item' ? change.fields.name : [])),
    ).not.toContain(names[1])
  })
  it('is told from an item that never had a text: by what was deployed to it, and pages are there to be read', () => {
    const block = { key: 'say', sent: 'x', page: null }
    const untold = (
      kind: 'page' | 'discussion',
      html: string | null,
      blocks: (typeof block)[] | null,
    ) => isTextUntold({ kind, html }, blocks)
    expect(untold('page', '', [block])).toBe(false)
    expect(untold('page', null, [block])).toBe(true)
    expect(untold('discussion', null, [block])).toBe(true)
    expect(untold('page', null, [])).toBe(false)
    expect(untold('page', null, null)).toBe(true)
    expect(untold('discussion', null, null)).toBe(false)
  })
})
