import { describe, expect, it } from 'vitest'
import { everyCourseItem, everyModule, mapCourse, type CourseItem } from '../../course/index.ts'
import { firstHouseStyle } from '../../houseStyle/index.ts'
import { exampleTemplate } from '../../rules/example/exampleCourse.ts'
import { isModule, newModule, type Template } from '../../template/index.ts'
import type { PlanStep } from '../plan.ts'
import { alike, platformNames, Standing } from '../standing.testing.ts'
import { textPage } from '../textPage.testing.ts'
import { changedExample, partOf } from '../versions.testing.ts'

const tour = (...names: string[]) => ({
  ...newModule('tour', 'The tour'),
  items: names.map((name) => textPage(name, `The ${name}`)),
})
const landfall = { ...newModule('landfall', 'Landfall'), items: [textPage('rope', 'The rope')] }
/** The example with these modules after its own. */
const withModules = (...more: Template['parts']): Template =>
  changedExample(({ parts }) => void parts.push(...more))
const deployed = (first?: Template): Standing => {
  const at = new Standing('keeps marks')
  at.deploy(first)
  return at
}
const moduleNamed = (at: Standing, name: string) => {
  const found = everyModule(at.course.modules).find((module) => module.name === name)
  if (!found) throw new Error(`no module ${name}`)
  return found
}
const namesIn = (at: Standing, name: string) =>
  moduleNamed(at, name).children.map((one) => one.name)
const topModules = (at: Standing) =>
  at.course.modules.map(({ name }) => name).filter((name) => !name.startsWith('Week'))
const kinds = (changes: readonly { change: string }[]) => [
  ...new Set(changes.map(({ change }) => change)),
]
const stepOf = (steps: readonly PlanStep[], name: string) =>
  steps.find((step) => step.name.startsWith(name))

describe('what a rollout set, when it is taken back', () => {
  const dearer = changedExample((changed) => {
    const part = partOf(changed, 'assignment')
    part.settings.points = 50
    part.name = 'Task {number}'
  })
  const assignments = (at: Standing): CourseItem[] =>
    everyCourseItem(at.course).flatMap(({ item }) => (item.kind === 'assignment' ? [item] : []))
  it('is as it was, but for what somebody set since: that stays, and both are told', () => {
    const at = deployed()
    const [before] = assignments(at)
    const { record } = at.deploy(dearer)
    const [first] = assignments(at)
    at.edit([{ change: 'set-item', id: first?.id ?? '', fields: { points: 70 } }])
    const { plan } = at.undo(record)
    expect(assignments(at)[0]).toMatchObject({ points: 70, name: before?.name })
    const [step, ...others] = plan.steps
    expect(step).toMatchObject({
      does: 'change',
      name: first?.name,
      reason: 'taken back but for what was edited since',
      fields: [
        {
          field: 'name',
          does: 'change',
          result: before?.name,
          reason: 'as it was before the rollout',
        },
        { field: 'points', does: 'keep', result: 70, reason: 'was edited since; stays' },
      ],
    })
    expect(others.length).toBeGreaterThan(1)
    for (const other of others)
      expect(other).toMatchObject({
        does: 'change',
        reason: 'taken back',
        fields: [{ does: 'change' }, { does: 'change' }],
      })
  })
  it('of which all was set since is left as it is', () => {
    const at = deployed()
    const { record } = at.deploy(dearer)
    const ids = assignments(at).map(({ id }) => id)
    for (const id of ids)
      at.edit([{ change: 'set-item', id, fields: { points: 70, name: 'Ours' } }])
    const { plan } = at.undo(record)
    expect(plan.changes).toEqual([])
    expect(plan.steps.map(({ does, reason }) => [does, reason])).toEqual(
      ids.map(() => ['keep', 'taken back but for what was edited since']),
    )
  })
  it('that somebody set to what it was before is not spoken of', () => {
    const at = deployed()
    const [before] = assignments(at)
    const { record } = at.deploy(dearer)
    at.edit([
      {
        change: 'set-item',
        id: before?.id ?? '',
        fields: { points: before?.points ?? 0, name: before?.name ?? '' },
      },
    ])
    const { plan } = at.undo(record)
    expect(stepOf(plan.steps, before?.name ?? '')).toBeUndefined()
    expect(JSON.stringify(plan.changes)).not.toContain(`"${before?.id}"`)
  })
  it('stays removed where somebody removed it since, and this is told by its name', () => {
    const at = deployed()
    const { record } = at.deploy(dearer)
    const [first] = assignments(at)
    at.edit([{ change: 'remove-item', id: first?.id ?? '' }])
    const { plan } = at.undo(record)
    expect(stepOf(plan.steps, first?.name ?? 'none')).toMatchObject({
      does: 'keep',
      reason: 'was removed since; stays removed',
    })
    expect(assignments(at).map(({ id }) => id)).not.toContain(first?.id)
  })
  it('says why points stay where students handed in', () => {
    const at = deployed()
    const { record } = at.deploy(dearer)
    const [first] = assignments(at)
    if (!first) throw new Error('no assignment')
    at.handIn(first)
    const { plan } = at.undo(record)
    expect(plan.steps[0]?.fields.find(({ field }) => field === 'points')).toMatchObject({
      does: 'leave',
      because: 'student-work',
      result: 50,
    })
  })
})

