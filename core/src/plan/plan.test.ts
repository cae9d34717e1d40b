import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  applyChanges,
  type Change,
  type Course,
  everyCourseItem,
  everyModule,
  itemsIn,
  withRecordedIdentity,
} from '../course/index.ts'
import { expandCourse, knownRepetitions, type ExpectedCourse } from '../expand/index.ts'
import {
  emptyCourse,
  exampleCourse,
  exampleFacts,
  exampleTemplate,
} from '../rules/example/exampleCourse.ts'
import { everyItem, newModule, type Template } from '../template/index.ts'
import { carryOut, emptyBase, identityOf, keptBodies, planDeployment, type Base } from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

let next = 0
const hand = {
  newId: (kind: string) => `${kind}-${++next}`,
  urlOf: (id: string) => `/c/${id}`,
  rewriteHtml: (html: string) => html.replaceAll('<p>', '<p>\n'),
}
const expand = (template: Template, course: Course, base: Base = emptyBase()): ExpectedCourse => {
  const identified = withRecordedIdentity(course, identityOf(base))
  const result = expandCourse({
    template,
    facts: exampleFacts(),
    mintFrom: course.id,
    repetitions: knownRepetitions(template, identified),
  })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}
const bodies = keptBodies()
const deploy = (template: Template, course: Course, base: Base) => {
  const plan = planDeployment({
    expected: expand(template, course, base),
    course,
    base,
    bodies,
    onDate: '2026-09-10',
  })
  const done = carryOut(plan, course, base, hand, bodies)
  if (!done.ok) throw new Error(done.problems.message)
  return { plan, ...done.value }
}
const shell = () => emptyCourse('c1', 'New course')
const edit = (course: Course, changes: Change[]): Course => {
  const result = applyChanges(course, changes, hand)
  if (!result.ok) throw new Error(result.problems.message)
  return result.value.course
}

describe('a plan for a shell', () => {
  it('creates every part once, in the order of the template, under its name and dates', () => {
    const { course, plan } = deploy(exampleTemplate(), shell(), emptyBase())
    expect(course.modules.map((module) => module.name).slice(0, 3)).toEqual([
      'Start here',
      'Week 1 · Aug 31 – Sep 6 · Charts',
      'Week 2 · Sep 7 – Sep 13 · Leading marks',
    ])
    expect(course.modules[2]?.children.map((item) => item.name)).toEqual([
      'Week 2 overview',
      'NAV 110 · Discussion 2: Leading marks',
      'NAV 110 · Assignment 1: Leading marks',
      'NAV 110 · Quiz 2: Leading marks',
      'Week 2 checklist',
    ])
    expect(course.name).toBe('NAV 110 Coastal Navigation · Autumn 2026')
    expect(course.homePage).toBe(course.stray[0]?.id)
    if (plan.state === 'ready') expect(new Set(plan.creates).size).toBe(plan.creates.length)
  })
  it('puts a module inside a module where the template has it, between items', () => {
    const template = exampleTemplate()
    const week = template.parts.find((part) => part.key === 'week')
    const like = week?.kind === 'module' ? week.items[0] : undefined
    if (week?.kind !== 'module' || like?.kind === 'module' || !like) throw new Error('a week')
    week.items.splice(1, 0, {
      ...newModule('drills', 'Drills of week {week}'),
      items: [{ ...structuredClone(like), key: 'drill', name: 'Drill {week}', blocks: [] }],
    })
    const { course } = deploy(template, shell(), emptyBase())
    const second = course.modules.find((module) => module.name.startsWith('Week 2'))
    expect(second?.children.slice(0, 3).map((child) => child.name)).toEqual([
      'Week 2 overview',
      'Drills of week 2',
      expect.stringContaining('2'),
    ])
  })
  it('never makes a staff part visible, and fills no break week', () => {
    const { course } = deploy(exampleTemplate(), shell(), emptyBase())
    expect(
      everyCourseItem(course).find(({ item }) => item.name === 'Notes for the instructor')?.item,
    ).toMatchObject({ staffOnly: true, published: false })
    expect(course.modules.find((module) => module.name.includes('Fall Pause'))?.children).toEqual(
      [],
    )
  })
  it('resolves links to parts, also to those made later', () => {
    const { course } = deploy(exampleTemplate(), shell(), emptyBase())
    const welcome = everyCourseItem(course).find(
      ({ item }) => item.name === 'Welcome to NAV 110',
    )?.item
    expect(course.stray[0]?.html).toContain(`href="${welcome?.url}"`)
    expect(JSON.stringify(course)).not.toContain('ref:')
  })
})

