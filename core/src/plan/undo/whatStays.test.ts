import { describe, expect, it } from 'vitest'
import { everyCourseItem, everyModule } from '../../course/index.ts'
import { everyItem, isModule, newModule, type Template } from '../../template/index.ts'
import type { PlanStep } from '../plan.ts'
import { alike, Standing } from '../standing.testing.ts'
import { textPage } from '../textPage.testing.ts'
import { changedExample } from '../versions.testing.ts'

/** With a module of three pages more. */
const withTour = changedExample(({ parts }) => {
  parts.push({
    ...newModule('tour', 'The tour'),
    items: [
      textPage('quay', 'The quay'),
      textPage('mole', 'The mole'),
      textPage('light', 'The light'),
    ],
  })
})
const withoutTour = (tour: Template): Template => ({
  ...tour,
  parts: tour.parts.filter(({ key }) => key !== 'tour'),
})
const deployed = (first?: Template): Standing => {
  const at = new Standing('keeps marks')
  at.deploy(first)
  return at
}
const items = (at: Standing) => everyCourseItem(at.course).map(({ item }) => item.name)
const modules = (at: Standing) => everyModule(at.course.modules).map(({ name }) => name)
const moduleNamed = (at: Standing, name: string) => {
  const found = everyModule(at.course.modules).find((module) => module.name === name)
  if (!found) throw new Error(`no module ${name}`)
  return found
}
const moduleOf = (at: Standing, name: string) =>
  everyCourseItem(at.course).find(({ item }) => item.name === name)?.module?.name
const told = (steps: readonly PlanStep[]) =>
  steps.map(({ name, does, reason, because }) => ({
    name,
    does,
    reason,
    ...(because ? { because } : {}),
  }))

describe('what a rollout made, when it is taken back', () => {
  it('goes, the module after what stood in it, where nobody used it', () => {
    const at = deployed()
    const before = alike(at.course)
    const { record } = at.deploy(withTour)
    const { plan } = at.undo(record)
    expect(plan.changes.map(({ change }) => change)).toEqual([
      'remove-item',
      'remove-item',
      'remove-item',
      'remove-module',
    ])
    expect(plan.steps.map(({ does, reason }) => [does, reason])).toEqual(
      Array.from({ length: 4 }, () => ['remove', 'was made by the rollout; goes again']),
    )
    expect(alike(at.course)).toEqual(before)
  })
  it('stays where students have work in it, or somebody wrote or named it, and so does the module around it', () => {
    const at = deployed()
    const { record } = at.deploy(withTour)
    at.handIn(at.item('The quay'))
    at.write(at.item('The mole'), '<p>What I saw there.</p>')
    const { plan } = at.undo(record)
    expect(items(at).filter((name) => name.startsWith('The '))).toEqual(['The quay', 'The mole'])
    expect(at.item('The mole').html).toBe('<p>What I saw there.</p>')
    expect(modules(at)).toContain('The tour')
    expect(told(plan.steps)).toEqual([
      { name: 'The light', does: 'remove', reason: 'was made by the rollout; goes again' },
      { name: 'The mole', does: 'keep', reason: 'was edited since; it stays' },
      {
        name: 'The quay',
        does: 'keep',
        reason: 'students have work in it; it stays',
        because: 'student-work',
      },
      { name: 'The tour', does: 'keep', reason: 'something stands in it; it stays' },
    ])
  })
  it('stays with a name that somebody gave it, though its page is as it was', () => {
    const at = deployed()
    const { record } = at.deploy(withTour)
    at.edit([{ change: 'set-item', id: at.item('The light').id, fields: { name: 'Our light' } }])
    at.undo(record)
    expect(items(at)).toContain('Our light')
    expect(items(at)).not.toContain('The quay')
  })
  it('stays as a module where somebody put something of their own into it', () => {
    const at = deployed()
    const { record } = at.deploy(withTour)
    at.edit([
      {
        change: 'move-item',
        id: at.item('Welcome').id,
        module: moduleNamed(at, 'The tour').id,
        at: 0,
      },
    ])
    at.undo(record)
    expect(moduleOf(at, at.item('Welcome').name)).toBe('The tour')
    expect(items(at)).not.toContain('The quay')
  })
  it('that somebody removed since is not spoken of', () => {
    const at = deployed()
    const { record } = at.deploy(withTour)
    at.edit([{ change: 'remove-item', id: at.item('The light').id }])
    const { plan } = at.undo(record)
    expect(plan.steps.map(({ name }) => name)).toEqual(['The mole', 'The quay', 'The tour'])
  })
})

