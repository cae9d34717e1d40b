import { describe, expect, it } from 'vitest'
import { applyChanges, Change, everyCourseItem } from '../course/index.ts'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, isModule, newModule, type Template } from '../template/index.ts'
import { proofOf } from './index.ts'
import { Standing } from './standing.testing.ts'
import { textPage } from './textPage.testing.ts'
import { changedExample } from './versions.testing.ts'

const leading = (to: Readonly<Record<string, string | undefined>>): Template => ({
  ...exampleTemplate(),
  navigation: Object.entries(to).map(([label, to]) => ({
    key: label.toLowerCase(),
    label,
    hidden: false,
    strength: 'must' as const,
    ...(to === undefined ? {} : { to }),
  })),
})
const idOf = (at: Standing, name: string): string =>
  everyCourseItem(at.course).find(({ item }) => item.name.startsWith(name))?.item.id ?? 'none'
const led = (at: Standing) =>
  Object.fromEntries(at.course.navigation.map(({ label, to }) => [label, to]))
const edited = (at: Standing, to: Readonly<Record<string, string>>) =>
  at.edit([
    {
      change: 'set-navigation',
      navigation: Object.entries(to).map(([label, to]) => ({ label, hidden: false, to })),
    },
  ])
const told = (at: Standing, template: Template) =>
  at
    .plan(template)
    .steps.flatMap(({ fields }) => fields.filter(({ field }) => field === 'navigation'))

const first = leading({
  Begin: 'part:welcome',
  Weeks: 'part:week',
  Overview: 'part:week-overview',
  Grades: 'place:grades',
  Charts: 'https://charts.example/',
  Files: undefined,
})

