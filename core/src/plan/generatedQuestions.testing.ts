import { everyCourseItem, type CourseQuestion, type QuestionsWritten } from '../course/index.ts'
import { everyItem, type Item, type Question, type Template } from '../template/index.ts'
import { exampleQuestions } from '../testing/exampleQuestions.testing.ts'
import type { Standing } from './standing.testing.ts'

const pick = <T>(list: readonly T[], n: number): T | undefined => list[n % Math.max(1, list.length)]
const assessments = (template: Template): Item[] =>
  everyItem(template).filter(({ kind }) => kind === 'assessment')
const questionsOf = (template: Template): Question[] =>
  assessments(template).flatMap(({ questions }) => questions?.list ?? [])

/** What a template's people do to questions between two versions. */
export const questionChanges: Record<string, (template: Template, n: number) => void> = {
  'other words in a question': (template, n) => {
    const question = pick(questionsOf(template), n)
    if (question) question.body.text = `<p>Asked by the college in wording ${n}.</p>`
  },
  'another right answer': (template, n) => {
    for (const { body } of questionsOf(template))
      if (body.kind === 'one-answer') body.choices.push({ text: `Answer ${n}`, right: n % 2 === 0 })
      else if (body.kind === 'true-or-false') body.right = !body.right
  },
  'a new question': (template, n) => {
    const item = pick(assessments(template), n)
    const list = item?.questions?.list
    if (list && !list.some(({ key }) => key === `new-${n}`))
      list.splice(n % (list.length + 1), 0, {
        key: `new-${n}`,
        body: { kind: 'essay', text: `<p>Why ${n}?</p>`, points: n % 5 },
      })
  },
  'a question less': (template, n) => {
    const list = pick(assessments(template), n)?.questions?.list
    list?.splice(n % Math.max(1, list.length), 1)
  },
  'questions in another order': (template) => {
    for (const { questions } of assessments(template)) questions?.list.reverse()
  },
  'a question is left in another way': (template, n) => {
    const question = pick(questionsOf(template), n)
    if (question) question.left = ([undefined, 'proposed', 'sample'] as const)[(n >> 2) % 3]
  },
  'assessments come to have questions, or lose them all': (template) => {
    for (const item of assessments(template))
      item.questions = item.questions ? undefined : { list: exampleQuestions() }
  },
}

const write = (
  at: Standing,
  id: string,
  order: QuestionsWritten['order'],
  remove: string[] = [],
): void => at.edit([{ change: 'set-item', id, fields: { questions: { order, remove } } }])

/** An assessment of the course that has questions, and they. */
const asking = (at: Standing, n: number): { id: string; questions: CourseQuestion[] } | null => {
  const item = pick(
    everyCourseItem(at.course).filter(({ item }) => (item.questions ?? []).length > 0),
    n,
  )?.item
  return item ? { id: item.id, questions: item.questions ?? [] } : null
}

/** What instructors do to questions. Whatever they write holds a word that is found again. */
export const questionEdits: Record<string, (at: Standing, n: number, word: string) => void> = {
  'words a question otherwise': (at, n, word) => {
    const there = asking(at, n)
    const question = there && pick(there.questions, n >> 3)
    if (!there || !question || question.body.kind === 'other') return
    const body = { ...question.body, text: `<p>Asked by me: ${word}?</p>` }
    write(
      at,
      there.id,
      there.questions.map(({ id }) => (id === question.id ? { id, body } : { id })),
    )
  },
  'gives a question other points': (at, n) => {
    const there = asking(at, n)
    const question = there && pick(there.questions, n >> 3)
    if (!there || !question || question.body.kind === 'other') return
    const body = { ...question.body, points: 1 + (n % 9) }
    write(
      at,
      there.id,
      there.questions.map(({ id }) => (id === question.id ? { id, body } : { id })),
    )
  },
  'writes a question': (at, n, word) => {
    const item = pick(
      everyCourseItem(at.course).filter(({ item }) => item.kind === 'assessment'),
      n,
    )?.item
    if (!item) return
    const order: QuestionsWritten['order'] = (item.questions ?? []).map(({ id }) => ({ id }))
    order.splice(n % (order.length + 1), 0, {
      clientId: `own-${word}`,
      body: { kind: 'essay', text: `<p>Tell of ${word}.</p>`, points: 2 },
    })
    write(at, item.id, order)
  },
  'takes a question out': (at, n) => {
    const there = asking(at, n)
    const question = there && pick(there.questions, n >> 3)
    if (there && question)
      write(
        at,
        there.id,
        there.questions.flatMap(({ id }) => (id === question.id ? [] : [{ id }])),
        [question.id],
      )
  },
  'puts questions in another order': (at, n) => {
    const there = asking(at, n)
    if (there) write(at, there.id, there.questions.map(({ id }) => ({ id })).reverse())
  },
}