describe('what a rollout removed, when it is taken back', () => {
  it('comes back, the module before what stood in it, in its order', () => {
    const at = deployed(withTour)
    const before = alike(at.course)
    const { record } = at.deploy(withoutTour(withTour))
    expect(modules(at)).not.toContain('The tour')
    const { plan } = at.undo(record)
    expect(plan.changes.map(({ change }) => change).slice(0, 4)).toEqual([
      'create-module',
      'create-item',
      'create-item',
      'create-item',
    ])
    expect(alike(at.course)).toEqual(before)
    expect(at.item('The mole').html).toContain('The mole.')
  })
  it('cannot where the module it stood in is gone, and this is said', () => {
    const at = deployed(withTour)
    const withoutLight = structuredClone(withTour)
    const tour = withoutLight.parts.at(-1)
    if (tour && isModule(tour)) tour.items.pop()
    const { record } = at.deploy(withoutLight)
    for (const name of ['The quay', 'The mole'])
      at.edit([{ change: 'remove-item', id: at.item(name).id }])
    at.edit([{ change: 'remove-module', id: moduleNamed(at, 'The tour').id }])
    const { plan } = at.undo(record)
    expect(told(plan.steps)).toEqual([
      {
        name: 'The light',
        does: 'keep',
        reason: 'the module it stood in is gone, so it cannot come back',
      },
    ])
    expect(plan.changes).toEqual([])
  })
})

describe('what a rollout moved, when it is taken back', () => {
  /** The light stands in the first module of the example. */
  const moved = structuredClone(withTour)
  const [light] = everyItem(moved).filter(({ key }) => key === 'light')
  for (const part of moved.parts)
    if (isModule(part)) {
      part.items = part.items.filter(({ key }) => key !== 'light')
      if (part.key === 'casting-off' && light) part.items.push(light)
    }
  const target = () => moved.parts.find(({ key }) => key === 'casting-off')
  it('goes back to where it stood', () => {
    expect(target()).toBeDefined()
    const at = deployed(withTour)
    const before = alike(at.course)
    const { record } = at.deploy(moved)
    expect(moduleOf(at, 'The light')).not.toBe('The tour')
    const { plan } = at.undo(record)
    expect(plan.steps.flatMap(({ fields }) => fields)).toMatchObject([
      {
        field: 'place',
        does: 'change',
        wanted: 'The tour',
        result: 'The tour',
        reason: 'back to where it stood',
      },
    ])
    expect(alike(at.course)).toEqual(before)
  })
  it('stays where somebody moved it since', () => {
    const at = deployed(withTour)
    const { record } = at.deploy(moved)
    const other = everyModule(at.course.modules).find(({ name }) => name.startsWith('Week 2'))
    at.edit([{ change: 'move-item', id: at.item('The light').id, module: other?.id ?? '', at: 0 }])
    const { plan } = at.undo(record)
    expect(moduleOf(at, 'The light')).toBe(other?.name)
    expect(plan.changes).toEqual([])
    expect(plan.steps).toMatchObject([
      {
        does: 'keep',
        fields: [
          {
            field: 'place',
            does: 'keep',
            present: other?.name,
            wanted: 'The tour',
            result: other?.name,
            reason: 'was moved since; stays',
          },
        ],
      },
    ])
  })
})

describe('the course itself, when a rollout is taken back', () => {
  const renamed = changedExample((changed) => {
    changed.naming = { courseName: 'Anew: {code}', courseLabel: 'Anew {code}' }
  })
  it('is called again what it was called', () => {
    const at = deployed()
    const before = alike(at.course)
    const { record } = at.deploy(renamed)
    expect(at.course.name).toContain('Anew')
    const { plan } = at.undo(record)
    expect(alike(at.course)).toEqual(before)
    expect(plan.changes.map(({ change }) => change)).toEqual(['set-course'])
    expect(plan.steps).toMatchObject([{ does: 'set', instance: 'course', kind: 'course' }])
  })
  it('keeps what somebody set since, and gives back the rest', () => {
    const at = deployed()
    const label = at.course.label
    const { record } = at.deploy(renamed)
    at.edit([{ change: 'set-course', name: 'Ours' }])
    const { plan } = at.undo(record)
    expect([at.course.name, at.course.label]).toEqual(['Ours', label])
    expect(plan.steps.flatMap(({ fields }) => fields)).toMatchObject([
      { field: 'name', does: 'keep', result: 'Ours', reason: 'was edited since; stays' },
      { field: 'label', does: 'change', result: label, reason: 'as it was before the rollout' },
    ])
  })
  it('of which all was set since is left as it is', () => {
    const at = deployed()
    const { record } = at.deploy(renamed)
    at.edit([{ change: 'set-course', name: 'Ours', label: 'Our' }])
    const { plan } = at.undo(record)
    expect(plan.changes).toEqual([])
    expect(plan.steps).toMatchObject([{ does: 'keep', instance: 'course' }])
  })
  it('has its home page again, unless that is gone', () => {
    const at = deployed()
    const home = at.course.homePage
    const { record } = at.deploy(renamed)
    const byRecord = structuredClone(record)
    byRecord.course = { homePage: { before: home, after: at.item('Welcome').id } }
    at.edit([{ change: 'set-home', item: at.item('Welcome').id }])
    at.undo(byRecord)
    expect(at.course.homePage).toBe(home)
    byRecord.course = { homePage: { before: 'gone', after: home } }
    expect(at.planUndo(byRecord).changes).toEqual([])
  })
})
