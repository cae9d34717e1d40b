import { analysePage } from '../../page/index.ts'
import { Proof, defineCheck, type Found } from '../remark.ts'

export const headingSkip = defineCheck({
  id: 'heading-skip',
  severity: 'error',
  title: 'Headings skip no level (WCAG 2.2, success criterion 1.3.1)',
  messages: {
    skip: 'The heading “{text}” is of level {level} and follows one of level {before}.',
    empty: 'A heading is empty.',
  },
  *find(proof): Generator<Found> {
    const [first] = proof.variants
    if (!first) return
    for (const [key, [part]] of Proof.byKey(first)) {
      if (!part) continue
      // A page’s own name is its heading of level 1, a title block’s of level 2.
      let before = part.blocks.some((block) => block.kind === 'title') ? 1 : 2
      for (const block of part.blocks)
        for (const heading of analysePage(block.html).headings) {
          if (heading.text === '') yield { part: key, block: block.key, message: 'empty' }
          else if (heading.level > before + 1)
            yield {
              part: key,
              block: block.key,
              message: 'skip',
              values: { text: heading.text, level: String(heading.level), before: String(before) },
            }
          before = heading.level
        }
    }
  },
})
