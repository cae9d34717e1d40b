import { describe, expect, it } from 'vitest'
import { everyCourseItem, everyModule } from '../course/index.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { isModule, newModule, type Module, type Template } from '../template/index.ts'
import { Standing } from './standing.testing.ts'
import { textPage } from './textPage.testing.ts'

/** Two modules more than the example has. */
const tour = (): Template => {
  const template = exampleTemplate()
  template.parts.push(
    {
      ...newModule('tour', 'The tour'),
      items: [textPage('quay', 'Quay'), textPage('mole', 'Mole'), textPage('light', 'Light')],
    },
    { ...newModule('night', 'At night'), items: [textPage('stars', 'Stars')] },
  )
  return template
}
const moduleIn = (template: Template, key: string): Module => {
  const found = template.parts.find((part) => part.key === key)
  if (!found || !isModule(found)) throw new Error(`no module ${key}`)
  return found
}
const changed = (change: (template: Template) => void): Template => {
  const template = tour()
  change(template)
  return template
}
/** The light goes from the tour to the night, before the stars. */
const lightAtNight = changed((template) => {
  const light = moduleIn(template, 'tour').items.pop()
  if (light) moduleIn(template, 'night').items.unshift(light)
})
const deployed = (): Standing => {
  const at = new Standing('keeps marks')
  at.deploy(tour())
  return at
}
const module = (at: Standing, name: string) => {
  const found = everyModule(at.course.modules).find((each) => each.name === name)
  if (!found) throw new Error(`no module ${name}`)
  return found
}
const namesIn = (at: Standing, name: string) => module(at, name).children.map((child) => child.name)
const move = (at: Standing, name: string, to: string, index: number) =>
  at.edit([{ change: 'move-item', id: at.item(name).id, module: module(at, to).id, at: index }])
const places = (at: Standing, template: Template, more = {}) =>
  at
    .plan(template, exampleFacts(), more)
    .steps.flatMap(({ name, fields }) =>
      fields.flatMap((field) => (field.field === 'place' ? [{ name, ...field }] : [])),
    )

describe('what a new version moves', () => {
  it('goes there, and is told by what it stands behind', () => {
    const at = deployed()
    expect(places(at, lightAtNight)).toEqual([
      {
        name: 'Light',
        field: 'place',
        does: 'change',
        base: 'in “The tour”, after “Mole”',
        present: 'in “The tour”, after “Mole”',
        wanted: 'in “At night”, first',
        result: 'in “At night”, first',
        decided: null,
        reason: 'moved in the template',
      },
    ])
    at.deploy(lightAtNight)
    expect([namesIn(at, 'The tour'), namesIn(at, 'At night')]).toEqual([
      ['Quay', 'Mole'],
      ['Light', 'Stars'],
    ])
    expect(at.plan(lightAtNight).changes).toEqual([])
  })
  it('within its module is the fewest moves, past what people put between', () => {
    const at = deployed()
    move(at, 'Stars', 'The tour', 1)
    const last = changed((template) => {
      const { items } = moduleIn(template, 'tour')
      items.push(...items.splice(0, 1))
    })
    const { plan } = at.deploy(last)
    expect(plan.changes.map(({ change }) => change)).toEqual(['move-item'])
    expect(namesIn(at, 'The tour')).toEqual(['Stars', 'Mole', 'Light', 'Quay'])
  })
  it('as a module goes to its place among modules', () => {
    const at = deployed()
    const earlier = changed(({ parts }) => parts.splice(-1, 0, ...parts.splice(-1)))
    expect(places(at, earlier)).toHaveLength(1)
    const { plan } = at.deploy(earlier)
    expect(plan.changes.map(({ change }) => change)).toEqual(['move-module'])
    expect(at.course.modules.slice(-2).map(({ name }) => name)).toEqual(['At night', 'The tour'])
    expect(at.plan(earlier).changes).toEqual([])
  })
  it('as a module into another one is left to people', () => {
    const at = deployed()
    const inside = changed((template) => {
      const [night] = template.parts.splice(-1)
      if (night) moduleIn(template, 'tour').items.push(night)
    })
    expect(places(at, inside)).toMatchObject([
      {
        name: 'At night',
        does: 'leave',
        reason: 'a module is not moved into another one; move it by hand',
      },
    ])
    at.deploy(inside)
    expect(at.course.modules.at(-1)?.name).toBe('At night')
  })
  it('stays where it is when the module it goes to was removed', () => {
    const at = deployed()
    at.edit([{ change: 'remove-item', id: at.item('Stars').id }])
    at.edit([{ change: 'remove-module', id: module(at, 'At night').id }])
    expect(places(at, lightAtNight)).toMatchObject([
      { name: 'Light', does: 'leave', reason: 'the module it moves to is not there' },
    ])
    at.deploy(lightAtNight)
    expect(namesIn(at, 'The tour')).toEqual(['Quay', 'Mole', 'Light'])
  })
})

describe('what people moved', () => {
  it('stays where they put it, when the new version leaves it where it was', () => {
    const at = deployed()
    move(at, 'Light', 'At night', 1)
    const renamed = changed((template) => {
      moduleIn(template, 'tour').name = 'The long tour'
    })
    expect(places(at, renamed)).toEqual([])
    at.deploy(renamed)
    expect(namesIn(at, 'At night')).toEqual(['Stars', 'Light'])
  })
  it.each<[what: string, to: string, at: number, present: string]>([
    ['into another module', 'Week 2 · 7–13 September · Leading marks', 0, 'first'],
    ['within its module', 'The tour', 0, 'in “The tour”, first'],
  ])(
    'and a new version moves too, %s, is put to the designer and stays until then',
    (_, to, index, present) => {
      const at = deployed()
      const week = everyModule(at.course.modules).find(({ name }) => name.startsWith('Week 2'))
      const target = to.startsWith('Week') ? (week?.name ?? '') : to
      move(at, 'Light', target, index)
      const [place] = places(at, lightAtNight)
      expect(place).toMatchObject({
        does: 'conflict',
        decided: null,
        base: 'in “The tour”, after “Mole”',
        wanted: 'in “At night”, first',
        reason: 'moved in the template and in the course',
      })
      expect(place?.present).toContain(present)
      expect(place?.result).toBe(place?.present)
      at.deploy(lightAtNight)
      expect(namesIn(at, target)).toContain('Light')
    },
  )
  it('goes where the new version has it, when that is decided', () => {
    const at = deployed()
    move(at, 'Light', 'The tour', 0)
    const decisions = { rule: 'take' as const, single: {} }
    const [place] = places(at, lightAtNight, { decisions })
    expect(place).toMatchObject({
      does: 'conflict',
      decided: 'take',
      result: 'in “At night”, first',
      reason: 'moved in the template',
    })
    at.deploy(lightAtNight, exampleFacts(), { decisions })
    expect(namesIn(at, 'At night')).toEqual(['Light', 'Stars'])
  })
  it('by themselves to where the new version has it needs no move', () => {
    const at = deployed()
    move(at, 'Light', 'At night', 0)
    const plan = at.plan(lightAtNight)
    expect(plan.changes).toEqual([])
    expect(everyCourseItem(at.course).length).toBeGreaterThan(4)
  })
})
