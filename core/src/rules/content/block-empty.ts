import { z } from 'zod'
import { askedOf } from '../../page/index.ts'
import { blockKindWords, isFixedText } from '../../template/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

export const blockEmpty = defineRule({
  id: 'block-empty',
  group: 'page content',
  title: 'No block stands empty',
  why: 'A heading “To do” with nothing under it tells students that there is nothing to do.',
  untold:
    'Blocks without a mark: of them nothing is left to tell by, and they count as missing. What is asked of the instructor, fixed texts and notes have rules of their own.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { empty: 'In “{item}” the block “{block}” is empty.' },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      if (isFixedText(block.definition) || askedOf(block) || block.kind === 'guidance-note')
        continue
      if (!stands) {
        yield { ...told, outcome: 'absent' }
        continue
      }
      const { reading, there } = stands
      const label = 'label' in block.definition ? (block.definition.label ?? '') : ''
      const empty =
        reading.byMarker &&
        (reading.state === 'missing' ||
          (label !== '' && reading.text === label && reading.state === 'altered'))
      if (!empty)
        yield { ...told, outcome: reading.state === 'missing' ? 'inapplicable' : 'passed' }
      else if (!context.reached(context.needOf(part)))
        yield { ...told, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'empty',
          values: { item: there.item.name, block: label || blockKindWords(block.kind) },
          evidence: [{ kind: 'words', text: reading.text === '' ? 'nothing' : reading.text }],
          expected: 'what belongs there',
          itemId: there.item.id,
          together: `${part.key}/${block.key}`,
        }
    }
  },
})