describe('planning again', () => {
  it('after running gives an empty plan', () => {
    const first = deploy(exampleTemplate(), shell(), emptyBase())
    expect(deploy(exampleTemplate(), first.course, first.base).plan.state).toBe('nothing-to-do')
  })
  it('is empty whatever the instructor did: renamed, moved, removed or added', () => {
    const first = deploy(exampleTemplate(), shell(), emptyBase())
    const items = everyCourseItem(first.course).filter(({ module }) => module !== null)
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.nat(items.length - 1), fc.constantFrom('rename', 'remove', 'move', 'add')),
          { maxLength: 12 },
        ),
        (edits) => {
          let course = first.course
          for (const [i, does] of edits) {
            const placed = everyCourseItem(course).find(({ item }) => item.id === items[i]?.item.id)
            if (!placed?.module) continue
            const { id } = placed.item
            if (does === 'rename')
              course = edit(course, [{ change: 'set-item', id, fields: { name: 'My own name' } }])
            if (does === 'remove') course = edit(course, [{ change: 'remove-item', id }])
            if (does === 'move')
              course = edit(course, [
                { change: 'move-item', id, module: course.modules[0]?.id ?? null, at: 0 },
              ])
            if (does === 'add')
              course = edit(course, [
                {
                  change: 'create-item',
                  clientId: 'own',
                  module: placed.module.id,
                  at: null,
                  kind: 'page',
                  fields: { name: 'Mine' },
                },
              ])
          }
          expect(deploy(exampleTemplate(), course, first.base).plan.state).toBe('nothing-to-do')
        },
      ),
      propertyRuns(),
    )
  })
  it('with a newer template adds only what is new, in its place, and touches nothing else', () => {
    const first = deploy(exampleTemplate(), shell(), emptyBase())
    const newer = exampleTemplate()
    const start = newer.parts[0]
    const like = start?.kind === 'module' ? start.items[0] : undefined
    if (start?.kind !== 'module' || !like || like.kind === 'module')
      throw new Error('the example begins with a module')
    start.items.splice(1, 0, { ...like, key: 'tour', name: 'A tour of the ship' })
    const second = deploy(newer, first.course, first.base)
    expect(second.course.modules[0]?.children.map((item) => item.name)).toEqual([
      'Welcome to NAV 110',
      'A tour of the ship',
      'Notes for the instructor',
    ])
    const without = structuredClone(second.course)
    without.modules[0]?.children.splice(1, 1)
    expect(without).toEqual(first.course)
  })
  it('keeps repetition ids by number when the calendar moves', () => {
    const first = deploy(exampleTemplate(), shell(), emptyBase())
    const facts = exampleFacts()
    facts.term.firstDay = '2026-09-07'
    facts.term.lastDay = '2026-10-30'
    const moved = expandCourse({
      template: exampleTemplate(),
      facts,
      mintFrom: 'another',
      repetitions: knownRepetitions(
        exampleTemplate(),
        withRecordedIdentity(first.course, identityOf(first.base)),
      ),
    })
    expect(moved.ok && moved.value.parts.map((part) => part.instance)).toEqual(
      expand(exampleTemplate(), shell()).parts.map((part) => part.instance),
    )
  })
  it('leaves out a course that holds other content, and says how much', () => {
    const filled = edit(shell(), [
      {
        change: 'create-module',
        clientId: 'm',
        parent: null,
        at: null,
        fields: { name: 'Last term' },
      },
    ])
    expect(
      planDeployment({
        expected: expand(exampleTemplate(), filled),
        course: filled,
        base: emptyBase(),
        bodies,
        onDate: '2026-09-10',
      }),
    ).toMatchObject({
      state: 'left-out',
      reason: expect.stringContaining('(modules: 1, items: 0)') as string,
    })
  })
})

