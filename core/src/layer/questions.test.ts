import { describe, expect, it } from 'vitest'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, type QuestionSet, type Template } from '../template/index.ts'
import { exampleQuestions } from '../testing/exampleQuestions.testing.ts'
import { newLayer, takeOver } from './takeOver.ts'
import { weakenings } from './weakenings.ts'

const asking = (questions: QuestionSet): Template => {
  const template = { ...exampleTemplate(), version: 1 }
  for (const item of everyItem(template)) if (item.kind === 'assessment') item.questions = questions
  return template
}
const above = (): Template =>
  asking({ list: exampleQuestions(), asked: { atLeast: 2, about: 'your week' } })
const layered = (change: (questions: QuestionSet) => void): Template => {
  const layer = newLayer(structuredClone(above()), 'layer', 'Layer')
  for (const { questions } of everyItem(layer)) if (questions) change(questions)
  return layer
}
const keysOf = (template: Template): string[] =>
  everyItem(template).flatMap(({ questions }) => questions?.list.map(({ key }) => key) ?? [])
const own = { key: 'ours', body: { kind: 'essay', text: '<p>Ours?</p>', points: 1 } } as const

describe('questions of a layer', () => {
  it.each<[string, (questions: QuestionSet) => void]>([
    ['take one of the layer above out', ({ list }) => void list.shift()],
    [
      'word one that is fixed otherwise',
      ({ list: [first] }) => {
        if (first) first.body.points = 1
      },
    ],
    ['put them in another order', ({ list }) => void list.reverse()],
    ['ask fewer of the instructor', (questions) => void delete questions.asked],
  ])('may not %s', (_, change) => {
    expect(weakenings(above(), layered(change))).toHaveLength(1)
  })

  it.each<[string, (questions: QuestionSet) => void]>([
    ['add some of its own', ({ list }) => void list.splice(1, 0, own)],
    [
      'word a proposal otherwise',
      ({ list: [, second] }) => {
        if (second) second.body.text = '<p>Datum?</p>'
      },
    ],
    [
      'ask more of the instructor',
      (questions) => void (questions.asked = { atLeast: 4, about: '' }),
    ],
  ])('may %s, and keep it when a newer version is taken over', (_, change) => {
    const layer = layered(change)
    expect(weakenings(above(), layer)).toEqual([])
    const newer = { ...above(), version: 2 }
    for (const { questions } of everyItem(newer))
      if (questions?.list[0]) questions.list[0].body.points = 9
    const { template } = takeOver(above(), newer, layer)
    const [mine] = everyItem(layer).flatMap(({ questions }) => questions ?? [])
    const [taken] = everyItem(template).flatMap(({ questions }) => questions ?? [])
    expect(taken?.asked).toEqual(mine?.asked)
    expect(taken?.list.map(({ body }) => body.text)).toEqual(
      mine?.list.map(({ body }) => body.text),
    )
    expect(taken?.list.find(({ key }) => key === 'fixed-one')?.body.points).toBe(9)
    expect(weakenings(newer, template)).toEqual([])
  })

  it('go with the layer above where it never had any of its own', () => {
    const newer = above()
    for (const { questions } of everyItem(newer)) questions?.list.pop()
    expect(
      keysOf(
        takeOver(
          above(),
          newer,
          layered(() => undefined),
        ).template,
      ),
    ).toEqual(['fixed-one', 'proposed-one'])
  })
})