describe('orders that a rollout changed, when it is taken back', () => {
  const first = withModules(tour('quay', 'mole', 'light'), landfall)
  it('of modules are what they were, by moving modules', () => {
    const at = deployed(first)
    const before = alike(at.course)
    const { record } = at.deploy(withModules(landfall, tour('quay', 'mole', 'light')))
    expect(topModules(at).slice(-2)).toEqual(['Landfall', 'The tour'])
    const { plan } = at.undo(record)
    expect(kinds(plan.changes)).toEqual(['move-module'])
    expect(alike(at.course)).toEqual(before)
  })
  it('of what stands in a module are what they were, but for what somebody moved since', () => {
    const at = deployed(withModules(tour('quay', 'mole', 'light', 'bell')))
    const { record } = at.deploy(withModules(tour('bell', 'light', 'mole', 'quay')))
    const module = moduleNamed(at, 'The tour').id
    at.edit([{ change: 'move-item', id: at.item('The light').id, module, at: 3 }])
    expect(namesIn(at, 'The tour')).toEqual(['The bell', 'The mole', 'The quay', 'The light'])
    const { plan } = at.undo(record)
    expect(namesIn(at, 'The tour')).toEqual(['The quay', 'The mole', 'The bell', 'The light'])
    expect(kinds(plan.changes)).toEqual(['move-item'])
  })
  it('are those from which a later version goes on, also where it put a part among them', () => {
    const later = withModules(tour('light', 'mole', 'buoy', 'quay'), landfall)
    const at = deployed(first)
    const { record } = at.deploy(withModules(tour('light', 'mole', 'quay'), landfall))
    at.deploy(later)
    at.undo(record)
    expect(namesIn(at, 'The tour').filter((name) => name !== 'The buoy')).toEqual([
      'The quay',
      'The mole',
      'The light',
    ])
    at.deploy(later)
    expect(namesIn(at, 'The tour')).toEqual(['The light', 'The mole', 'The buoy', 'The quay'])
  })
  it('leave what people moved where they put it, and as what they moved', () => {
    const before = withModules(tour('quay', 'mole', 'light', 'bell'))
    const at = deployed(before)
    const module = moduleNamed(at, 'The tour').id
    at.edit([{ change: 'move-item', id: at.item('The bell').id, module, at: 0 }])
    const { record } = at.deploy(withModules(tour('mole', 'quay', 'light', 'bell')))
    at.undo(record)
    const theirs = ['The bell', 'The quay', 'The mole', 'The light']
    expect(namesIn(at, 'The tour')).toEqual(theirs)
    expect(at.plan(before).changes).toEqual([])
    const { plan } = at.deploy(withModules(tour('quay', 'bell', 'mole', 'light')))
    expect(stepOf(plan.steps, 'The bell')?.fields.map(({ field, does }) => [field, does])).toEqual([
      ['place', 'conflict'],
    ])
    expect(namesIn(at, 'The tour')).toEqual(theirs)
  })
  it('of a module that is gone since are not spoken of', () => {
    const at = deployed(first)
    const { record } = at.deploy(withModules(tour('light', 'mole', 'quay'), landfall))
    for (const name of ['The light', 'The mole', 'The quay'])
      at.edit([{ change: 'remove-item', id: at.item(name).id }])
    at.edit([{ change: 'remove-module', id: moduleNamed(at, 'The tour').id }])
    expect(at.undo(record).plan.changes).toEqual([])
  })
  it('of modules of which one comes back are what they were', () => {
    const wharf = { ...newModule('wharf', 'The wharf'), items: [textPage('post', 'The post')] }
    const at = deployed(withModules(landfall, wharf, tour('quay', 'mole')))
    const before = alike(at.course)
    const { record } = at.deploy(withModules(tour('mole', 'quay'), landfall))
    expect(topModules(at).slice(-2)).toEqual(['The tour', 'Landfall'])
    const { plan } = at.undo(record)
    expect(alike(at.course)).toEqual(before)
    expect(kinds(plan.changes)).toEqual([
      'create-module',
      'create-item',
      'move-item',
      'move-module',
    ])
  })
  it('are left alone where people put what they made among them', () => {
    const at = deployed(first)
    const { record } = at.deploy(withModules(tour('light', 'mole', 'quay'), landfall))
    at.edit([
      {
        change: 'create-item',
        clientId: 'own',
        module: moduleNamed(at, 'The tour').id,
        at: 1,
        kind: 'page',
        fields: { name: 'My buoy', html: '<p>Mine.</p>' },
      },
    ])
    at.undo(record)
    const names = namesIn(at, 'The tour')
    expect(names.filter((name) => name !== 'My buoy')).toEqual([
      'The quay',
      'The mole',
      'The light',
    ])
    expect(names).toContain('My buoy')
  })
})

