import { describe, expect, it } from 'vitest'
import { courseItem, courseModule } from '../rules/example/courseParts.ts'
import { emptyCourse } from '../rules/example/exampleCourse.ts'
import { applyChanges } from './applyChanges.ts'
import { Change, changeKind } from './change/change.ts'
import { definedChanges } from './change/kinds.ts'
import { everyCourseItem, isCourseModule, type Course, type CourseChild } from './course.ts'
import { documentHand } from './documentHand.ts'

const course = (): Course => ({
  ...emptyCourse('c', 'NAV 110'),
  modules: [
    courseModule('week', 'Week 1', [
      courseItem('first', 'First', { carried: { accent: 'teal' } }),
      courseModule('day', 'Day 1', [courseItem('drill', 'Drill')]),
      courseItem('last', 'Last', { studentWork: true }),
    ]),
    courseModule('other', 'Week 2'),
  ],
})
const apply = (changes: Change[], to = course()) => applyChanges(to, changes, documentHand(to))
const after = (...changes: Change[]): Course => {
  const applied = apply(changes)
  if (!applied.ok) throw new Error(applied.problems.message)
  return applied.value.course
}
/** Ids in the order in which students meet them. */
const order = (children: readonly CourseChild[]): string =>
  children
    .map((child) => (isCourseModule(child) ? `${child.id}(${order(child.children)})` : child.id))
    .join(' ')

describe('places in a module', () => {
  it.each<[string, Change, string]>([
    [
      'an item goes between an item and a module',
      { change: 'move-item', id: 'last', module: 'week', at: 1 },
      'week(first last day(drill)) other()',
    ],
    [
      'a module inside goes to the end',
      { change: 'move-module', id: 'day', at: null },
      'week(first last day(drill)) other()',
    ],
    [
      'an item goes into the module inside',
      { change: 'move-item', id: 'first', module: 'day', at: 0 },
      'week(day(first drill) last) other()',
    ],
    [
      'a new module stands where it is put',
      { change: 'create-module', clientId: 'n', parent: 'week', at: 1, fields: { name: 'New' } },
      'week(first module-1() day(drill) last) other()',
    ],
    [
      'a module at the top is counted among the modules',
      { change: 'move-module', id: 'other', at: 0 },
      'other() week(first day(drill) last)',
    ],
  ])('%s', (_, change, wanted) => {
    expect(order(after(change).modules)).toBe(wanted)
  })
})

describe('what Wickerframe does not understand of an item', () => {
  it('is carried along when the item is changed, moved and duplicated', () => {
    const items = everyCourseItem(
      after(
        { change: 'set-item', id: 'first', fields: { name: 'Renamed' } },
        { change: 'move-item', id: 'first', module: 'other', at: null },
        { change: 'duplicate-item', id: 'first', clientId: 'copy' },
      ),
    ).filter(({ item }) => item.name === 'Renamed')
    expect(items.map(({ item }) => item.carried)).toEqual([{ accent: 'teal' }, { accent: 'teal' }])
  })
})

describe('a change that cannot be made', () => {
  it.each<[string, Change, string]>([
    ['of what is not there', { change: 'set-item', id: 'nowhere', fields: { name: 'X' } }, 'gone'],
    ['of what was never made', { change: 'remove-item', id: 'ref:nowhere' }, 'unknown-reference'],
    ['of a module that is an item', { change: 'set-module', id: 'first', fields: {} }, 'gone'],
    ['that takes work of students away', { change: 'remove-item', id: 'last' }, 'student-work'],
    [
      'that leads students’ work elsewhere',
      { change: 'set-item', id: 'last', fields: { target: 'https://elsewhere.example' } },
      'student-work',
    ],
    ['of a module that holds something', { change: 'remove-module', id: 'week' }, 'not-empty'],
  ])('%s: none of its set is, and it is said which', (_, change, code) => {
    const given = course()
    const result = apply([{ change: 'set-course', name: 'Changed' }, change], given)
    expect(result).toMatchObject({ ok: false, problems: { code, at: 1 } })
    expect(given).toEqual(course())
  })
})

it('a platform may give a module and an item one id: each is found as what is meant', () => {
  const twice: Course = {
    ...emptyCourse('c', 'NAV 110'),
    modules: [courseModule('7', 'Week 1', [courseItem('7', 'Overview')])],
  }
  const result = apply(
    [
      { change: 'set-item', id: '7', fields: { name: 'Item' } },
      { change: 'set-module', id: '7', fields: { name: 'Module' } },
    ],
    twice,
  )
  if (!result.ok) throw new Error(result.problems.message)
  const [module] = result.value.course.modules
  expect([module?.name, module?.children[0]?.name]).toEqual(['Module', 'Item'])
})

it('every kind of change tells its own name in its schema', () => {
  for (const { change, schema } of definedChanges) {
    expect(schema.shape.change.value).toBe(change)
    expect(changeKind({ change } as Change)).toMatchObject({ change })
  }
  expect(Change.options).toHaveLength(definedChanges.length)
})
