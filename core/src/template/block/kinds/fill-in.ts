import { z } from 'zod'
import { Html } from '../../words.ts'
import { heading, paragraph } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { answerTypes, fresh, label, shared } from '../shared.ts'

/** The prompt of a fill-in that was just made; proofreading asks for a better one. */
export const newPrompt = 'What should stand here?'

export const fillIn = defineBlock(
  'fill-in',
  z.strictObject({
    ...shared,
    kind: z.literal('fill-in'),
    label: label.optional(),
    type: z.enum(answerTypes).default('text'),
    prompt: z.string().min(1).max(1000),
    hint: z.string().max(1000).optional(),
    example: Html.optional().describe('An answer as it could be'),
    scope: z.enum(['place', 'course']).default('place'),
    minWords: z.number().int().min(1).max(5000).optional(),
    maxWords: z.number().int().min(1).max(5000).optional(),
    answer: Html.optional().describe('What a layer answered in place of the instructor'),
    earlierPrompts: z
      .array(z.string().max(1000))
      .default([])
      .describe('Prompts of earlier versions; they still count as unfilled'),
  }),
  {
    title: 'Fill-in',
    group: 'left',
    isFixed: false,
    htmlFields: ['answer', 'example'],
    wordFields: ['label', 'prompt', 'hint'],
    empty: (key) => ({
      ...fresh('fill-in', key),
      type: 'text' as const,
      prompt: newPrompt,
      scope: 'place' as const,
      earlierPrompts: [],
    }),
    html: (block, writing) => {
      const above = block.label ? heading(writing.label(block.label)) : ''
      if (block.answer !== undefined)
        return { html: above + writing.html(block.answer), answer: block.answer, pieces: [] }
      const answer = block.scope === 'course' ? writing.answerTo(block.key) : null
      const asks = paragraph(answer ?? block.prompt)
      return { html: above + asks, answer, pieces: answer === null ? [asks] : [] }
    },
    words: (block) =>
      [block.label, block.prompt, block.hint].flatMap((text) => (text ? [{ text }] : [])),
  },
)