describe('words of a page that a rollout changed, when it is taken back after a later one', () => {
  const notice = (at: Standing) => at.item('Notice').html ?? ''
  const withNotice = (blocks: [key: string, words: string][], change?: (made: Template) => void) =>
    changedExample((made) => {
      made.parts.push({
        ...newModule('news', 'News'),
        items: [
          {
            ...textPage('notice', 'Notice'),
            blocks: blocks.map(([key, words]) => ({
              kind: 'fixed-text',
              key,
              strength: 'must',
              html: `<h2>Tides</h2><p>${words}</p>`,
            })),
          },
        ],
      })
      change?.(made)
    })
  it.each(platformNames)(
    'count as deployed, also where the later one gave the page a look: %s',
    (platform) => {
      const at = new Standing(platform)
      at.deploy(withNotice([['text', 'Low water.']]))
      const { record } = at.deploy(withNotice([['text', 'High water.']]))
      const later = withNotice([['text', 'High water.']], (made) => {
        made.houseStyle = firstHouseStyle
      })
      at.deploy(later)
      at.undo(record)
      at.deploy(later)
      expect(notice(at)).toContain('High water.')
      expect(at.plan(later).changes).toEqual([])
    },
  )
  it('are those of the later one, where the earlier had only moved them', () => {
    const at = deployed(
      withNotice([
        ['ebb', 'Ebb.'],
        ['flood', 'Flood.'],
      ]),
    )
    const { record } = at.deploy(
      withNotice([
        ['flood', 'Flood.'],
        ['ebb', 'Ebb.'],
      ]),
    )
    at.deploy(
      withNotice([
        ['flood', 'The flood.'],
        ['ebb', 'The ebb.'],
      ]),
    )
    at.undo(record)
    expect(notice(at).replace(/<[^>]*>|\s/g, '')).toBe('TidesTheebb.TidesTheflood.')
    const { plan } = at.deploy(
      withNotice([
        ['ebb', 'An ebb.'],
        ['flood', 'A flood.'],
      ]),
    )
    expect(plan.steps.filter(({ does }) => does === 'conflict' || does === 'keep')).toEqual([])
    expect(notice(at).replace(/<[^>]*>|\s/g, '')).toBe('TidesAnebb.TidesAflood.')
  })
})

