import { describe, expect, it } from 'vitest'
import { everyCourseItem } from '../../course/index.ts'
import { exampleFacts, exampleTemplate } from '../../rules/example/exampleCourse.ts'
import { isModule, type Template } from '../../template/index.ts'
import { emptyBase, isWorkedOut, keptBodies, planDeployment, planUndo } from '../index.ts'
import { alike, Standing, type PlatformName } from '../standing.testing.ts'
import { changedExample, partOf } from '../versions.testing.ts'

const promise = (template: Template, html: string) => {
  const block = partOf(template, 'welcome').blocks.find((block) => block.key === 'promise')
  if (block?.kind === 'fixed-text') block.html = html
}
const newPromise = changedExample((template) => promise(template, '<p>We answer within a day.</p>'))
const deployed = (platform: PlatformName = 'keeps marks'): Standing => {
  const at = new Standing(platform)
  at.deploy()
  return at
}

describe('a body that is missing', () => {
  const lacking = keptBodies()
  it('makes a plan unusable, with what is missing; nothing is read as empty', () => {
    const at = deployed()
    const plan = planDeployment({
      expected: at.expand(newPromise, exampleFacts()),
      course: at.course,
      base: at.base,
      bodies: lacking,
      onDate: '2026-09-10',
    })
    expect(plan).toMatchObject({ state: 'unusable', code: 'missing-bodies' })
    expect(plan.state === 'unusable' && plan.missing.length).toBeGreaterThan(5)
  })
  it('makes a taking back unusable, also when only the page before the rollout is gone', () => {
    const at = deployed()
    const { record } = at.deploy(newPromise)
    const before = record.touched[0]?.before?.html ?? ''
    expect(before).not.toBe('')
    const { [before]: _, ...others } = at.bodies.all()
    const bodies = keptBodies(others)
    expect(planUndo({ record, course: at.course, base: at.base, bodies })).toMatchObject({
      state: 'unusable',
      missing: [before],
    })
  })
})

