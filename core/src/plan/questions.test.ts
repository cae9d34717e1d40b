import { describe, expect, it } from 'vitest'
import type { CourseItem, QuestionsWritten } from '../course/index.ts'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, isModule, type Question, type Template } from '../template/index.ts'
import { exampleQuestions } from '../testing/exampleQuestions.testing.ts'
import { Standing } from './standing.testing.ts'

const asking = (list: Question[]): Template => {
  const template = exampleTemplate()
  for (const item of everyItem(template)) if (item.kind === 'assessment') item.questions = { list }
  return template
}
const reworded = (key: string, text: string): Question[] =>
  exampleQuestions().map((question) =>
    question.key === key
      ? ({ ...question, body: { ...question.body, text: `<p>${text}</p>` } } as Question)
      : question,
  )
const quiz = (at: Standing): CourseItem => at.item('NAV 110 · Quiz 1')
const texts = (at: Standing): string[] =>
  (quiz(at).questions ?? []).map(({ body }) => body.text.replace(/<[^>]*>/g, ''))
const deployed = (list = exampleQuestions()): Standing => {
  const at = new Standing('keeps marks')
  at.deploy(asking(list))
  return at
}
/** Writes the questions of the first quiz: those that stand as ids, others as new ones. */
const write = (
  at: Standing,
  make: (stand: { id: string }[]) => QuestionsWritten['order'],
  remove: string[] = [],
): void =>
  at.edit([
    {
      change: 'set-item',
      id: quiz(at).id,
      fields: {
        questions: { order: make((quiz(at).questions ?? []).map(({ id }) => ({ id }))), remove },
      },
    },
  ])
const essay = (text: string) => ({
  clientId: `own-${text}`,
  body: { kind: 'essay' as const, text: `<p>${text}</p>`, points: 2 },
})
const stepsOf = (at: Standing, template: Template) =>
  at
    .plan(template)
    .steps.filter(({ part }) => part === 'quiz')
    .flatMap(({ fields }) => fields.map(({ field, does, reason }) => [field, does, reason]))

