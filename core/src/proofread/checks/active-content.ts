import { letIn, refusedInDrawing } from '../../allow/index.ts'
import { defineCheck, htmlOf, type Found } from '../remark.ts'

export const activeContent = defineCheck({
  id: 'active-content',
  severity: 'error',
  title: 'Nothing goes out that runs or loads by itself',
  messages: {
    block: 'This block holds {what}, which is not let into a course. Take it out.',
    text: 'The house text “{title}” holds {what}, which is not let into a course. Take it out.',
    drawing: 'The drawing {name} holds {what}, which is not let into a course. Take it out.',
  },
  *find(proof): Generator<Found> {
    for (const page of proof.pages)
      for (const block of page.blocks) {
        const refused = [...new Set(htmlOf(block).flatMap((html) => letIn(html).refused))]
        if (refused.length > 0)
          yield {
            part: page.key,
            block: block.key,
            message: 'block',
            values: { what: refused.join(', ') },
          }
      }
    for (const text of proof.template.houseTexts) {
      const refused = letIn(text.revisions.at(-1)?.html ?? '').refused
      if (refused.length > 0)
        yield {
          part: null,
          message: 'text',
          values: { title: text.title, what: refused.join(', ') },
        }
    }
    for (const asset of proof.template.assets) {
      const refused = refusedInDrawing(asset.svg ?? '')
      if (refused.length > 0)
        yield {
          part: null,
          message: 'drawing',
          values: { name: asset.fileName, what: refused.join(', ') },
        }
    }
  },
})
