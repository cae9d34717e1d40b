import { z } from 'zod'
import { Line } from '../../document/index.ts'
import { Basis, Key, Strength } from '../words.ts'

/** What a home page must show; a block says which of them it is. */
export const homeElements = [
  'banner',
  'course-title',
  'welcome',
  'instructor-contact',
  'office-hours',
  'where-to-begin',
  'signposts',
  'help',
] as const
export const HomeElement = z.enum(homeElements)
export type HomeElement = z.output<typeof HomeElement>

/** What every block has, whatever its kind. */
export const shared = {
  key: Key,
  strength: Strength.default('must'),
  basis: Basis.optional(),
  element: HomeElement.optional(),
  beside: z
    .literal(true)
    .optional()
    .describe('It stands beside the text, where the page is wide enough for both'),
  card: z
    .literal(true)
    .optional()
    .describe('It stands on a ground of its own, as the house style has it'),
}
/** What kinds of answer an instructor may be asked for. */
export const answerTypes = [
  'text',
  'rich-text',
  'image',
  'file',
  'video',
  'date',
  'e-mail',
  'link',
  'list',
  'table',
] as const
export type AnswerType = (typeof answerTypes)[number]

export const label = Line(200, 0)
/** One line of plain text in which fields may stand, e.g. {topic}. */
export const line = Line(500)

/** What every block has that was just put in. */
export const fresh = <const Kind extends string>(kind: Kind, key: string) =>
  ({ key, kind, strength: 'must' }) as const