describe('a rollout taken back', () => {
  it('gives pages back with what instructors wrote on them, whether edited before or since', () => {
    const at = deployed()
    const welcome = at.item('Welcome')
    at.write(welcome, `<p>Before all.</p>${welcome.html}`)
    const before = at.item('Welcome').html
    const { record } = at.deploy(newPromise)
    expect(at.item('Welcome').html).toContain('within a day')
    at.write(at.item('Welcome'), `${at.item('Welcome').html}<p>After all.</p>`)
    at.undo(record)
    expect(at.item('Welcome').html).toBe(`${before}<p>After all.</p>`)
  })

  it('gives removed items back with their pages', () => {
    const at = deployed()
    const before = alike(at.course)
    const without = changedExample((template) => {
      for (const part of template.parts)
        if (isModule(part)) part.items = part.items.filter((item) => item.key !== 'checklist')
    })
    const { record } = at.deploy(without)
    expect(everyCourseItem(at.course).some(({ item }) => item.name.includes('checklist'))).toBe(
      false,
    )
    at.undo(record)
    expect(alike(at.course)).toEqual(before)
    expect(at.plan().changes).toEqual([])
    expect(
      at.plan(without).changes.filter((change) => change.change === 'remove-item').length,
    ).toBe(record.touched.filter(({ before, after }) => before && !after).length)
  })

  it('leaves points alone that template and instructor had both set: they are the instructor’s again', () => {
    const twenty = changedExample((template) => {
      partOf(template, 'assignment').settings.points = 20
    })
    const at = deployed()
    const item = everyCourseItem(at.course).find(({ item: one }) => one.kind === 'assignment')?.item
    at.edit([{ change: 'set-item', id: item?.id ?? '', fields: { points: 20 } }])
    const { record } = at.deploy(twenty)
    at.undo(record)
    const pointsOf = () =>
      everyCourseItem(at.course).find(({ item: one }) => one.id === item?.id)?.item.points
    expect(pointsOf()).toBe(20)
    at.deploy()
    expect(pointsOf()).toBe(20)
  })

  it('moves again what it moved, when it is run again', () => {
    const reordered = changedExample((template) => {
      const week = template.parts.find((part) => part.key === 'week')
      if (week && isModule(week)) week.items.reverse()
    })
    const at = deployed()
    const { record, plan } = at.deploy(reordered)
    const after = alike(at.course)
    const moves = plan.changes.filter((change) => change.change === 'move-item').length
    expect(moves).toBeGreaterThan(0)
    at.undo(record)
    const again = at.deploy(reordered)
    expect(again.plan.changes.filter((change) => change.change === 'move-item')).toHaveLength(moves)
    expect(alike(at.course)).toEqual(after)
  })

  it('moves again the blocks that it moved, also where a later rollout put another on their page', () => {
    const turned = changedExample((template) => {
      const { blocks } = partOf(template, 'welcome')
      blocks.unshift(...blocks.splice(1, 1))
    })
    const more = structuredClone(turned)
    partOf(more, 'welcome').blocks.push({
      kind: 'fixed-text',
      key: 'wharf',
      strength: 'must',
      html: '<p>The wharf is dry at low water.</p>',
    })
    const at = deployed()
    const orderNow = () => {
      const html = at.item('Welcome').html ?? ''
      return ['Tell students', 'an answer to every', 'The wharf']
        .map((words) => [html.indexOf(words), words] as const)
        .filter(([place]) => place >= 0)
        .toSorted(([a], [b]) => a - b)
        .map(([, words]) => words)
    }
    const { record } = at.deploy(turned)
    expect(orderNow()).toEqual(['an answer to every', 'Tell students'])
    at.deploy(more)
    at.undo(record)
    expect(orderNow()).toEqual(['Tell students', 'an answer to every', 'The wharf'])
    at.deploy(more)
    expect(orderNow()).toEqual(['an answer to every', 'Tell students', 'The wharf'])
  })

  it('of removed parts that were brought back: what the instructor had removed stays removed', () => {
    const at = deployed()
    at.edit([{ change: 'remove-item', id: at.item('Week 2 overview').id }])
    const { record } = at.deploy(exampleTemplate(), exampleFacts(), {
      restore: { missingParts: true },
    })
    expect(at.item('Week 2 overview')).toBeDefined()
    at.undo(record)
    expect(everyCourseItem(at.course).some(({ item }) => item.name === 'Week 2 overview')).toBe(
      false,
    )
    expect(at.plan().changes).toEqual([])
  })

  it('of a course that was taken over: nothing of it is recorded as deployed any more', () => {
    const at = deployed()
    const found = new Map(at.base.parts.map((entry) => [entry.instance, entry.platformId]))
    at.base = emptyBase()
    const { record } = at.deploy(exampleTemplate(), exampleFacts(), { adopt: found })
    expect(at.base.parts.length).toBeGreaterThan(10)
    at.undo(record)
    expect(at.base.parts).toEqual([])
    expect(at.base.course).toEqual({})
  })

  it('leaves what a later rollout wrote, and gives back what only it had written', () => {
    const later = changedExample((template) =>
      promise(template, '<p>We answer by the next tide.</p>'),
    )
    const renamed = changedExample((template) => {
      promise(template, '<p>We answer within a day.</p>')
      partOf(template, 'welcome').name = 'Come aboard {code}'
    })
    const at = deployed()
    const { record } = at.deploy(renamed)
    const laterToo = structuredClone(later)
    partOf(laterToo, 'welcome').name = 'Come aboard {code}'
    at.deploy(laterToo)
    at.undo(record)
    const page = everyCourseItem(at.course).find(({ item }) => item.html?.includes('next tide'))
    expect(page?.item.name).toMatch(/^Welcome to/)
    // The base of what the later rollout changed is still the later one's.
    expect(
      at.plan(laterToo).steps.flatMap((step) => step.fields.map((field) => field.does)),
    ).toEqual(['change'])
  })

  it('takes the rest back where students handed in since, and says what it leaves', () => {
    const linked = changedExample((template) => {
      partOf(template, 'assignment').settings.points = 50
      promise(template, '<p>We answer within a day.</p>')
    })
    const at = deployed()
    const { record } = at.deploy(linked)
    const assignment = everyCourseItem(at.course).find(({ item }) => item.kind === 'assignment')
    if (!assignment) throw new Error('no assignment')
    at.handIn(assignment.item)
    const plan = at.planUndo(record)
    at.carry(plan)
    const points = everyCourseItem(at.course)
      .filter(({ item }) => item.kind === 'assignment')
      .map(({ item }) => [item.id === assignment.item.id, item.points])
    expect(points.filter(([handedIn]) => handedIn)).toEqual([[true, 50]])
    expect(points.filter(([handedIn]) => !handedIn).every(([, value]) => value !== 50)).toBe(true)
    expect(at.item('Welcome').html).not.toContain('within a day')
    expect(
      plan.steps.flatMap((step) => step.fields).filter((field) => field.does === 'leave'),
    ).toMatchObject([{ field: 'points', reason: 'students have work in it; it is left alone' }])
  })

  it('of a re-pointed item: once students handed in, it leads where it leads, and the rest goes', () => {
    const at = deployed()
    const item = at.item('Welcome')
    const { record } = at.deploy(newPromise)
    const touched = record.touched.find(({ id }) => id === item.id)
    if (!touched?.before || !touched.after) throw new Error('not touched')
    touched.before.fields['target'] = 'https://old.example/'
    touched.after.fields['target'] = 'https://new.example/'
    at.edit([{ change: 'set-item', id: item.id, fields: { target: 'https://new.example/' } }])
    at.handIn(at.item('Welcome'))
    at.undo(record)
    expect(at.item('Welcome')).toMatchObject({ target: 'https://new.example/' })
    expect(at.item('Welcome').html).not.toContain('within a day')
  })

  it('is taken back itself, and then stands as before', () => {
    const at = deployed()
    const { record } = at.deploy(newPromise)
    const updated = alike(at.course)
    const base = at.base
    const { record: undoing } = at.undo(record)
    at.undo(undoing)
    expect(alike(at.course)).toEqual(updated)
    expect(at.base.parts.map((entry) => [entry.instance, entry.fields])).toEqual(
      base.parts.map((entry) => [entry.instance, entry.fields]),
    )
    expect(isWorkedOut(at.plan(newPromise))).toBe(true)
    expect(at.plan(newPromise).changes).toEqual([])
  })
})
