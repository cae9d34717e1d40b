import type { CourseQuestion, QuestionsWritten } from '../course/index.ts'
import type { ExpectedQuestion } from '../expand/index.ts'
import { questionHtml, sameQuestion, saysTheSame } from '../questions/index.ts'
import type { QuestionBase } from './base.ts'
import type { Decision, FieldStep } from './mergeCase.ts'
import type { NextQuestion } from './nextBase.ts'
import { inWantedOrder, questionsStep, withNew } from './questionOrder.ts'

export interface QuestionsMergeInput {
  wanted: readonly ExpectedQuestion[]
  base: readonly QuestionBase[]
  /** undefined: the platform does not tell them, and nothing is written then. */
  present: readonly CourseQuestion[] | undefined
  /** Whether students have work in it: then its questions are left alone. */
  hasWork: boolean
  restoreFixed: boolean
  /** What a new one is called in the change set. */
  clientIdOf: (key: string) => string
  /** A question with its links as they are written. */
  written: (body: ExpectedQuestion['body']) => ExpectedQuestion['body']
  decide: (field: string) => Decision | null
}

export interface QuestionsMerge {
  /** null: they stay as they are. */
  write: QuestionsWritten | null
  steps: FieldStep[]
  questions: NextQuestion[]
}

const stays = (base: readonly QuestionBase[]): NextQuestion[] =>
  base.map((known) => ({ ...known, clientId: null, fresh: false }))

const asHtml = (body: CourseQuestion['body'] | null | undefined): string | null =>
  body ? questionHtml(body) : null

/** Which question of a course each known one is: by the platform's id, or as it was given back where ids were made anew. */
export const standingOf = (
  base: readonly QuestionBase[],
  present: readonly CourseQuestion[],
): Map<string, CourseQuestion> => {
  const byId = new Map(present.map((question) => [question.id, question]))
  const found = new Map<string, CourseQuestion>()
  const taken = new Set<string>()
  const take = (key: string, question: CourseQuestion | undefined) => {
    if (!question || taken.has(question.id)) return
    found.set(key, question)
    taken.add(question.id)
  }
  for (const { key, id } of base) take(key, byId.get(id))
  for (const { key, echo } of base)
    if (!found.has(key))
      take(
        key,
        present.find(({ id, body }) => !taken.has(id) && sameQuestion(body, echo)),
      )
  return found
}

/**
 * Merges the questions of an assessment that stands: three ways, question by question. What an instructor wrote in place of a
 * proposal or a sample is theirs and nobody is asked; their own questions stay where they stand.
 */
