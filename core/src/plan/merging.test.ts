import { describe, expect, it } from 'vitest'
import { applyChanges, everyCourseItem, type Change, type Course } from '../course/index.ts'
import { emptyCourse, exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, isModule, type Template } from '../template/index.ts'
import { overlay, withStrengthsOf } from '../variant/index.ts'
import {
  carryOut,
  carryOver,
  emptyBase,
  expandForPlan,
  mergeCaseOf,
  isWorkedOut,
  keptBodies,
  planDeployment,
  planShape,
  planUndo,
  undoRecordOf,
  beforeChanges,
  type Base,
  type CarryKind,
  type Decisions,
  type Plan,
  type Selection,
} from './index.ts'
import { mergeName } from './mergeName.ts'
import { partOf } from './versions.testing.ts'

let next = 0
const hand = {
  newId: (kind: string) => `${kind[0]}${++next}`,
  urlOf: (id: string) => `/c/${id}`,
  rewriteHtml: (html: string) => html,
}
const bodies = keptBodies()
interface Standing {
  course: Course
  base: Base
}
const planFor = (
  { course, base }: Standing,
  template: Template,
  more: {
    decisions?: Decisions
    only?: Selection
    except?: string[]
    restore?: { fixedText?: boolean; missingParts?: boolean }
    facts?: ReturnType<typeof exampleFacts>
  } = {},
) => {
  const { facts = exampleFacts(), ...rest } = more
  const expected = expandForPlan({ template, facts, course, base })
  if (!expected.ok) throw new Error(JSON.stringify(expected.problems))
  const plan = planDeployment({
    expected: expected.value,
    course,
    base,
    bodies,
    onDate: '2026-09-10',
    ...rest,
  })
  if (!isWorkedOut(plan)) throw new Error(plan.reason)
  return plan
}
const run = (at: Standing, plan: Plan): Standing => {
  const done = carryOut(plan, at.course, at.base, hand, bodies)
  if (!done.ok) throw new Error(done.problems.message)
  return done.value
}
const deployed = (template = exampleTemplate()): Standing => {
  const shell = { course: emptyCourse('c1', 'New'), base: emptyBase() }
  return run(shell, planFor(shell, template))
}
const edit = (at: Standing, changes: Change[]): Standing => {
  const done = applyChanges(at.course, changes, hand)
  if (!done.ok) throw new Error(done.problems.message)
  return { ...at, course: done.value.course }
}
const item = (course: Course, name: string) => {
  const found = everyCourseItem(course).find((item) => item.item.name.startsWith(name))?.item
  if (!found)
    throw new Error(
      `no ${name} among ${everyCourseItem(course)
        .map((item) => item.item.name)
        .join(', ')}`,
    )
  return found
}
const step = (plan: ReturnType<typeof planFor>, part: string) =>
  plan.steps.find((step) => step.part === part)

describe('what became of one value (base, present, wanted)', () => {
  it.each([
    [['a', 'a', 'a'], 'same'],
    [['a', 'a', 'b'], 'change'],
    [['a', 'b', 'a'], 'keep'],
    [['a', 'b', 'b'], 'agree'],
    [['a', 'b', 'c'], 'conflict'],
  ] as const)(
    '%j: %s (the classic table of three-way merging, common practice, no source)',
    ([base, present, wanted], fate) => {
      expect(mergeCaseOf({ sent: base, echo: base }, present, wanted)).toBe(fate)
    },
  )
  it('minds the platform’s own way of writing: what it echoed is untouched', () => {
    expect(mergeCaseOf({ sent: 'a', echo: 'A' }, 'A', 'b')).toBe('change')
  })
  it('without a base, what differs is a conflict', () =>
    expect([mergeCaseOf(null, 'a', 'a'), mergeCaseOf(null, 'a', 'b')]).toEqual([
      'agree',
      'conflict',
    ]))
})

