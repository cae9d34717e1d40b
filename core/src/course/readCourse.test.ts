import { describe, expect, it } from 'vitest'
import { courseItem, courseModule } from '../rules/example/courseParts.ts'
import { emptyCourse } from '../rules/example/exampleCourse.ts'
import { everyCourseItem, everyModule } from './course.ts'
import { readCourse } from './readCourse.ts'

/** A document as the version before wrote it: items and inner modules in two lists. */
const documentOf1 = (modules: unknown) => ({
  ...emptyCourse('c', 'NAV 110'),
  schema: 'wickerframe.course/1',
  modules,
})
const item = (id: string) => ({ id, kind: 'page', name: id })

describe('a course document of the version before', () => {
  it('is read with the items of each module before the modules inside it, however deep', () => {
    const read = readCourse(
      documentOf1([
        {
          id: 'week',
          name: 'Week 1',
          items: [item('overview')],
          modules: [
            { id: 'day', name: 'Day 1', items: [item('drill')], modules: [{ id: 'x', name: 'X' }] },
          ],
        },
      ]),
    )
    if (!read.ok) throw new Error(JSON.stringify(read.problems))
    expect(everyModule(read.value.modules).map(({ id, kind }) => `${kind} ${id}`)).toEqual([
      'module week',
      'module day',
      'module x',
    ])
    expect(
      everyCourseItem(read.value).map((placed) => [placed.item.id, placed.module?.id]),
    ).toEqual([
      ['overview', 'week'],
      ['drill', 'day'],
    ])
    expect(read.value.schema).toBe('wickerframe.course/2')
  })
  it.each([
    ['a list that is none', [{ id: 'week', name: 'Week 1', items: 'none' }]],
    ['a module that is none', [7]],
    ['no list of modules', 'none'],
  ])('is refused where it holds %s, and nothing of it is read as empty', (_, modules) => {
    expect(readCourse(documentOf1(modules)).ok).toBe(false)
  })
})

describe('a course document of this version', () => {
  it('keeps a module between two items, and what it carries', () => {
    const course = {
      ...emptyCourse('c', 'NAV 110'),
      modules: [
        courseModule('week', 'Week 1', [
          courseItem('first', 'First', { carried: { accent: { colour: 'teal' } } }),
          courseModule('day', 'Day 1'),
          courseItem('last', 'Last'),
        ]),
      ],
    }
    const read = readCourse(JSON.parse(JSON.stringify(course)))
    expect(read).toEqual({ ok: true, value: course })
  })
})