describe('applying changes', () => {
  it('is all or nothing, and never removes student work', () => {
    const { course } = deploy(exampleTemplate(), shell(), emptyBase())
    const item = course.modules[1] && itemsIn(course.modules[1])[0]
    if (!item) throw new Error('there is one')
    item.studentWork = true
    const before = structuredClone(course)
    const result = applyChanges(
      course,
      [
        { change: 'set-course', name: 'Changed' },
        { change: 'remove-item', id: item.id },
      ],
      hand,
    )
    expect(result).toMatchObject({ ok: false, problems: { code: 'student-work', at: 1 } })
    expect(course).toEqual(before)
  })
  it.each([
    [{ change: 'set-item', id: 'nobody', fields: {} }, 'gone'],
    [
      {
        change: 'create-item',
        clientId: 'a',
        module: 'ref:nothing',
        at: null,
        kind: 'page',
        fields: { name: 'A' },
      },
      'unknown-reference',
    ],
    [
      {
        change: 'create-item',
        clientId: 'a',
        module: null,
        at: null,
        kind: 'page',
        fields: { name: 'A', html: '<a href="ref:nothing">x</a>' },
      },
      'unknown-reference',
    ],
  ] as [Change, string][])('refuses %j as %s', (change, code) => {
    expect(applyChanges(shell(), [change], hand)).toMatchObject({ ok: false, problems: { code } })
  })
  it('refuses to remove a module that holds something', () => {
    const { course } = deploy(exampleTemplate(), shell(), emptyBase())
    expect(
      applyChanges(
        course,
        [{ change: 'remove-module', id: everyModule(course.modules)[0]?.id ?? '' }],
        hand,
      ),
    ).toMatchObject({ ok: false, problems: { code: 'not-empty' } })
  })
})

describe('what a template says of work and of the whole course', () => {
  it('is deployed with it: settings, grade scheme, rubric, attempts', () => {
    const template = exampleTemplate()
    template.assets = [
      {
        key: 'quay',
        fileName: 'quay.svg',
        alternativeText: 'A quay',
        licence: 'our own',
        svg: '<svg xmlns="http://www.w3.org/2000/svg"/>',
      },
    ]
    template.settings = {
      language: 'en',
      gradesShown: true,
      seenBy: 'institution',
      arranged: 'by-date',
      picture: 'quay',
    }
    template.grading = {
      weighted: true,
      shown: 'rolled-up',
      categories: [{ key: 'work', name: 'Work', weight: 100, counts: true }],
    }
    template.rubrics = [
      {
        key: 'log',
        title: 'Log book',
        criteria: [{ text: 'Kept', levels: [{ text: 'yes', points: 100 }] }],
      },
    ]
    const assignment = everyItem(template).find((item) => item.key === 'assignment')
    if (!assignment) throw new Error('the example has an assignment')
    assignment.settings = { ...assignment.settings, attempts: 2, handIn: 'file', rubric: 'log' }
    const { course, item } = exampleCourse(template)
    expect(course).toMatchObject({
      settings: {
        language: 'en',
        gradesShown: true,
        seenBy: 'institution',
        arranged: 'by-date',
        picture: expect.stringMatching(/^quay-[0-9a-f]+\.svg$/) as unknown,
      },
      grading: { categories: [{ name: 'Work', weight: 100 }] },
    })
    expect(item('assignment')).toMatchObject({
      work: { attempts: 2, handIn: 'file' },
      rubric: { title: 'Log book' },
    })
    expect(item('quiz').work).toBeUndefined()
  })
})
