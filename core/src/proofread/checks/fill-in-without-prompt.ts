import { analysePage } from '../../page/index.ts'
import {
  blockName,
  firstWords,
  leftAs,
  newNote,
  newPrompt,
  newSpot,
  spotsIn,
  waysToLeave,
  withSpots,
  wordsOfBlock,
  type Block,
} from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const fillInWithoutPrompt = defineCheck({
  id: 'fill-in-without-prompt',
  severity: 'error',
  title: 'What is asked of the instructor says what is wanted',
  messages: {
    empty: 'The fill-in {block} has no prompt: nobody will know what belongs there.',
    'asks-nothing':
      'The {block} is asked of the instructor, and nothing in it says what is wanted.',
    'spot-unsaid':
      'A spot in “{text}” still says “{prompt}”, as it was put in. Say what is wanted.',
    'spot-open': '“{text}” has “[[” or “]]” without the other: no spot, and students read it.',
    unsaid:
      'The fill-in {block} still has the prompt it was made with, “{prompt}”. Say what is wanted.',
  },
  *find(proof): Generator<Found> {
    for (const page of proof.pages)
      for (const block of page.blocks) {
        if (block.kind !== 'fill-in') {
          yield* spotsAmiss(page.key, block)
          if (leftAs(block) === 'asked' && saysNothing(block))
            yield {
              part: page.key,
              block: block.key,
              message: 'asks-nothing',
              values: { block: blockName(block) },
            }
          continue
        }
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

const saysNothing = (block: Block): boolean =>
  (wordsOfBlock(block) ?? [{ text: '?' }]).every((words) =>
    'html' in words ? analysePage(words.html).paragraphs.length === 0 : words.text.trim() === '',
  )

/** Spots within sentences that say nothing, or are none. */
function* spotsAmiss(part: string, block: Block): Generator<Found> {
  if (waysToLeave(block.kind).length === 0) return
  for (const words of wordsOfBlock(block) ?? []) {
    const text = 'html' in words ? words.html : words.text
    const told = { part, block: block.key }
    for (const prompt of [newSpot, newNote])
      if (spotsIn(text).includes(`[${prompt}]`))
        yield { ...told, message: 'spot-unsaid', values: { text: firstWords(text), prompt } }
    if (/\[\[|\]\]/.test(withSpots(text)))
      yield { ...told, message: 'spot-open', values: { text: firstWords(text) } }
  }
}
