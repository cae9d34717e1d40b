import { describe, expect, it } from 'vitest'
import { courseItem, courseModule } from '../rules/example/courseParts.ts'
import { emptyCourse } from '../rules/example/exampleCourse.ts'
import { applyChanges } from './applyChanges.ts'
import type { Change } from './change/change.ts'
import { changesInWords } from './changesInWords.ts'
import { everyCourseItem, type Course, type CourseItem } from './course.ts'
import { mostQuestions, type CourseQuestion, type QuestionsWritten } from './courseQuestion.ts'

const asks = (id: string, text = `<p>${id}?</p>`): CourseQuestion => ({
  id,
  body: { kind: 'essay', text, points: 1 },
})
const body = (text: string) => ({ kind: 'essay' as const, text, points: 1 })
const course = (more: Partial<CourseItem> = {}): Course => ({
  ...emptyCourse('c', 'Course'),
  modules: [
    courseModule('m1', 'Week 1', [
      courseItem('quiz', 'Quiz', {
        kind: 'assessment',
        questions: [asks('a'), asks('b'), { ...asks('c'), carried: { shape: 'hot spot' } }],
        ...more,
      }),
      courseItem('page', 'Page', { html: '<p>Page</p>' }),
    ]),
  ],
})
const write = (questions: Partial<QuestionsWritten>): Change => ({
  change: 'set-item',
  id: 'quiz',
  fields: { questions: { order: [], remove: [], ...questions } },
})
const run = (changes: Change[], of = course()) => {
  let next = 0
  return applyChanges(of, changes, {
    newId: (kind) => `${kind}-${++next}`,
    urlOf: (id) => `/c/${id}`,
    rewriteHtml: (html) => html.replace('<p>', '<p dir="ltr">'),
  })
}
const questionsAfter = (changes: Change[], of?: Course) => {
  const done = run(changes, of)
  if (!done.ok) throw new Error(done.problems.message)
  const quiz = everyCourseItem(done.value.course).find(({ item }) => item.id === 'quiz')?.item
  return { questions: quiz?.questions ?? [], ids: done.value.ids, course: done.value.course }
}

describe('questions written to a course', () => {
  it('are kept by reference, reworded, added and removed; what is not named is not taken away', () => {
    const { questions, ids } = questionsAfter([
      write({
        order: [
          { clientId: 'new', body: body('<p>New?</p>') },
          { id: 'a', body: body('<p>A!</p>') },
        ],
        remove: ['b'],
      }),
    ])
    expect(questions.map(({ id, body }) => [id, body.text])).toEqual([
      ['question-1', '<p dir="ltr">New?</p>'],
      ['a', '<p dir="ltr">A!</p>'],
      ['c', '<p>c?</p>'],
    ])
    expect(questions[2]).toEqual({ ...asks('c'), carried: { shape: 'hot spot' } })
    expect(ids).toEqual({ new: 'question-1' })
  })

  it('lead to what stands in the course, also to what the same set makes', () => {
    const { questions } = questionsAfter([
      write({
        order: [
          { id: 'a', body: body('<p><a href="ref:later">x</a> <a href="item:page">y</a></p>') },
        ],
      }),
      {
        change: 'create-item',
        clientId: 'later',
        module: 'm1',
        at: null,
        kind: 'page',
        fields: { name: 'Later' },
      },
    ])
    expect(questions[0]?.body.text).toContain('href="/c/item-1"')
    expect(questions[0]?.body.text).toContain('href="/c/page"')
  })

  it.each<[string, Partial<QuestionsWritten>, Course, string]>([
    ['are gone', { order: [{ id: 'z' }] }, course(), 'gone'],
    ['are gone and to be removed', { order: [], remove: ['z'] }, course(), 'gone'],
    ['students answered', { order: [{ id: 'a' }] }, course({ studentWork: true }), 'student-work'],
    [
      'lead nowhere',
      { order: [{ id: 'a', body: body('<a href="ref:nowhere">x</a>') }] },
      course(),
      'unknown-reference',
    ],
    [
      'are too many',
      {
        order: Array.from({ length: mostQuestions }, (_, i) => ({
          clientId: `n${i}`,
          body: body('<p>?</p>'),
        })),
      },
      course(),
      'too-many',
    ],
  ])('are refused where they %s, and the course stays as it was', (_, questions, of, code) => {
    const before = structuredClone(of)
    expect(run([write(questions)], of)).toMatchObject({ ok: false, problems: { code } })
    expect(of).toEqual(before)
  })

  it('come along with a copy of their item, under ids of their own', () => {
    const { course: after } = questionsAfter([
      { change: 'duplicate-item', id: 'quiz', clientId: 'copy' },
    ])
    const all = everyCourseItem(after).flatMap(({ item }) => item.questions ?? [])
    expect(all).toHaveLength(6)
    expect(new Set(all.map(({ id }) => id)).size).toBe(6)
  })

  it('are told by what they ask', () => {
    const words = (questions: Partial<QuestionsWritten>) =>
      changesInWords([write(questions)], course(), 'UTC').map(({ says }) => says)
    expect(
      words({
        order: [
          { id: 'a', body: body('<p>A!</p>') },
          { clientId: 'n', body: body('<p>New?</p>') },
        ],
        remove: ['b'],
      }),
    ).toEqual([
      '“Quiz”: the question “a?” becomes “A!”',
      '“Quiz”: the question “New?” is asked',
      '“Quiz”: the question “b?” is taken out',
    ])
    expect(words({ order: [{ id: 'b' }, { id: 'a' }], remove: [] })).toEqual([
      '“Quiz”: its questions are put in order',
    ])
  })
})
