import { describe, expect, it } from 'vitest'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { aboutCourse, aboutPart, type ExampleCourse, type Subject } from '../rules/index.ts'
import { exampleContext } from './exampleContext.testing.ts'
import { placesIn } from './places.ts'

const looking = (change: (example: ExampleCourse) => void = () => undefined) => {
  const example = exampleCourse()
  change(example)
  const context = exampleContext(example)
  const about = (key: string, week: number | null): Subject => {
    const part = context.parts.find(
      (part) => part.key === key && (part.values.week ?? null) === week,
    )
    if (!part) throw new Error(`the example has ${key} in week ${week}`)
    return aboutPart(part)
  }
  return { example, about, placeOf: placesIn(context) }
}
const without = (key: string, week: number) => (example: ExampleCourse) => {
  const gone = example.item(key, week)
  const module = example.module('week', week)
  module.children = module.children.filter((child) => child !== gone)
}
const withoutWeek = ({ course, module }: ExampleCourse) =>
  void course.modules.splice(course.modules.indexOf(module('week', 3)), 1)

describe('the place of a requirement', () => {
  it('of a part is where it was found, by the names it has there', () => {
    const { example, about, placeOf } = looking(({ module, item }) => {
      module('week', 3).name = 'Third week'
      item('quiz', 3).name = 'A quiz'
    })
    expect(placeOf(about('quiz', 3), undefined)).toEqual({
      path: ['Third week', 'A quiz'],
      part: 'quiz',
      instance: expect.stringContaining('quiz') as unknown,
      week: 3,
      foundId: example.item('quiz', 3).id,
    })
    expect(placeOf(about('week', 3), undefined)).toMatchObject({
      path: ['Third week'],
      part: 'week',
      week: 3,
      foundId: example.module('week', 3).id,
    })
  })
  it('of a part that was moved is where it stands now', () => {
    const { example, about, placeOf } = looking((shown) => {
      without('quiz', 3)(shown)
      shown.module('week', 5).children.push(shown.item('quiz', 3))
    })
    expect(placeOf(about('quiz', 3), undefined)).toMatchObject({
      path: [example.module('week', 5).name, example.item('quiz', 3).name],
      week: 3,
    })
  })
  it('of a part that is missing is where it should be, by the name that its module has', () => {
    const { example, about, placeOf } = looking((shown) => {
      without('quiz', 3)(shown)
      shown.module('week', 3).name = 'Third week'
    })
    const name = exampleCourse().item('quiz', 3).name
    expect(placeOf(about('quiz', 3), undefined)).toMatchObject({
      path: ['Third week', name],
      part: 'quiz',
      week: 3,
      foundId: null,
    })
    // A rule may say in which module it should be.
    expect(placeOf(about('quiz', 3), example.module('week', 3).id)).toMatchObject({
      path: ['Third week', name],
      foundId: example.module('week', 3).id,
    })
  })
  it('of what is missing with its module is by the names both should have', () => {
    const whole = exampleCourse()
    const { about, placeOf } = looking(withoutWeek)
    const week = whole.module('week', 3).name
    expect(placeOf(about('week', 3), undefined)).toMatchObject({ path: [week], foundId: null })
    expect(placeOf(about('quiz', 3), undefined)).toMatchObject({
      path: [week, whole.item('quiz', 3).name],
      foundId: null,
    })
  })
  it('of what the course has beside the template is its own', () => {
    const { example, placeOf } = looking(({ module, item }) => {
      module('week', 2).children.push({
        ...item('quiz', 2),
        id: 'mine',
        name: 'Mine',
        recordedAs: undefined,
      })
    })
    expect(placeOf({ about: 'found', id: 'mine', name: 'Mine' }, undefined)).toEqual({
      path: [example.module('week', 2).name, 'Mine'],
      part: null,
      instance: null,
      week: null,
      foundId: 'mine',
    })
    // And of a module no more than that.
    const { id, name } = example.module('week', 2)
    expect(placeOf({ about: 'found', id, name }, undefined)).toMatchObject({
      path: [name],
      foundId: id,
    })
  })
  it('of the course as a whole is the course, or what the rule points to', () => {
    const { example, placeOf } = looking()
    const place = { part: null, instance: null, week: null }
    expect(placeOf(aboutCourse, undefined)).toEqual({
      ...place,
      path: [example.course.name],
      foundId: null,
    })
    const { id, name } = example.item('welcome')
    expect(placeOf(aboutCourse, id)).toMatchObject({ foundId: id })
    expect(placeOf(aboutCourse, id).path.at(-1)).toBe(name)
  })
  it('of a part that a rule sees on another page is that page', () => {
    const { example, about, placeOf } = looking()
    const { id, name } = example.item('welcome')
    const [own, seen] = [placeOf(about('quiz', 3), undefined), placeOf(about('quiz', 3), id)]
    expect(own.foundId).toBe(example.item('quiz', 3).id)
    expect([seen.foundId, seen.path.at(-1), seen.part, seen.week]).toEqual([id, name, 'quiz', 3])
    expect(placeOf(about('quiz', 4), id)).not.toEqual(seen)
    expect(placeOf(about('quiz', 3), example.item('quiz', 3).id)).toEqual(own)
  })
  it('is worked out once for all that stands there', () => {
    const { about, placeOf } = looking()
    const quiz = about('quiz', 3)
    expect(placeOf(quiz, undefined)).toBe(placeOf(quiz, undefined))
    expect(placeOf(aboutCourse, undefined)).toBe(placeOf(aboutCourse, undefined))
  })
})