describe('names merge through their fields', () => {
  const was = {
    format: 'Week {week} · {dates} · {topic}',
    name: 'Week 3 · Sep 14 – Sep 20 · [topic]',
  }
  const values = { week: 3, dates: { first: '2026-09-21', last: '2026-09-27' } }
  it('the instructor’s topic stays, dates and format come from the template', () => {
    expect(
      mergeName(
        was,
        'Week 3 · Sep 14 – Sep 20 · Tides',
        'Wk {week, 00}: {topic} ({dates})',
        values,
      ),
    ).toBe('Wk 03: Tides (Sep 21 – Sep 27)')
  })
  it.each([
    ['what cannot be read', 'Third week of the moon'],
    ['another week than was deployed', 'Week 4 · Sep 14 – Sep 20 · Tides'],
  ])('%s is a conflict', (_, name) => expect(mergeName(was, name, was.format, values)).toBeNull())
  it('so are words that the new format has no place for', () =>
    expect(mergeName(was, 'Week 3 · Sep 14 – Sep 20 · Tides', 'Week {week}', values)).toBeNull())
})

describe('conflicts', () => {
  const both = () => {
    const at = deployed()
    const two = exampleTemplate()
    const block = partOf(two, 'welcome').blocks.find((block) => block.key === 'promise')
    if (block?.kind === 'fixed-text') block.html = '<p>You hear from us within two days.</p>'
    const welcome = item(at.course, 'Welcome')
    return {
      at: edit(at, [
        {
          change: 'set-item',
          id: welcome.id,
          fields: {
            html: (welcome.html ?? '')
              .replace('by Friday of the same week', 'when I can')
              .replace('Tell students who you are.', 'I am Sunniva.'),
          },
        },
      ]),
      two,
    }
  }
  const htmlAfter = (decisions?: Decisions) => {
    const { at, two } = both()
    const plan = planFor(at, two, decisions ? { decisions } : {})
    return {
      plan,
      html: item(run(at, plan).course, 'Welcome').html ?? '',
      again: planFor(run(at, plan), two, decisions ? { decisions } : {}),
    }
  }
  it('nobody decided on are left as they are, and counted', () => {
    const { plan, html } = htmlAfter()
    expect([plan.undecided, html.includes('when I can'), html.includes('two days')]).toEqual([
      1,
      true,
      false,
    ])
    expect(step(plan, 'welcome')).toMatchObject({
      does: 'conflict',
      fields: [{ field: 'block:promise', does: 'conflict', decided: null }],
    })
  })
  it('keep: theirs stays, and the same conflict does not come back', () => {
    const { html, again } = htmlAfter({ rule: 'keep', single: {} })
    expect([html.includes('when I can'), again.state]).toEqual([true, 'nothing-to-do'])
  })
  it('take: the template’s comes, and nothing else of the page changes', () => {
    const { html } = htmlAfter({ rule: null, single: { 'welcome/block:promise': 'take' } })
    expect([
      html.includes('two days'),
      html.includes('when I can'),
      html.includes('I am Sunniva.'),
    ]).toEqual([true, false, true])
  })
  it('both: the one after the other, one by one only', () => {
    const { html, again } = htmlAfter({ rule: null, single: { 'welcome/block:promise': 'both' } })
    expect(html.indexOf('when I can')).toBeLessThan(html.indexOf('two days'))
    expect(again.changes).toEqual([])
  })
  it('what cannot be both is not decided by “both”', () => {
    const at = deployed()
    const quiz = item(at.course, 'NAV 110 · Quiz 1')
    const two = exampleTemplate()
    partOf(two, 'quiz').settings = { points: 30 }
    const edited = edit(at, [{ change: 'set-item', id: quiz.id, fields: { points: 5 } }])
    const instance = edited.base.parts.find((entry) => entry.platformId === quiz.id)?.instance ?? ''
    expect(
      planFor(edited, two, {
        decisions: { rule: null, single: { [`${instance}/points`]: 'both' } },
      }).undecided,
    ).toBe(1)
  })
})

