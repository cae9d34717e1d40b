import { describe, expect, it } from 'vitest'
import { courseItem, courseModule } from '../rules/example/courseParts.ts'
import { emptyCourse } from '../rules/example/exampleCourse.ts'
import { misplaced } from './misplaced.ts'
import { listAt, movedBetween, placeAmong, placesOf } from './places.ts'

const item = (id: string) => courseItem(id, id)
const course = (stray = ['s', 't'], inner = ['a', 'b', 'c']) => ({
  ...emptyCourse('c1', 'Course'),
  modules: [
    courseModule('m', 'm', [...inner.map(item), courseModule('n', 'n', [item('d')])]),
    courseModule('o', 'o'),
  ],
  stray: stray.map(item),
})

describe('where things stand', () => {
  it('is in lists: modules and items outside at the top, everything together in a module', () => {
    const places = placesOf(course())
    expect(places.idsIn(listAt('module', null))).toEqual(['m', 'o'])
    expect(places.idsIn(listAt('page', null))).toEqual(['s', 't'])
    expect(places.idsIn(listAt('page', 'm'))).toEqual(['a', 'b', 'c', 'n'])
    expect(places.idsIn(listAt('module', 'm'))).toBe(places.idsIn(listAt('page', 'm')))
    expect(places.idsIn(listAt('page', 'o'))).toEqual([])
    expect(['d', 'n', 'o', 's', 'x'].map((id) => places.listOf(id))).toEqual([
      { of: 'all', parent: 'n' },
      { of: 'all', parent: 'm' },
      { of: 'modules', parent: null },
      { of: 'items', parent: null },
      undefined,
    ])
  })
  it.each<[string, string, string, string, number | null, string[]?]>([
    ['after the nearest before it', 'acd', 'abcd', 'b', 1],
    ['after one further before it, where the nearest is gone', 'ad', 'abcd', 'c', 1],
    ['after the first', 'ax', 'ab', 'b', 1],
    ['before the nearest after it, where none is before it', 'cd', 'abcd', 'a', 0],
    ['before one further after it', 'xd', 'abcd', 'a', 1],
    ['at the end, after the last', 'xa', 'ab', 'b', null],
    ['at the end, where none of them stands', 'xy', 'ab', 'b', null],
    ['past those that are yet to move', 'abd', 'abcd', 'c', 1, ['b']],
    ['before none that is yet to move', 'cd', 'abcd', 'a', 1, ['c']],
  ])('is told by what stands there: %s', (_, list, siblings, self, at, yetToMove = []) => {
    expect(placeAmong([...list], [...siblings], self, new Set(yetToMove))).toBe(at)
  })
  it('changes by the fewest moves; what is in one of both orders alone did not move', () => {
    expect(movedBetween([...'abcd'], [...'bcda'])).toEqual(new Set(['a']))
    expect(movedBetween([...'abx'], [...'yab'])).toEqual(new Set())
  })
})

describe('what stands elsewhere than it was to', () => {
  it.each<[string, ReturnType<typeof course>, string[]]>([
    ['nothing, where all is as it was to be', course(), []],
    ['what stands in another order in a module', course(['s', 't'], ['c', 'a', 'b']), ['c']],
    ['nothing, whatever the order outside every module', course(['t', 's']), []],
    ['what stands outside every module', course(['s', 't', 'b'], ['a', 'c']), ['b']],
    [
      'nothing of what is not there, and of what nobody wanted',
      course(['s', 'x'], ['a', 'y', 'b']),
      [],
    ],
  ])('is %s', (_, there, expected) => {
    expect([...misplaced(course(), there)]).toEqual(expected)
  })
  it('is a module that stands in another, or after another, and what is in it stands in it still', () => {
    const there = course()
    there.modules.reverse()
    expect([...misplaced(course(), there)]).toHaveLength(1)
    const [, first] = there.modules
    if (first) first.children = first.children.filter(({ id }) => id !== 'n')
    there.modules.push(courseModule('n', 'n', [item('d')]))
    expect([...misplaced(course(), there)]).toContain('n')
    expect([...misplaced(course(), there)]).not.toContain('d')
  })
})
