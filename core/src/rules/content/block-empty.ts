import { z } from 'zod'
import { isFixedText } from '../../template/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

export const blockEmpty = defineRule({
  id: 'block-empty',
  group: 'page content',
  title: 'No block stands empty',
  why: 'A heading “To do” with nothing under it tells students that there is nothing to do.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { empty: 'In “{item}” the block “{block}” is empty.' },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      if (isFixedText(block) || block.kind === 'fill-in' || block.kind === 'guidance-note') continue
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
          values: { item: there.item.name, block: label || block.kind.replaceAll('-', ' ') },
          evidence: [{ kind: 'words', text: reading.text === '' ? 'nothing' : reading.text }],
          expected: 'what belongs there',
          itemId: there.item.id,
          together: `${part.key}/${block.key}`,
        }
    }
  },
  examples: {
    passes: [
      { title: 'blocks as deployed', change: () => {} },
      {
        title: 'a block that is gone is told by another rule',
        change: ({ item }) =>
          void (item('week-overview', 3).html = (item('week-overview', 3).html ?? '').replace(
            /<div data-wf-block="to-do".*?<\/div>/s,
            '',
          )),
      },
    ],
    fails: [
      {
        title: 'the list was emptied, its heading left',
        change: ({ item }) =>
          void (item('week-overview', 3).html = (item('week-overview', 3).html ?? '').replace(
            /(<div data-wf-block="to-do"[^>]*><h3>To do<\/h3>).*?<\/div>/s,
            '$1</div>',
          )),
        evidence: 'To do',
      },
      {
        title: 'nothing is left at all',
        change: ({ item }) =>
          void (item('welcome').html = (item('welcome').html ?? '').replace(
            /(<div data-wf-block="muster"[^>]*>).*?<\/div>/s,
            '$1</div>',
          )),
        evidence: 'nothing',
      },
    ],
  },
})
