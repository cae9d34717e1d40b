import { analysePage } from '../../page/index.ts'
import { defineCheck, htmlOf, type Found } from '../remark.ts'

const advice =
  /\b(?:note to (?:the )?instructors?|instructors? (?:should|must|may|can|will need)|for (?:the )?instructors? only|(?:delete|remove|take out) this (?:note|text|line|paragraph|section)|replace this|insert (?:your|the)|(?:your|edit this) (?:text|name) here|as the instructor,? you)\b/i

export const guidanceNotMarked = defineCheck({
  id: 'guidance-not-marked',
  severity: 'warning',
  title: 'Advice to instructors is marked as guidance',
  messages: {
    reads:
      '“{text}” reads like advice to the instructor, but stands where students read it. Make it a guidance note.',
  },
  *find(proof): Generator<Found> {
    for (const page of proof.pages) {
      if (page.item && page.item.audience !== 'students') continue
      for (const block of page.blocks) {
        if (block.kind === 'guidance-note') continue
        for (const html of htmlOf(block))
          for (const { text } of analysePage(html).paragraphs)
            if (advice.test(text))
              yield {
                part: page.key,
                block: block.key,
                message: 'reads',
                values: { text: text.length > 90 ? `${text.slice(0, 89)}…` : text },
              }
      }
    }
  },
})