describe('what is asked for', () => {
  it('fixed text that was altered is restored only where asked, removed parts come back only where asked', () => {
    const at = deployed()
    const welcome = item(at.course, 'Welcome')
    const edited = edit(at, [
      {
        change: 'set-item',
        id: welcome.id,
        fields: { html: (welcome.html ?? '').replace('by Friday of the same week', 'some day') },
      },
      { change: 'remove-item', id: item(at.course, 'Week 2 checklist').id },
    ])
    expect(planFor(edited, exampleTemplate()).state).toBe('nothing-to-do')
    const plan = planFor(edited, exampleTemplate(), {
      restore: { fixedText: true, missingParts: true },
    })
    expect(plan.steps.map((step) => [step.does, step.part])).toEqual(
      expect.arrayContaining([
        ['change', 'welcome'],
        ['create', 'checklist'],
      ]),
    )
    const restored = run(edited, plan).course
    expect(item(restored, 'Welcome').html).toContain('by Friday of the same week')
    expect(item(restored, 'Week 2 checklist').html).toContain('Tick off')
  })
  it('only chosen parts and blocks are brought, or all but those left out', () => {
    const at = deployed()
    const two = exampleTemplate()
    partOf(two, 'quiz').name = 'Test {number}: {topic}'
    const help = two.home.blocks.find((block) => block.key === 'help')
    if (help?.kind === 'fixed-text') help.html = '<p>The desk moved.</p>'
    const parts = (plan: ReturnType<typeof planFor>) => [
      ...new Set(plan.steps.filter((step) => step.does !== 'keep').map((step) => step.part)),
    ]
    expect(parts(planFor(at, two))).toEqual(['quiz', 'home-page'])
    expect(parts(planFor(at, two, { only: { parts: ['week'], blocks: [] } }))).toEqual(['quiz'])
    expect(parts(planFor(at, two, { only: { parts: [], blocks: ['home-page/help'] } }))).toEqual([
      'home-page',
    ])
    expect(parts(planFor(at, two, { except: ['quiz'] }))).toEqual(['home-page'])
  })
})

describe('plans that look alike', () => {
  it('have one shape, whatever the names, dates and ids of the course', () => {
    const two = exampleTemplate()
    partOf(two, 'quiz').name = 'Test {number}'
    const other = { ...exampleFacts(), code: 'NAV 205', title: 'Celestial Fixes', topics: {} }
    const shell = { course: emptyCourse('c2', 'New'), base: emptyBase() }
    const second = run(shell, planFor(shell, exampleTemplate(), { facts: other }))
    const [a, b] = [
      planShape(planFor(deployed(), two)),
      planShape(planFor(second, two, { facts: other })),
    ]
    expect(a.id).toBe(b.id)
    expect(a.lines).toEqual([
      expect.objectContaining({ does: 'change', part: 'quiz', field: 'name', count: 7 }),
    ])
    expect(planShape(planFor(edit(deployed(), []), exampleTemplate())).id).not.toBe(a.id)
  })
})

describe('consequences', () => {
  it('tell of names students will see, of work that is left alone and of dates past the last day', () => {
    const at = deployed()
    const quiz = item(at.course, 'NAV 110 · Quiz 1')
    quiz.studentWork = true
    at.course.published = true
    const two = exampleTemplate()
    Object.assign(partOf(two, 'quiz'), {
      name: 'Test {number}',
      settings: { points: 50, due: { from: 'week-end', days: 60, time: '12:00' } },
    })
    const plan = planFor(at, two)
    expect(
      Object.fromEntries(
        plan.consequences.map((consequence) => [consequence.code, consequence.count]),
      ),
    ).toMatchObject({ 'new-names': 7, 'student-work': 1, 'past-last-day': 7 })
    expect(
      run(at, plan).course.modules[1]?.children.find((child) => child.id === quiz.id),
    ).toMatchObject({ points: 20 })
  })
})