describe('questions of an assessment', () => {
  it('are deployed in order, with fields filled and links that lead', () => {
    const at = deployed()
    expect(texts(at)).toEqual([
      'When does a neap tide come &ndash; and why?',
      'In NAV 110, what is datum?',
      'This is an example.',
    ])
    expect(quiz(at).questions?.[0]?.body).toMatchObject({
      text: expect.stringContaining(at.item('Welcome').url ?? 'nowhere') as string,
      choices: [
        { text: 'At new &amp; full moon', right: false },
        { text: 'At the quarters', right: true, feedback: 'Yes.' },
      ],
    })
    expect(quiz(at).questions?.[1]?.body).toMatchObject({ answers: ['a & b'] })
    expect(at.plan(asking(exampleQuestions())).changes).toEqual([])
  })

  it('of the instructor’s own stay where they stand, whatever the template does', () => {
    const at = deployed()
    write(at, ([first, ...others]) => [...(first ? [first] : []), essay('Mine.'), ...others])
    const two = [...reworded('fixed-one', 'Asked anew?'), ...exampleQuestions().slice(0, 1)].map(
      (question, i) => (i === 3 ? { ...question, key: 'new-one' } : question),
    )
    at.deploy(asking(two))
    expect(texts(at)).toEqual([
      'Asked anew?',
      'Mine.',
      'In NAV 110, what is datum?',
      'This is an example.',
      'When does a neap tide come &ndash; and why?',
    ])
  })

  it('in place of a proposal or a sample are the instructor’s, and nobody is asked', () => {
    const at = deployed()
    write(at, (stand) =>
      stand.map((one, i) => (i === 0 ? one : { ...one, body: essay(`Mine ${i}.`).body })),
    )
    const two = asking(
      exampleQuestions().map((question) =>
        question.key === 'fixed-one'
          ? question
          : ({ ...question, body: { ...question.body, points: 9 } } as Question),
      ),
    )
    expect(stepsOf(at, two).filter(([, does]) => does === 'conflict')).toEqual([])
    at.deploy(two)
    expect(texts(at).slice(1)).toEqual(['Mine 1.', 'Mine 2.'])
    expect(
      at.plan(two).steps.filter(({ part, fields }) => part === 'quiz' && fields.length > 0),
    ).toEqual([])
  })

  it('that are fixed and were altered are a conflict once the template changes them too', () => {
    const at = deployed()
    write(at, (stand) =>
      stand.map((one, i) => (i === 0 ? { ...one, body: essay('Otherwise.').body } : one)),
    )
    const two = asking(reworded('fixed-one', 'Asked anew?'))
    expect(stepsOf(at, two)[0]).toEqual([
      'question:fixed-one',
      'conflict',
      'changed in the template and in the course',
    ])
    expect(texts(at)[0]).toBe('Otherwise.')
    at.deploy(two, undefined, { decisions: { rule: 'take', single: {} } })
    expect(texts(at)[0]).toBe('Asked anew?')
    // Of the other quizzes it is brought without asking: nobody touched it there.
    expect(at.item('NAV 110 · Quiz 2').questions?.[0]?.body.text).toBe('<p>Asked anew?</p>')
  })

  it('that were taken out stay out, unless what is fixed is put back as asked', () => {
    const at = deployed()
    const [first] = quiz(at).questions ?? []
    write(at, ([, ...others]) => others, [first?.id ?? ''])
    expect(at.plan(asking(exampleQuestions())).changes).toEqual([])
    at.deploy(asking(exampleQuestions()), undefined, { restore: { fixedText: true } })
    expect(texts(at)[0]).toContain('neap tide')
  })

  it('are left alone, all of them, once students have work in it', () => {
    const at = deployed()
    at.handIn(quiz(at))
    const before = texts(at)
    const two = asking([...reworded('fixed-one', 'Asked anew?')].reverse().slice(1))
    expect(stepsOf(at, two)[0]).toEqual([
      'questions',
      'leave',
      'students have work in it; its questions are left alone',
    ])
    at.deploy(two)
    expect(texts(at)).toEqual(before)
    expect(at.plan(two).changes).toEqual([])
  })

  it('that the platform does not tell are never read as none', () => {
    const at = deployed()
    const told = structuredClone(at.course)
    for (const module of at.course.modules)
      for (const child of module.children) if (!('children' in child)) delete child.questions
    expect(at.plan(asking(reworded('fixed-one', 'Asked anew?'))).changes).toEqual([])
    const without = exampleTemplate()
    for (const part of without.parts)
      if (isModule(part)) part.items = part.items.filter(({ key }) => key !== 'quiz')
    const kept = at.plan(without)
    expect(kept.changes.filter(({ change }) => change === 'remove-item')).toEqual([])
    at.course = told
    expect(at.plan(without).changes.filter(({ change }) => change === 'remove-item')).toHaveLength(
      7,
    )
  })

  it('keep an assessment in the course that the template no longer has', () => {
    const at = deployed()
    write(at, (stand) => [...stand, essay('Mine.')])
    const without = exampleTemplate()
    for (const part of without.parts)
      if (isModule(part)) part.items = part.items.filter(({ key }) => key !== 'quiz')
    at.deploy(without)
    expect(texts(at).at(-1)).toBe('Mine.')
    expect(() => at.item('NAV 110 · Quiz 2')).toThrow()
  })

  it('whose ids a platform made anew are known by what they ask', () => {
    const at = deployed()
    at.course = structuredClone(at.course)
    for (const [i, question] of (quiz(at).questions ?? []).entries()) question.id = `again-${i}`
    const two = asking(reworded('fixed-one', 'Asked anew?'))
    at.deploy(two)
    expect(texts(at)).toEqual(['Asked anew?', 'In NAV 110, what is datum?', 'This is an example.'])
  })

  it('stay as they are where only single blocks of a page are brought, and are known of as before', () => {
    const at = deployed()
    const two = asking(reworded('fixed-one', 'Asked anew?'))
    const welcome = everyItem(two).find(({ key }) => key === 'welcome')
    const promise = welcome?.blocks.find(({ key }) => key === 'promise')
    if (promise?.kind === 'fixed-text') promise.html = '<p>We answer within a day.</p>'
    at.deploy(two, undefined, { only: { parts: [], blocks: ['welcome/promise'] } })
    expect(at.item('Welcome').html).toContain('within a day')
    expect(texts(at)[0]).toContain('neap tide')
    at.deploy(two)
    expect(texts(at)).toHaveLength(3)
    expect(texts(at)[0]).toBe('Asked anew?')
  })
})