describe('where the navigation leads', () => {
  it('is known once the parts it leads to are made; a part that repeats is led to where it stands first', () => {
    const at = new Standing('keeps marks')
    const { plan, before } = at.deploy(first)
    expect(led(at)).toEqual({
      Begin: `item:${idOf(at, 'Welcome')}`,
      Weeks: `item:${at.course.modules[1]?.id}`,
      Overview: `item:${idOf(at, 'Week 1 overview')}`,
      Grades: 'place:grades',
      Charts: 'https://charts.example/',
      Files: undefined,
    })
    expect(at.plan(first).state).toBe('nothing-to-do')
    const ids = Object.fromEntries(
      plan.creates.map((instance) => [
        instance,
        at.base.parts.find((entry) => entry.instance === instance)?.platformId ?? '',
      ]),
    )
    expect(proofOf(before.course, plan.changes, ids, at.course, at.course.revision).state).toBe(
      'proved',
    )
  })
  it('changes with the template, and goes back by undo', () => {
    const at = new Standing('strips marks')
    at.deploy(first)
    const was = led(at)
    const { record } = at.deploy(leading({ Begin: 'part:week-overview', Grades: 'place:grades' }))
    expect(led(at)).toEqual({
      Begin: `item:${idOf(at, 'Week 1 overview')}`,
      Grades: 'place:grades',
    })
    at.undo(record)
    expect(led(at)).toEqual(was)
  })
  it('stays as somebody led it, and where both changed it, is told in words', () => {
    const at = new Standing('keeps marks')
    at.deploy(leading({ Begin: 'part:welcome' }))
    edited(at, { Begin: `item:${idOf(at, 'Week 2 overview')}` })
    expect(at.plan(leading({ Begin: 'part:welcome' })).state).toBe('nothing-to-do')
    expect(told(at, leading({ Begin: 'place:contents' }))).toMatchObject([
      {
        does: 'conflict',
        base: 'Begin (to “Welcome to NAV 110”)',
        present: expect.stringMatching(/^Begin \(to “Week 2 overview/) as unknown,
        wanted: 'Begin (to the contents)',
      },
    ])
  })
  it('agrees with what somebody has led there before', () => {
    const at = new Standing('keeps marks')
    at.deploy(exampleTemplate())
    edited(at, { Begin: `item:${idOf(at, 'Welcome')}` })
    const [field] = told(at, leading({ Begin: 'part:welcome' }))
    expect(field?.does).toBe('agree')
    at.deploy(leading({ Begin: 'part:welcome' }))
    expect(at.plan(leading({ Begin: 'part:welcome' })).state).toBe('nothing-to-do')
  })
  it('leads nowhere where its part was taken out of the course, and is not told again', () => {
    const at = new Standing('keeps marks')
    at.deploy(leading({ Begin: 'part:welcome' }))
    at.edit([{ change: 'remove-item', id: idOf(at, 'Welcome') }])
    expect(at.plan(leading({ Begin: 'part:welcome' })).state).toBe('nothing-to-do')
    at.deploy(leading({ Begin: 'part:welcome', Grades: 'place:grades' }))
    expect(led(at)).toEqual({ Begin: undefined, Grades: 'place:grades' })
    expect(at.plan(leading({ Begin: 'part:welcome', Grades: 'place:grades' })).state).toBe(
      'nothing-to-do',
    )
  })
  it('does not go back to a part that the undo takes away', () => {
    const at = new Standing('keeps marks')
    at.deploy(exampleTemplate())
    const more = leading({ New: 'part:new-page' })
    const page = everyItem(more).find(({ kind }) => kind === 'page')
    const module = more.parts.find(isModule)
    if (page && module)
      module.items.push({ ...page, key: 'new-page', name: 'New page', blocks: [] })
    const { record } = at.deploy(more)
    const second = { ...more, navigation: leading({ Now: 'place:home' }).navigation }
    const later = at.deploy(second)
    at.undo(record)
    at.undo(later.record)
    expect(led(at)).toEqual({ New: undefined })
  })
  it('is led again to a part that an undo of an earlier rollout took away, once a rollout makes it again', () => {
    const at = new Standing('keeps marks')
    at.deploy(exampleTemplate())
    const more = changedExample(({ parts }) => {
      parts.push({ ...newModule('tour', 'The tour'), items: [textPage('quay', 'The quay')] })
    })
    const { record } = at.deploy(more)
    const later = {
      ...more,
      navigation: leading({ Tour: 'part:quay', Mine: 'part:quay' }).navigation,
    }
    at.deploy(later)
    edited(at, { Tour: `item:${idOf(at, 'The quay')}`, Ours: `item:${idOf(at, 'The quay')}` })
    at.undo(record)
    expect(idOf(at, 'The quay')).toBe('none')
    at.deploy(later)
    const quay = `item:${idOf(at, 'The quay')}`
    expect(led(at)).toEqual({ Tour: quay, Ours: quay })
  })
  it('is led again to what an undo brings back under a new id, also where it is somebody’s own', () => {
    const at = new Standing('keeps marks')
    at.deploy(exampleTemplate())
    edited(at, { Mine: `item:${idOf(at, 'Welcome')}`, Help: 'https://help.example/' })
    const less = exampleTemplate()
    for (const module of less.parts.filter(isModule))
      module.items = module.items.filter(({ key }) => key !== 'welcome')
    const before = idOf(at, 'Welcome')
    const { record } = at.deploy(less)
    expect(idOf(at, 'Welcome')).toBe('none')
    at.undo(record)
    const after = idOf(at, 'Welcome')
    expect(after).not.toBe(before)
    expect(led(at)).toEqual({ Mine: `item:${after}`, Help: 'https://help.example/' })
  })
  it('is led again to a part that a rollout brings back, as asked', () => {
    const at = new Standing('keeps marks')
    const template = leading({ Begin: 'part:welcome' })
    at.deploy(template)
    at.edit([{ change: 'remove-item', id: idOf(at, 'Welcome') }])
    at.deploy(template, undefined, { restore: { fixedText: false, missingParts: true } })
    expect(idOf(at, 'Welcome')).not.toBe('none')
    expect(led(at)).toEqual({ Begin: `item:${idOf(at, 'Welcome')}` })
    expect(at.plan(template).state).toBe('nothing-to-do')
  })
  it('of a course that speaks of an item that is not there is refused', () => {
    const at = new Standing('keeps marks')
    at.deploy(exampleTemplate())
    const to = (to: string) =>
      applyChanges(
        at.course,
        [{ change: 'set-navigation', navigation: [{ label: 'Begin', hidden: false, to }] }],
        at.hand,
      )
    expect(to('item:gone-9')).toMatchObject({ ok: false, problems: { code: 'gone' } })
    expect(to('item:ref:gone-9')).toMatchObject({
      ok: false,
      problems: { code: 'unknown-reference' },
    })
    expect(to(`item:${idOf(at, 'Welcome')}`).ok).toBe(true)
  })
  it('that leads nowhere already may stay so', () => {
    const at = new Standing('keeps marks')
    at.deploy(exampleTemplate())
    edited(at, { Mine: `item:${idOf(at, 'Week 2 overview')}` })
    at.edit([{ change: 'remove-item', id: idOf(at, 'Week 2 overview') }])
    const [mine] = at.course.navigation
    expect(mine?.to).toMatch(/^item:/)
    edited(at, { Help: 'https://help.example/', Mine: mine?.to ?? '' })
    expect(led(at)).toEqual({ Help: 'https://help.example/', Mine: mine?.to })
  })
  it.each(['javascript:alert(1)', ' java\tscript:alert(1)', 'data:text/html,x', 'vbscript:x'])(
    'never to what runs: %s',
    (to) => {
      const set = { change: 'set-navigation', navigation: [{ label: 'x', hidden: false, to }] }
      expect(Change.safeParse(set).success).toBe(false)
    },
  )
  it('is not held against a platform that does not tell it; elsewhere it is', () => {
    const at = new Standing('keeps marks')
    const { plan, before } = at.deploy(first)
    const ids = Object.fromEntries(
      plan.creates.map((instance) => [
        instance,
        at.base.parts.find((entry) => entry.instance === instance)?.platformId ?? '',
      ]),
    )
    const proofWith = (to: (to: string | undefined) => string | undefined) => {
      const again = structuredClone(at.course)
      again.navigation = again.navigation.map(({ to: was, ...entry }) => {
        const now = to(was)
        return now === undefined ? entry : { ...entry, to: now }
      })
      return proofOf(before.course, plan.changes, ids, again, again.revision).state
    }
    expect(proofWith(() => undefined)).toBe('proved')
    expect(proofWith((was) => was ?? '/own/files')).toBe('proved')
    expect(proofWith((was) => (was === 'place:grades' ? 'place:people' : was))).toBe('differs')
  })
})