describe('carrying over', () => {
  const carried = (kinds: CarryKind[]) => {
    const at = deployed()
    const welcome = item(at.course, 'Welcome')
    const week = at.course.modules[1]
    const source = edit(at, [
      {
        change: 'set-item',
        id: welcome.id,
        fields: {
          html: (welcome.html ?? '').replace(
            'Tell students who you are.',
            `I am Sunniva; we met on Sep 21. <a href="${item(at.course, 'Week 1 overview').url}">Week one</a>`,
          ),
        },
      },
      {
        change: 'set-module',
        id: week?.id ?? '',
        fields: { name: 'Week 1 · Aug 31 – Sep 6 · Paper and pencil' },
      },
      {
        change: 'create-item',
        clientId: 'own',
        module: week?.id ?? '',
        at: null,
        kind: 'page',
        fields: { name: 'My own page', html: '<p>Autumn 2026 was fine.</p>' },
      },
      {
        change: 'create-item',
        clientId: 'note',
        module: week?.id ?? '',
        at: null,
        kind: 'discussion',
        fields: { name: 'Announcement: no class' },
      },
      {
        change: 'create-module',
        clientId: 'hid',
        parent: null,
        at: null,
        fields: { name: 'Private', published: false },
      },
      {
        change: 'create-item',
        clientId: 'file',
        module: 'ref:hid',
        at: null,
        kind: 'file',
        fields: { name: 'letter-about-a-student.pdf' },
      },
    ])
    const facts = { ...exampleFacts(), topics: {} }
    Object.assign(facts.term, {
      code: 'spring-2027',
      title: 'Spring 2027',
      firstDay: '2027-01-11',
      lastDay: '2027-03-05',
      breaks: [],
      holidays: [],
    })
    const shell = { course: emptyCourse('new', 'New'), base: emptyBase() }
    const expected = expandForPlan({
      template: exampleTemplate(),
      facts,
      course: shell.course,
      base: shell.base,
    })
    if (!expected.ok) throw new Error('it does not fit')
    const plan = carryOver(
      planFor(shell, exampleTemplate(), { facts }),
      expected.value,
      { ...source, bodies, facts: exampleFacts() },
      new Set(kinds),
    )
    return { plan, after: run(shell, plan), facts }
  }
  it('brings answers, own words in names and own pages into new dates, and tells what speaks of the earlier term', () => {
    const { plan, after } = carried(['answers', 'topics', 'own-pages'])
    const welcome = item(after.course, 'Welcome')
    expect(welcome.html).toContain('I am Sunniva')
    expect(welcome.html).toContain(`href="${item(after.course, 'Week 1 overview').url}"`)
    expect(after.course.modules[1]?.name).toBe('Week 1 · Jan 11 – Jan 17 · Paper and pencil')
    expect(item(after.course, 'My own page').html).toContain('fine')
    if (!isWorkedOut(plan)) throw new Error('it is a shell')
    expect(
      Object.fromEntries(
        plan.consequences.map((consequence) => [consequence.code, consequence.all.length > 0]),
      ),
    ).toMatchObject({ 'dates-in-prose': true, 'old-term': true })
    expect(JSON.stringify(after.course)).not.toContain('Announcement')
  })
  it('never takes what stands in a hidden module, nor tells its name', () => {
    const { plan, after } = carried([
      'answers',
      'topics',
      'own-pages',
      'own-activities',
      'announcements',
    ])
    expect(JSON.stringify([plan, after])).not.toContain('letter-about')
    expect(
      isWorkedOut(plan) &&
        plan.consequences.find((consequence) => consequence.code === 'left-behind')?.count,
    ).toBe(1)
    expect(JSON.stringify(after.course)).toContain('Announcement')
  })
  it('leaves what came along to the instructor: a later update does not touch it', () => {
    const { after, facts } = carried(['answers', 'topics'])
    const two = exampleTemplate()
    const hello = partOf(two, 'welcome').blocks.find((block) => block.key === 'hello')
    if (hello?.kind === 'fill-in') hello.prompt = 'Say hello.'
    const later = run(after, planFor(after, two, { facts }))
    expect(item(later.course, 'Welcome').html).toContain('I am Sunniva')
    expect(later.course.modules[1]?.name).toContain('Paper and pencil')
  })
})

