import type { Problem } from '../document/index.ts'
import { questionName, type Question, type QuestionSet } from '../template/index.ts'
import { orderOf, same, weakened } from './kept.ts'
import { withOwn } from './withOwn.ts'

/** Where a layer takes away, alters or reorders questions of the layer above, or asks for fewer. What is left to others it may word itself. */
export const questionWeakenings = (
  upper: QuestionSet | undefined,
  own: QuestionSet | undefined,
  path: PropertyKey[],
): Problem[] => {
  const here = own?.list ?? []
  const above = upper?.list ?? []
  const problems = above.flatMap((question): Problem[] => {
    const index = here.findIndex(({ key }) => key === question.key)
    const present = here[index]
    const name = `the question ${questionName(question.body)} of the layer above`
    if (!present) return [weakened([...path, 'list'], 'nothing', name)]
    return question.left !== undefined || same(question, present)
      ? []
      : [weakened([...path, 'list', index], questionName(present.body), `${name}, as it is there`)]
  })
  const keys = new Set(above.map(({ key }) => key))
  if (problems.length === 0 && !same(orderOf(above, keys), orderOf(here, keys)))
    problems.push(
      weakened(
        [...path, 'list'],
        orderOf(here, keys),
        'the questions of the layer above in its order',
      ),
    )
  if (upper?.asked && (own?.asked?.atLeast ?? 0) < upper.asked.atLeast)
    problems.push(
      weakened(
        [...path, 'asked'],
        own?.asked?.atLeast ?? 'nothing',
        `at least ${upper.asked.atLeast}, as the layer above asks`,
      ),
    )
  return problems
}

/**
 * Questions of a newer version of the layer above with those of the layer: what it put in, what it worded itself where that was left to
 * others, and how many it asks for where it asks for more.
 */
export const mergedQuestions = (
  before: QuestionSet | undefined,
  own: QuestionSet | undefined,
  next: QuestionSet | undefined,
): QuestionSet | undefined => {
  if (!own || same(own, before)) return next
  const worded = (question: Question): Question => {
    const present = own.list.find(({ key }) => key === question.key)
    const base = before?.list.find(({ key }) => key === question.key)
    return present &&
      base &&
      base.left !== undefined &&
      question.left !== undefined &&
      !same(present, base)
      ? present
      : question
  }
  const above = (next?.list ?? []).map(worded)
  const additions = own.list.filter(
    ({ key }) =>
      !before?.list.some((other) => other.key === key) && !above.some((other) => other.key === key),
  )
  const asked =
    (own.asked?.atLeast ?? 0) > (next?.asked?.atLeast ?? 0) && !same(own.asked, before?.asked)
      ? own.asked
      : next?.asked
  const list = withOwn(above, own.list, new Set(additions.map(({ key }) => key)))
  return list.length === 0 && !asked ? next : { list, ...(asked ? { asked } : {}) }
}