describe('an assessment that a rollout made, when it is taken back', () => {
  const asking = changedExample((changed) => {
    const casting = changed.parts.find(({ key }) => key === 'casting-off')
    if (!casting || !isModule(casting)) throw new Error('no module')
    casting.items.push({
      ...structuredClone(partOf(changed, 'quiz')),
      key: 'test',
      name: 'A test of knots',
      repeat: undefined,
      settings: { points: 10 },
      questions: {
        list: [
          {
            key: 'q',
            body: { kind: 'true-or-false', text: '<p>Is it so?</p>', points: 10, right: true },
          },
        ],
      },
    } as never)
  })
  const left = (change: (test: CourseItem) => void) => {
    const at = deployed()
    const { record } = at.deploy(asking)
    at.course = structuredClone(at.course)
    change(at.item('A test'))
    const { plan } = at.undo(record)
    return {
      stands: everyCourseItem(at.course).some(({ item }) => item.name === 'A test of knots'),
      told: plan.steps.map(({ does, reason }) => [does, reason]),
    }
  }
  it('goes where its questions are as they were', () => {
    expect(left(() => undefined)).toEqual({
      stands: false,
      told: [['remove', 'was made by the rollout; goes again']],
    })
  })
  it('stays where its questions were edited since', () => {
    expect(
      left((test) => {
        const [question] = test.questions ?? []
        if (question) question.body = { ...question.body, text: '<p>Is it not?</p>' }
      }),
    ).toEqual({ stands: true, told: [['keep', 'its questions were edited since; it stays']] })
  })
  it('stays where they are not told: there may be some of somebody’s own among them', () => {
    expect(
      left((test) => {
        delete test.questions
      }),
    ).toEqual({ stands: true, told: [['keep', 'its questions cannot be seen; it stays']] })
  })
})

describe('questions that a rollout changed, when it is taken back', () => {
  const asking = (text: string) =>
    changedExample((made) => {
      partOf(made, 'quiz').questions = {
        list: [{ key: 'q', body: { kind: 'true-or-false', text, points: 20, right: true } }],
      }
    })
  /** What is changed and told where the platform tells no questions any more. */
  const undone = (second: Template) => {
    const at = deployed(asking('<p>Is it so?</p>'))
    const { record } = at.deploy(second)
    at.course = mapCourse(at.course, (item) => {
      const { questions: _, ...others } = item
      return others
    })
    const { changes, steps } = at.undo(record).plan
    return [
      changes,
      ...new Set(steps.flatMap(({ fields }) => fields.map((of) => `${of.field}: ${of.reason}`))),
    ]
  }
  it('stay where they are not told, which is said; of those it did not change nothing is', () => {
    expect(undone(asking('<p>Is it not?</p>'))).toEqual([
      [],
      'questions: its questions cannot be seen; they stay',
    ])
    expect(undone(asking('<p>Is it so?</p>'))).toEqual([[]])
  })
})

describe('which page is shown first, when a rollout is taken back', () => {
  const undone = (since: (at: Standing) => void) => {
    const at = new Standing('keeps marks')
    at.edit([
      {
        change: 'create-item',
        clientId: 'start',
        module: null,
        at: 0,
        kind: 'page',
        fields: { name: 'Start', html: '<p>Begin here.</p>' },
      },
    ])
    const start = at.item('Start').id
    at.edit([{ change: 'set-home', item: start }])
    const { record } = at.deploy(undefined, undefined, { adopt: new Map() })
    expect(at.course.homePage).not.toBe(start)
    since(at)
    const { plan } = at.undo(record)
    return { start, home: at.course.homePage, set: kinds(plan.changes).includes('set-home') }
  }
  it('is the one from before', () => {
    const { start, home } = undone(() => undefined)
    expect(home).toBe(start)
  })
  it('is none that is gone', () => {
    const { set } = undone((at) => at.edit([{ change: 'remove-item', id: at.item('Start').id }]))
    expect(set).toBe(false)
  })
})

