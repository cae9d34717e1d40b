import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { everyCourseItem, everyModule, type Course, type CourseItem } from '../course/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { editCount, editsBetween } from './editsBetween.ts'

const before = exampleCourse().course
const ids = everyCourseItem(before).map(({ item }) => item.id)
/** What an instructor does to one item. */
const doings: readonly ((item: CourseItem) => void)[] = [
  (item) => (item.name += ' (new)'),
  (item) => (item.published = !item.published),
  (item) => (item.html = `${item.html ?? ''}<p>More of it</p>`),
  (item) => (item.dueAt = item.dueAt === null ? '2026-10-01T23:59:00Z' : null),
  (item) => (item.points = (item.points ?? 0) + 5),
  (item) => (item.target = 'https://charts.example/'),
  (item) => (item.category = 'Voyages'),
]
const some = fc.subarray(ids)
const edited = (change: (course: Course) => void): Course => {
  const course = structuredClone(before)
  change(course)
  return course
}
const itemsOf = (course: Course, chosen: readonly string[]) =>
  everyCourseItem(course).flatMap(({ item }) => (chosen.includes(item.id) ? [item] : []))
const takeOut = (course: Course, chosen: readonly string[]): void => {
  const stays = ({ id }: { id: string }) => !chosen.includes(id)
  for (const module of everyModule(course.modules)) module.children = module.children.filter(stays)
  course.stray = course.stray.filter(stays)
}

describe('edits between two reads of a course', () => {
  it('are the items that somebody did something to, and nothing else', () => {
    fc.assert(
      fc.property(some, fc.infiniteStream(fc.constantFrom(...doings)), (chosen, does) => {
        const after = edited((course) => {
          for (const item of itemsOf(course, chosen)) does.next().value?.(item)
        })
        expect(editsBetween(before, after)).toEqual({
          added: [],
          removed: [],
          changed: chosen,
          course: false,
        })
      }),
    )
  })
  it('are what is gone, and the other way round what came', () => {
    fc.assert(
      fc.property(some, (chosen) => {
        const after = edited((course) => takeOut(course, chosen))
        const edits = editsBetween(before, after)
        expect([edits, editCount(edits)]).toEqual([
          { added: [], removed: chosen, changed: [], course: false },
          chosen.length,
        ])
        expect(editsBetween(after, before)).toMatchObject({ added: chosen, removed: [] })
      }),
    )
  })
  it('are one for what stands in another order, however much of it moved', () => {
    fc.assert(
      fc.property(fc.nat(before.modules.length - 1), fc.nat(), (at, by) => {
        const after = edited((course) => {
          const children = course.modules[at]?.children ?? []
          children.push(...children.splice(0, by % Math.max(1, children.length)))
        })
        const module = before.modules[at]
        const moved = by % Math.max(1, module?.children.length ?? 0) > 0
        expect(editsBetween(before, after).changed).toEqual(moved ? [module?.id] : [])
      }),
    )
  })
  it('are none where only the platform’s own changed', () => {
    const after = edited((course) => {
      course.revision = '99'
      course.readAt = '2026-12-01T00:00:00Z'
      course.files = [{ id: 'f', name: 'chart.pdf', url: '/f', restricted: false }]
      for (const { item } of everyCourseItem(course)) {
        item.url = `/elsewhere/${item.id}`
        item.studentWork = true
      }
    })
    expect(editCount(editsBetween(before, after))).toBe(0)
  })
  it.each<[what: string, change: (course: Course) => void]>([
    ['another name', (course) => (course.name = 'Another')],
    ['another home page', (course) => (course.homePage = ids[3] ?? null)],
    ['its modules in another order', (course) => course.modules.reverse()],
    [
      'a navigation entry hidden',
      (course) => course.navigation.push({ label: 'Log', hidden: true }),
    ],
  ])('of the course itself are one: %s', (_, change) => {
    const edits = editsBetween(before, edited(change))
    expect([edits.course, editCount(edits)]).toEqual([true, 1])
  })
})
