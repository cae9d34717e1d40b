import { z } from 'zod'
import { Line } from '../document/index.ts'
import { firstWords } from './block/firstWords.ts'
import type { QuestionFault, QuestionTexts, QuestionTraits } from './question/kind.ts'
import { definedQuestions } from './question/kinds.ts'
import { Html, Key } from './words.ts'

export type { Choice } from './question/choices.ts'
export type { QuestionFault } from './question/kind.ts'

const bodies = (texts: QuestionTexts) => {
  const [first, second, third, fourth, fifth, sixth] = definedQuestions
  return z.discriminatedUnion('kind', [
    first.schema(texts),
    second.schema(texts),
    third.schema(texts),
    fourth.schema(texts),
    fifth.schema(texts),
    sixth.schema(texts),
  ])
}

/** A question as a course holds it: all its texts are HTML. */
export const QuestionBody = bodies({
  text: z.string().max(500_000),
  line: z.string().max(100_000),
  most: 1000,
})
export type QuestionBody = z.output<typeof QuestionBody>
export type QuestionKind = QuestionBody['kind']

/** A question of a template. */
export const Question = z.strictObject({
  key: Key,
  left: z
    .enum(['proposed', 'sample'])
    .optional()
    .describe(
      'How it is left to the instructor. proposed: it may be changed or taken out; sample: an example that asks for one of theirs in its place; without it, it stands as written',
    ),
  body: bodies({ text: Html, line: Line(2000, 0), most: 30 }).describe(
    'What is asked is HTML, the other lines are plain text; naming fields are filled in both',
  ),
})
export type Question = z.output<typeof Question>

/** The questions of an assessment, and those that its instructor is asked to write. */
export const QuestionSet = z.strictObject({
  list: z.array(Question).max(300).default([]),
  asked: z
    .strictObject({
      atLeast: z.number().int().min(1).max(200),
      about: Line(200, 0).describe('What they are to be about, e.g. your syllabus'),
    })
    .optional()
    .describe('How many questions the instructor is asked to write'),
})
export type QuestionSet = z.output<typeof QuestionSet>

const kinds: ReadonlyMap<string, QuestionTraits<QuestionBody>> = new Map(
  definedQuestions.map((defined): [string, QuestionTraits<QuestionBody>] => [
    defined.kind,
    defined as unknown as QuestionTraits<QuestionBody>,
  ]),
)
const traitsOf = (kind: QuestionKind): QuestionTraits<QuestionBody> => {
  const found = kinds.get(kind)
  if (!found) throw new Error(`there is no kind of question named ${String(kind)}`)
  return found
}

/** What the kinds are called, in the order in which they are offered. */
export const offeredQuestions: readonly { kind: QuestionKind; title: string }[] =
  definedQuestions.map(({ kind, title }) => ({ kind, title }))

/** What people call a kind of question within a sentence, e.g. `short answer`; a word that is none is given back. */
export const questionKindWords = (kind: string): string =>
  (kinds.get(kind) ? traitsOf(kind as QuestionKind).title : kind).toLowerCase()

/** A question of a kind as it is first put in. */
export const emptyQuestion = (kind: QuestionKind): QuestionBody => traitsOf(kind).empty()

/** The answers of a question as lines, the right ones marked; none where somebody reads what was answered. */
export const answersOf = (body: QuestionBody): { text: string; right: boolean }[] =>
  traitsOf(body.kind).answers(body)

/** Why a question cannot be answered as it stands. */
export const faultsOf = (body: QuestionBody): QuestionFault[] => [
  ...(firstWords(body.text) === '' && !/<(?:img|math)\b/i.test(body.text)
    ? (['no-text'] as const)
    : []),
  ...traitsOf(body.kind).faults(body),
]

/** How many questions of an assessment show an image in what they ask. */
export const questionsShowing = (
  { questions }: { questions?: QuestionSet | undefined },
  { fileName }: { fileName: string },
): number =>
  (questions?.list ?? []).filter(({ body }) => body.text.includes(`src="asset:${fileName}"`)).length

/** Points of questions, added up, to a hundredth. */
export const pointsOf = (bodies: readonly { points: number }[]): number =>
  Math.round(bodies.reduce((sum, { points }) => sum + points, 0) * 100) / 100

/** A question by its first words. */
export const questionName = ({ text }: { text: string }): string =>
  `“${firstWords(text) || 'nothing asked yet'}”`
