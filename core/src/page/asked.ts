import type { ExpectedBlock } from '../expand/index.ts'
import { rememberOf } from '../remember/index.ts'
import { blockKind, leftAs, type AnswerType, type KeptBlockBody } from '../template/index.ts'
import { analysePage, plainText } from './analysePage.ts'

/** What a block asks of the instructor in a course, as plain text. */
export interface Asked {
  type: AnswerType
  /** What stands there until it is answered, paragraph by paragraph; of a fill-in, its earlier prompts as well. */
  prompts: readonly string[]
  /** What deployment writes over and beside it, and what stays. */
  given: readonly string[]
  /** Whether it is asked within sentences that are the template’s own. */
  within: boolean
}

const askedByFillIn = rememberOf(
  (definition: Extract<KeptBlockBody, { kind: 'fill-in' }>): Asked => ({
    type: definition.type,
    prompts: [definition.prompt, ...definition.earlierPrompts].map(plainText),
    given: definition.label ? [plainText(definition.label)] : [],
    within: false,
  }),
)

const paragraphsIn = (html: string): string[] =>
  analysePage(html).paragraphs.map(({ text }) => text)

const askedInPieces = rememberOf((block: ExpectedBlock): Asked => {
  const prompts = block.asks.flatMap(paragraphsIn)
  const given = paragraphsIn(block.html)
  for (const prompt of prompts) {
    const at = given.indexOf(prompt)
    if (at >= 0) given.splice(at, 1)
  }
  return { type: blockKind(block.kind).answer ?? 'text', prompts, given, within: false }
})

const askedWithin = rememberOf((block: ExpectedBlock): Asked => ({
  type: 'text',
  prompts: block.asks.flatMap(paragraphsIn),
  given: [],
  within: true,
}))

/** What a block asks of the instructor; null where all its words are the template's, or theirs to change. */
export const askedOf = (block: ExpectedBlock): Asked | null =>
  block.definition.kind === 'fill-in'
    ? askedByFillIn(block.definition)
    : leftAs(block.definition) === 'asked'
      ? askedInPieces(block)
      : block.asks.length > 0
        ? askedWithin(block)
        : null