describe('where the navigation leads, when a rollout is taken back', () => {
  const led = (...to: string[]): Template => ({
    ...exampleTemplate(),
    navigation: to.map((one, i) => ({
      key: `entry-${i}`,
      label: `Entry ${i}`,
      hidden: false,
      strength: 'must' as const,
      to: one,
    })),
  })
  it('is told in words: by the name of what it leads to', () => {
    const at = deployed(led('part:welcome', 'https://charts.example/'))
    const was = at.course.navigation
    const { record } = at.deploy(led('part:week-overview', 'place:grades'))
    const { plan } = at.undo(record)
    expect(at.course.navigation).toEqual(was)
    const [field] = plan.steps.flatMap(({ fields }) =>
      fields.filter((one) => one.field === 'navigation'),
    )
    expect(field).toMatchObject({
      does: 'change',
      reason: 'as it was before the rollout',
      wanted: expect.stringContaining('“Welcome to') as string,
      present: expect.stringContaining('“Week 1 overview”') as string,
    })
    expect(field?.result).toBe(field?.wanted)
    expect(field?.wanted).toContain('https://charts.example/')
    expect(plan.steps).toMatchObject([{ does: 'set', part: 'course', reason: 'the course itself' }])
  })
  it('leads again to what comes back, also where somebody else wrote the navigation since', () => {
    const at = deployed(withModules(tour('quay')))
    const quay = () => at.item('The quay').id
    at.edit([
      {
        change: 'set-navigation',
        navigation: [{ label: 'Quay', hidden: false, to: `item:${quay()}` }],
      },
    ])
    const { record } = at.deploy()
    at.undo(record)
    expect(at.course.navigation).toEqual([{ label: 'Quay', hidden: false, to: `item:${quay()}` }])
  })
  it('leads nowhere where what it led to is gone', () => {
    const at = deployed(led('part:welcome'))
    const { record } = at.deploy(led('place:grades'))
    at.edit([{ change: 'remove-item', id: at.item('Welcome').id }])
    at.undo(record)
    expect(at.course.navigation).toEqual([{ label: 'Entry 0', hidden: false }])
  })
})

describe('what a later rollout made again, when the one that removed it is taken back', () => {
  const asked = (of: Template) => {
    partOf(of, 'quiz').questions = {
      list: [
        {
          key: 'q',
          body: { kind: 'true-or-false', text: '<p>Is it so?</p>', points: 20, right: true },
        },
      ],
    }
  }
  it.each<[string, Template, Template, ((again: Template) => void)?]>([
    ['an item', withModules(tour('quay', 'mole')), withModules(tour('mole'))],
    ['a module with what stands in it', withModules(tour('quay', 'mole')), exampleTemplate()],
    [
      'a block',
      exampleTemplate(),
      changedExample((changed) => void partOf(changed, 'welcome').blocks.splice(1, 1)),
      (again) => {
        const { blocks } = textPage('more', 'More of it')
        partOf(again, 'welcome').blocks.push(...blocks)
      },
    ],
    ['a question', changedExample(asked), exampleTemplate()],
  ])('stays, and nothing comes twice: %s', (_, first, without, change) => {
    const at = deployed(first)
    const { record } = at.deploy(without)
    const again = structuredClone(first)
    change?.(again)
    at.deploy(again)
    const stood = alike(at.course)
    const { plan } = at.undo(record)
    expect(alike(at.course)).toEqual(stood)
    expect(plan.changes).toEqual([])
    expect(JSON.stringify(plan.steps)).toContain('a later rollout made it again; that stays')
    expect(at.plan(again).changes).toEqual([])
  })
  it('takes in what stood in a module that was made again without it', () => {
    const at = deployed(withModules(tour('quay', 'mole', 'light')))
    const { record } = at.deploy()
    at.deploy(withModules(tour('light')))
    at.undo(record)
    expect(namesIn(at, 'The tour')).toEqual(['The quay', 'The mole', 'The light'])
  })
})

describe('what comes back, when a rollout is taken back', () => {
  it('comes with its questions but those of kinds that cannot be written, and says so', () => {
    const asked = changedExample((changed) => {
      partOf(changed, 'quiz').questions = {
        list: [
          {
            key: 'q',
            body: { kind: 'true-or-false', text: '<p>Is it so?</p>', points: 20, right: true },
          },
        ],
      }
    })
    const without = changedExample((changed) => {
      for (const part of changed.parts)
        if (isModule(part)) part.items = part.items.filter(({ key }) => key !== 'quiz')
    })
    const at = deployed(asked)
    const before = alike(at.course)
    const { record } = at.deploy(without)
    const { plan } = at.undo(record)
    expect(alike(at.course)).toEqual(before)
    expect(new Set(plan.steps.map(({ does, reason }) => `${does}: ${reason}`))).toEqual(
      new Set(['create: was removed by the rollout; comes back']),
    )
    // Of a kind that has no fields here, a question cannot be made anew.
    const other = structuredClone(record)
    for (const { before: was } of other.touched)
      for (const question of was?.questions ?? [])
        question.body = { kind: 'other', text: '<p>Draw it.</p>', points: 20 }
    const again = deployed(asked)
    again.deploy(without)
    const made = again.planUndo(other).changes.filter(({ change }) => change === 'create-item')
    expect(made.length).toBeGreaterThan(0)
    expect(JSON.stringify(made)).not.toContain('questions')
  })
})
