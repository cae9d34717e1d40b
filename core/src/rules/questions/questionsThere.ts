import type { CourseQuestion } from '../../course/index.ts'
import type { ExpectedPart, ExpectedQuestion } from '../../expand/index.ts'
import { analysePage, likeness } from '../../page/index.ts'
import { saysTheSame } from '../../questions/index.ts'
import { rememberOf } from '../../remember/index.ts'
import { isModule } from '../../template/index.ts'
import type { CheckContext, PairedItem } from '../context.ts'

/** A question of the template, and how it stands in the course. */
export interface QuestionFate {
  question: ExpectedQuestion
  /** `altered`: one that asks much the same stands in its place. */
  state: 'stands' | 'altered' | 'missing'
  found: CourseQuestion | null
}

/** An assessment for which the template says something of questions. */
export interface AssessmentThere {
  part: ExpectedPart
  /** null: it is not in the course, or something else does its job. */
  there: PairedItem | null
  /** null where the platform does not tell its questions. */
  fates: QuestionFate[] | null
  /** Questions that the template did not bring, or that were worded otherwise where it left that to the instructor. */
  own: CourseQuestion[]
}

const alike = 0.6
const wordsOf = (html: string): string =>
  analysePage(html)
    .paragraphs.map(({ text }) => text)
    .join(' ')

const fatesOf = (
  expected: readonly ExpectedQuestion[],
  present: readonly CourseQuestion[],
): { fates: QuestionFate[]; own: CourseQuestion[] } => {
  const free = new Set(present)
  const found = new Map<ExpectedQuestion, QuestionFate>()
  for (const question of expected) {
    const same = [...free].find(({ body }) => saysTheSame(body, question.body))
    if (!same) continue
    free.delete(same)
    found.set(question, { question, state: 'stands', found: same })
  }
  for (const question of expected) {
    if (found.has(question) || question.left !== null) continue
    const wanted = wordsOf(question.body.text)
    const [best] = [...free]
      .map((one) => ({ one, like: likeness(wanted, wordsOf(one.body.text)) }))
      .filter(({ like }) => like >= alike)
      .sort((a, b) => b.like - a.like)
    if (!best) continue
    free.delete(best.one)
    found.set(question, { question, state: 'altered', found: best.one })
  }
  return {
    fates: expected.map(
      (question) => found.get(question) ?? { question, state: 'missing', found: null },
    ),
    own: present.filter((question) => free.has(question)),
  }
}

/** Every assessment for which the template has questions or asks for some, and how they stand. */
export const assessmentsThere = rememberOf((context: CheckContext): AssessmentThere[] =>
  context.parts.flatMap((part): AssessmentThere[] => {
    const { definition } = part
    if (isModule(definition) || !definition.questions) return []
    if (part.questions.length === 0 && !definition.questions.asked) return []
    const there = context.itemFor(part)
    if (!there || there.item.kind !== 'assessment')
      return [{ part, there: null, fates: null, own: [] }]
    const { questions } = there.item
    if (!questions) return [{ part, there, fates: null, own: [] }]
    return [{ part, there, ...fatesOf(part.questions, questions) }]
  }),
)

/** Why nothing can be said of the questions of an assessment. */
export const untold = 'the platform does not tell its questions'