export const mergeQuestions = (input: QuestionsMergeInput): QuestionsMerge => {
  const { wanted, base, present, hasWork, restoreFixed, clientIdOf, written, decide } = input
  if (present === undefined) return { write: null, steps: [], questions: stays(base) }
  const known = new Map(base.map((one) => [one.key, one]))
  const standing = standingOf(base, present)
  const taken = new Set([...standing.values()].map(({ id }) => id))
  const steps: FieldStep[] = []
  const questions: NextQuestion[] = []
  /** Wordings to write, by the id of what stands. */
  const rewritten = new Map<string, ExpectedQuestion['body']>()
  const added = new Map<string, ExpectedQuestion['body']>()
  const remove: string[] = []
  /** Ids of what stands for wanted questions, and the keys of new ones, in the order wanted. */
  const sequence: ({ id: string } | { key: string })[] = []

  const visit = ({ key, left, body }: ExpectedQuestion): void => {
    const was = known.get(key)
    const is =
      standing.get(key) ??
      (was ? undefined : present.find((one) => !taken.has(one.id) && saysTheSame(one.body, body)))
    if (is) taken.add(is.id)
    const say = (
      does: FieldStep['does'],
      result: CourseQuestion['body'] | null,
      reason: string,
      decided: Decision | null = null,
    ): void =>
      void steps.push({
        field: `question:${key}`,
        does,
        base: asHtml(was?.sent),
        present: asHtml(is?.body),
        wanted: asHtml(body),
        result: asHtml(result),
        decided,
        reason,
      })
    const hold = (entry: QuestionBase): void =>
      void questions.push({ ...entry, clientId: null, fresh: false })
    const add = (does: 'change' | 'restore', reason: string): void => {
      const clientId = clientIdOf(key)
      added.set(key, written(body))
      questions.push({ key, id: '', clientId, sent: body, echo: body, fresh: true })
      sequence.push({ key })
      say(does, body, reason)
    }
    const rewrite = (id: string, does: FieldStep['does'], reason: string): void => {
      rewritten.set(id, written(body))
      questions.push({ key, id, clientId: null, sent: body, echo: body, fresh: true })
      say(does, body, reason, does === 'conflict' ? 'take' : null)
    }
    if (!is) {
      if (!was) add('change', 'new in the template')
      else if (restoreFixed && left === null) add('restore', 'was taken out; put back, as asked')
      else {
        hold({ ...was, sent: body })
        if (!sameQuestion(was.sent, body))
          say('keep', null, 'was taken out in the course; it stays out')
      }
      return
    }
    sequence.push({ id: is.id })
    if (!was) {
      hold({ key, id: is.id, sent: body, echo: is.body })
      say('agree', is.body, 'is there already')
      return
    }
    const untouched = sameQuestion(is.body, was.echo)
    const templateSame = sameQuestion(body, was.sent)
    if (sameQuestion(is.body, body)) {
      hold({ key, id: is.id, sent: body, echo: is.body })
      if (!templateSame) say('agree', is.body, 'the course says what the template says now')
    } else if (untouched) {
      if (templateSame) hold({ ...was, id: is.id })
      else rewrite(is.id, 'change', 'changed in the template; it is as it was deployed')
    } else if (left !== null) {
      hold({ ...was, id: is.id, sent: body })
      if (!templateSame) say('keep', is.body, 'left to the instructor, who worded it otherwise')
    } else if (restoreFixed) rewrite(is.id, 'restore', 'was altered; put back, as asked')
    else if (templateSame) hold({ ...was, id: is.id })
    else {
      const decided = decide(`question:${key}`)
      if (decided === 'take')
        rewrite(is.id, 'conflict', 'changed in the template and in the course')
      else {
        hold({ ...was, id: is.id, ...(decided === 'keep' ? { sent: body } : {}) })
        say(
          'conflict',
          is.body,
          'changed in the template and in the course',
          decided === 'keep' ? 'keep' : null,
        )
      }
    }
  }
  for (const question of wanted) visit(question)

  const wantedKeys = new Set(wanted.map(({ key }) => key))
  for (const { key, sent, echo } of base) {
    const is = standing.get(key)
    if (wantedKeys.has(key) || !is) continue
    const untouched = sameQuestion(is.body, echo)
    if (untouched) remove.push(is.id)
    steps.push({
      field: `question:${key}`,
      does: untouched ? 'change' : 'keep',
      base: asHtml(sent),
      present: asHtml(is.body),
      wanted: null,
      result: untouched ? null : asHtml(is.body),
      decided: null,
      reason: untouched
        ? 'no longer in the template; it is as it was deployed'
        : 'no longer in the template, but it was edited here; it stays',
    })
  }

  const before = present.map(({ id }) => id)
  const left = before.filter((id) => !remove.includes(id))
  const ids = sequence.flatMap((one) => ('id' in one ? [one.id] : []))
  const deployedOrder = base.flatMap(({ key }) => standing.get(key)?.id ?? [])
  const ordered = inWantedOrder(left, ids, deployedOrder)
  const isReordered = ordered.some((id, i) => id !== left[i])
  if (isReordered) steps.push(questionsStep('change', 'the template asks them in another order'))
  if (rewritten.size + added.size + remove.length === 0 && !isReordered)
    return { write: null, steps, questions }
  if (hasWork)
    return {
      write: null,
      steps: [
        {
          ...questionsStep('leave', 'students have work in it; its questions are left alone'),
          because: 'student-work',
        },
      ],
      questions: stays(base),
    }
  const order = withNew(ordered, sequence).map((one) => {
    if ('key' in one)
      return { clientId: clientIdOf(one.key), body: added.get(one.key) as ExpectedQuestion['body'] }
    const body = rewritten.get(one.id)
    return body ? { id: one.id, body } : { id: one.id }
  })
  return { write: { order, remove }, steps, questions }
}
