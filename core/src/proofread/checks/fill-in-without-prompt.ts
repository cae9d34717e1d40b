import { newPrompt } from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const fillInWithoutPrompt = defineCheck({
  id: 'fill-in-without-prompt',
  severity: 'error',
  title: 'Every fill-in says what is wanted',
  messages: {
    empty: 'The fill-in {block} has no prompt: nobody will know what belongs there.',
    unsaid:
      'The fill-in {block} still has the prompt it was made with, “{prompt}”. Say what is wanted.',
  },
  *find(proof): Generator<Found> {
    for (const page of proof.pages)
      for (const block of page.blocks) {
        if (block.kind !== 'fill-in') continue
        if (block.prompt.trim() === '')
          yield {
            part: page.key,
            block: block.key,
            message: 'empty',
            values: { block: block.label ?? block.key },
          }
        else if (block.prompt === newPrompt)
          yield {
            part: page.key,
            block: block.key,
            message: 'unsaid',
            values: { block: block.label ?? block.key, prompt: block.prompt },
          }
      }
  },
})