describe('undo', () => {
  it('brings a removed part back under a new id, and links to it lead there', () => {
    const at = deployed()
    const old = item(at.course, 'Week 2 checklist')
    const linking = edit(at, [
      {
        change: 'create-item',
        clientId: 'mine',
        module: at.course.modules[0]?.id ?? '',
        at: null,
        kind: 'page',
        fields: { name: 'Mine', html: `<p><a href="${old.url}">the list</a></p>` },
      },
    ])
    const two = exampleTemplate()
    for (const part of two.parts)
      if (isModule(part)) part.items = part.items.filter((item) => item.key !== 'checklist')
    const plan = planFor(linking, two)
    const updated = run(linking, plan)
    expect(
      everyCourseItem(updated.course).some((item) => item.item.name === 'Week 2 checklist'),
    ).toBe(false)
    const record = undoRecordOf(
      plan.changes,
      beforeChanges(plan.changes, linking.course, bodies),
      updated.course,
      {},
      linking.base,
      updated.base,
      bodies,
    )
    const undone = run(updated, planUndo({ record, ...updated, bodies }))
    const back = item(undone.course, 'Week 2 checklist')
    expect(back.id).not.toBe(old.id)
    expect(item(undone.course, 'Mine').html).toContain(`href="${back.url}"`)
    expect(planFor(undone, exampleTemplate()).state).toBe('nothing-to-do')
  })
})

describe('how a course is judged after a part of a version was brought in', () => {
  it('by the old version with those parts in their newer form; or the newer one but for those left out', () => {
    const [old, newer] = [exampleTemplate(), exampleTemplate()]
    partOf(newer, 'quiz').name = 'Test {number}'
    partOf(newer, 'welcome').name = 'Hello'
    const names = (template: Template) => [
      partOf(template, 'quiz').name,
      partOf(template, 'welcome').name,
    ]
    expect(names(overlay(old, newer, { only: ['quiz'], except: [] }))).toEqual([
      'Test {number}',
      partOf(old, 'welcome').name,
    ])
    expect(names(overlay(old, newer, { only: ['week'], except: [] }))).toEqual([
      'Test {number}',
      partOf(old, 'welcome').name,
    ])
    expect(names(overlay(old, newer, { only: null, except: ['quiz'] }))).toEqual([
      partOf(old, 'quiz').name,
      'Hello',
    ])
  })
  it('a part only the newer one has stands where it was brought, and one it no longer has stays where it was not', () => {
    const [old, newer] = [exampleTemplate(), exampleTemplate()]
    const start = newer.parts[0]
    if (!start || !isModule(start)) throw new Error('it begins with a module')
    start.items = [{ ...partOf(newer, 'staff-notes'), key: 'tour', name: 'Tour' }]
    const keys = (template: Template) =>
      everyItem(template)
        .slice(0, 4)
        .map((item) => item.key)
    expect(keys(overlay(old, newer, { only: ['tour'], except: [] }))).toEqual([
      'tour',
      'welcome',
      'staff-notes',
      'week-overview',
    ])
    expect(keys(overlay(old, newer, { only: null, except: ['welcome'] })).slice(0, 2)).toEqual([
      'tour',
      'welcome',
    ])
  })
  it('takes strengths and rules of a newer version and nothing else', () => {
    const [old, newer] = [exampleTemplate(), exampleTemplate()]
    Object.assign(partOf(newer, 'quiz'), { strength: 'must', name: 'Test' })
    newer.policies = [{ rule: 'part-missing', off: true } as never]
    const judged = withStrengthsOf(old, newer)
    expect([partOf(judged, 'quiz').strength, partOf(judged, 'quiz').name, judged.policies]).toEqual(
      ['must', partOf(old, 'quiz').name, newer.policies],
    )
  })
})
