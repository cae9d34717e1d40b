import { z } from 'zod'
import { blockKindWords, isFixedText } from '../../template/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

export const blockMissing = defineRule({
  id: 'block-missing',
  group: 'page content',
  title: 'Pages have all their blocks',
  why: 'A page without its policy, its list of work or the spot for its answer looks finished, and is not.',
  untold:
    'Titles, notes to the instructor, fixed texts and the elements of the home page, which have rules of their own; what may be left out; and a block that stands in the other half of a page that was taken apart.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 2,
  messages: {
    missing: '“{item}” no longer has its {block}.',
    'house-text': '“{item}” no longer shows the house text {block}.',
  },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      // Fixed text and the elements of a home page have rules of their own; guidance is to go.
      if (
        isFixedText(block.definition) ||
        block.kind === 'guidance-note' ||
        block.kind === 'title' ||
        (part === context.expected.home && block.definition.element)
      )
        continue
      if (!stands) {
        yield { ...told, outcome: 'absent' }
        continue
      }
      const { reading, there } = stands
      const { definition } = block
      const title =
        definition.kind === 'house-text'
          ? (context.expected.template.houseTexts.find((text) => text.key === definition.houseText)
              ?.title ?? definition.houseText)
          : null
      const name =
        title ??
        ('label' in definition && definition.label
          ? `“${definition.label}”`
          : blockKindWords(definition.kind))
      if (reading.state !== 'missing' || reading.byMarker) yield { ...told, outcome: 'passed' }
      else if (block.strength === 'may') yield { ...told, outcome: 'inapplicable' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: title === null ? 'missing' : 'house-text',
          values: { item: there.item.name, block: name },
          evidence: [{ kind: 'count', text: `no ${name}` }],
          expected: name,
          itemId: there.item.id,
          together: title === null ? `${part.key}/${block.key}` : `house-text/${title}`,
        }
    }
  },
})
