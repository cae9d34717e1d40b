import { z } from 'zod'
import { defineRule, type Verdict } from '../rule.ts'

export const fillInShapeLost = defineRule({
  id: 'fill-in-shape-lost',
  group: 'page content',
  title: 'Answers stand in their frame, under their label',
  why: 'An image put beside its frame leaves the empty frame with its prompt; an answer without its label says nobody knows what.',
  untold:
    'Answers to spots that have no label. Where nothing of the template is left on a page, the page is no answer: its blocks are missing.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    label: '“{item}” has an answer, but its label “{label}” is gone.',
    outside: '“{item}” has an image beside the frame that still asks: “{prompt}”.',
  },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      const { definition } = block
      if (
        definition.kind !== 'fill-in' ||
        (definition.label === undefined && definition.type !== 'image')
      )
        continue
      if (!stands) yield { ...told, outcome: 'absent' }
      else if (stands.reading.shapeLost === null)
        yield { ...told, outcome: stands.reading.state === 'filled' ? 'passed' : 'inapplicable' }
      else if (!context.reached(context.needOf(part)))
        yield { ...told, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: stands.reading.shapeLost,
          values: {
            item: stands.there.item.name,
            label: definition.label ?? '',
            prompt: definition.prompt,
          },
          evidence: [
            {
              kind: 'words',
              text: stands.reading.text.slice(0, 300) || 'an image beside the frame',
            },
          ],
          expected: definition.label ?? 'the image in its frame',
          itemId: stands.there.item.id,
          together: `${part.key}/${block.key}`,
        }
    }
  },
})
