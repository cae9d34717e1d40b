import { z } from 'zod'

/** In what words are written: HTML in a course, where an instructor may have used all of it; a line of a template is plain text. */
export interface QuestionTexts {
  /** What is asked, as HTML. */
  text: z.ZodString
  /** An answer, a remark on one: a line. */
  line: z.ZodString
  /** How many answers a question has at most. */
  most: number
}

/** What every question has, whatever is answered to it. */
export const asked = ({ text, line }: QuestionTexts) => ({
  text: text.describe('What is asked, as HTML'),
  points: z.number().min(0).max(10_000).default(1),
  feedback: line.optional().describe('What students are told once they have answered'),
})

/** Why a question cannot be answered as it stands. */
export type QuestionFault =
  | 'no-text'
  | 'no-answer'
  | 'too-few-choices'
  | 'empty-choice'
  | 'same-choice-twice'
  | 'several-right'
  | 'any-answer'

/** What is known of a kind of question apart from its schema. Methods, so that a kind may be asked about whatever question it is of. */
export interface QuestionTraits<Body = unknown> {
  /** What people call it. */
  title: string
  /** As it is first put in, with nothing asked yet. */
  empty(): Body
  /** Its answers as lines, the right ones marked; none where somebody reads what was answered. */
  answers(question: Body): { text: string; right: boolean }[]
  /** Why it cannot be answered as it stands; what is asked apart. */
  faults(question: Body): QuestionFault[]
}

export const defineQuestion = <const Kind extends string, Schema extends z.ZodType>(
  kind: Kind,
  schema: (texts: QuestionTexts) => Schema,
  traits: QuestionTraits<z.output<Schema>>,
) => ({ kind, schema, ...traits })
