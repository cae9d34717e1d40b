import { z } from 'zod'
import { defineRule, type Verdict } from '../rule.ts'

export const fillInUnfilled = defineRule({
  id: 'fill-in-unfilled',
  group: 'page content',
  title: 'What the instructor is to fill in is filled in',
  why: 'Students read “[your office hours]” and know that nobody looked at the course.',
  untold:
    'Spots that were taken out of the page: they are missing blocks. What may stay open is not told.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: {
    unfilled: '“{item}” still asks: “{prompt}”.',
    empty: '“{item}” has nothing where it asks: “{prompt}”.',
  },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      if (block.definition.kind !== 'fill-in') continue
      const { prompt, label } = block.definition
      if (!stands) yield { ...told, outcome: 'absent' }
      // A spot that was taken out is told as a missing block.
      else if (stands.reading.state === 'missing' || block.strength === 'may')
        yield { ...told, outcome: 'inapplicable' }
      else if (stands.reading.state !== 'unfilled') yield { ...told, outcome: 'passed' }
      else if (!context.reached(context.needOf(part)))
        yield { ...told, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else {
        const { text } = stands.reading
        yield {
          ...told,
          outcome: 'failed',
          message: text === '' ? 'empty' : 'unfilled',
          values: { item: stands.there.item.name, prompt },
          evidence: [{ kind: 'words', text: text === '' ? 'nothing' : text.slice(0, 300) }],
          expected: label ?? prompt,
          itemId: stands.there.item.id,
          together: `${part.key}/${block.key}`,
        }
      }
    }
  },
})
