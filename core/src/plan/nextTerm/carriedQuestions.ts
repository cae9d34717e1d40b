import { letIn } from '../../allow/index.ts'
import type { CourseQuestion, QuestionsWritten } from '../../course/index.ts'
import type { ExpectedPart } from '../../expand/index.ts'
import { sameQuestion } from '../../questions/index.ts'
import type { QuestionBody } from '../../template/index.ts'
import { wordsOfPage } from './wordsOfPage.ts'
import type { BaseEntry } from '../base.ts'
import { standingOf } from '../mergeQuestions.ts'
import type { NextQuestion } from '../nextBase.ts'
import { questionClientId } from '../wantedQuestions.ts'

export interface CarriedQuestions {
  written: QuestionsWritten
  /** Of the questions that the template asks: what the base says of them then. */
  known: NextQuestion[]
  /** What comes along, by its first words. */
  came: string[]
  /** What was worded otherwise where the template has its own words, and stays behind. */
  stays: string[]
}

const inNewCourse = (body: QuestionBody, relinked: (html: string) => string): QuestionBody => ({
  ...body,
  text: letIn(relinked(body.text)).html,
})

/** Questions of one’s own as they are put into another course; of a kind that has no fields here, they cannot be. */
export const ownQuestions = (
  questions: readonly CourseQuestion[],
  relinked: (html: string) => string,
): QuestionsWritten['order'] =>
  questions.flatMap(({ id, body }) =>
    body.kind === 'other' ? [] : [{ clientId: `own-${id}`, body: inNewCourse(body, relinked) }],
  )

/** What somebody asks of their own in an assessment, or worded otherwise than it was deployed. */
export const wordsOfTheirQuestions = (
  present: readonly CourseQuestion[],
  { questions: base = [] }: Pick<BaseEntry, 'questions'>,
): string[] => {
  const standing = standingOf(base, present)
  const untouched = new Set(
    base.flatMap(({ key, echo }) => {
      const is = standing.get(key)
      return is && sameQuestion(is.body, echo) ? [is.id] : []
    }),
  )
  return present.flatMap(({ id, body }) => (untouched.has(id) ? [] : [wordsOfPage(body.text)]))
}

/**
 * The questions of a new assessment with what its instructor wrote in that of an earlier course: in place of proposals and samples,
 * and beside them.
 * @param present, entry how the earlier one stands, and what was deployed of it
 * @param written the template’s questions, as they are put into the new one
 */
export const carriedQuestions = (
  present: readonly CourseQuestion[],
  entry: Pick<BaseEntry, 'questions'>,
  part: ExpectedPart,
  written: QuestionsWritten,
  relinked: (html: string) => string,
): CarriedQuestions => {
  const base = entry.questions ?? []
  const standing = standingOf(base, present)
  const known = new Map(base.map((one) => [one.key, one]))
  const result: CarriedQuestions = {
    written: { order: [], remove: [] },
    known: [],
    came: [],
    stays: [],
  }
  for (const { key, left, body } of part.questions) {
    const was = known.get(key)
    const is = standing.get(key)
    const of = { key, sent: body, echo: body, id: '' }
    if (was && !is && left !== null) {
      result.known.push({ ...of, clientId: null, fresh: false })
      continue
    }
    const clientId = questionClientId(part, key)
    const asWritten = written.order.find((one) => 'clientId' in one && one.clientId === clientId)
    const isTheirs = was !== undefined && is !== undefined && !sameQuestion(is.body, was.echo)
    const theirs = isTheirs && is.body.kind !== 'other' ? is.body : null
    if (theirs && left === null) result.stays.push(wordsOfPage(theirs.text))
    if (theirs && left !== null) {
      result.written.order.push({ clientId, body: inNewCourse(theirs, relinked) })
      result.came.push(wordsOfPage(theirs.text))
    } else if (asWritten) result.written.order.push(asWritten)
    result.known.push({ ...of, clientId, fresh: !(theirs && left !== null) })
  }
  const deployed = new Set([...standing.values()].map(({ id }) => id))
  const own = present.filter(({ id }) => !deployed.has(id))
  result.written.order.push(...ownQuestions(own, relinked))
  for (const { body } of own)
    (body.kind === 'other' ? result.stays : result.came).push(wordsOfPage(body.text))
  return result
}
