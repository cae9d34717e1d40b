import type { CourseQuestion, QuestionsWritten } from '../../course/index.ts'
import { questionHtml, sameQuestion } from '../../questions/index.ts'
import { sameValue, type FieldStep } from '../mergeCase.ts'
import { inWantedOrder, questionsStep, withNew } from '../questionOrder.ts'
import { wasMadeAgain } from './undoing.ts'

export interface QuestionsBack {
  /** null: they stay as they are. */
  write: QuestionsWritten | null
  steps: FieldStep[]
  /** What each question that comes back is called in the change set, by the id it had. */
  back: ReadonlyMap<string, string>
}

const nothing: QuestionsBack = { write: null, steps: [], back: new Map() }
const bodyOf = (question: CourseQuestion | undefined): string | null =>
  question ? questionHtml(question.body) : null
const byId = (questions: readonly CourseQuestion[]): Map<string, CourseQuestion> =>
  new Map(questions.map((question) => [question.id, question]))

/**
 * What takes the questions of an assessment back to what they were, question by question: what was edited since stays, and so does
 * every question that somebody put in.
 * @param was, after, is how they stood before the deployment, after it, and now; null where the platform did not tell them
 * @param instance what new names in the change set begin with
 * @param madeAgain ids of those that a later deployment made again under others
 */
export const questionsBack = (
  was: readonly CourseQuestion[] | null,
  after: readonly CourseQuestion[] | null,
  is: readonly CourseQuestion[] | null,
  instance: string,
  hasWork: boolean,
  madeAgain: ReadonlySet<string> = new Set(),
): QuestionsBack => {
  if (after === null || (is === null && sameValue(was, after))) return nothing
  if (is === null)
    return { ...nothing, steps: [questionsStep('keep', 'its questions cannot be seen; they stay')] }
  const [before, then, now] = [byId(was ?? []), byId(after), byId(is)]
  const steps: FieldStep[] = []
  const remove: string[] = []
  const rewritten = new Map<string, CourseQuestion>()
  const back = new Map<string, string>()
  const tell = (id: string, does: 'change' | 'keep', result: string | null, reason: string) =>
    void steps.push({
      field: `question:${id}`,
      does,
      base: bodyOf(then.get(id)),
      present: bodyOf(now.get(id)),
      wanted: bodyOf(before.get(id)),
      result,
      decided: null,
      reason,
    })
  for (const [id, made] of then) {
    const first = before.get(id)
    const present = now.get(id)
    if ((first && sameQuestion(first.body, made.body)) || !present) continue
    if (!sameQuestion(present.body, made.body)) {
      tell(id, 'keep', bodyOf(present), 'was edited since; stays')
      continue
    }
    if (first) rewritten.set(id, first)
    else remove.push(id)
    tell(id, 'change', bodyOf(first), 'as it was before the rollout')
  }
  for (const id of before.keys()) {
    const first = before.get(id)
    if (!first || then.has(id) || now.has(id) || first.body.kind === 'other') continue
    if (madeAgain.has(id)) {
      tell(id, 'keep', null, wasMadeAgain)
      continue
    }
    back.set(id, `${instance}?back-${id}`)
    tell(id, 'change', bodyOf(first), 'was removed by the rollout; comes back')
  }
  const left = is.map(({ id }) => id).filter((id) => !remove.includes(id))
  const wanted = [...before.keys()].filter((id) => left.includes(id))
  const ordered = inWantedOrder(left, wanted, [...then.keys()])
  const isReordered = ordered.some((id, i) => id !== left[i])
  if (isReordered) steps.push(questionsStep('change', 'in the order before the rollout'))
  if (rewritten.size + remove.length + back.size === 0 && !isReordered) return { ...nothing, steps }
  if (hasWork)
    return {
      ...nothing,
      steps: steps.map((step) => ({
        ...step,
        does: 'leave' as const,
        result: step.present,
        reason: 'students have work in it; it is left alone',
        because: 'student-work' as const,
      })),
    }
  const sequence = [...before.keys()].flatMap((id): ({ id: string } | { key: string })[] =>
    back.has(id) ? [{ key: id }] : left.includes(id) ? [{ id }] : [],
  )
  const order = withNew(ordered, sequence).flatMap((one): QuestionsWritten['order'] => {
    if ('key' in one) {
      const body = before.get(one.key)?.body
      return body && body.kind !== 'other' ? [{ clientId: back.get(one.key) ?? one.key, body }] : []
    }
    const body = rewritten.get(one.id)?.body
    return [body && body.kind !== 'other' ? { id: one.id, body } : { id: one.id }]
  })
  return { write: { order, remove }, steps, back }
}
