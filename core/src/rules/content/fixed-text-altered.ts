import { z } from 'zod'
import { analysePage, changedPhrases, wordDifference } from '../../page/index.ts'
import { isFixedText } from '../../template/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

export const fixedTextAltered = defineRule({
  id: 'fixed-text-altered',
  group: 'page content',
  title: 'Fixed text stands as it was written',
  why: 'Wording that a policy prescribes was changed or taken out; students of one course read other terms than the rest.',
  untold:
    'Differences in spaces, dashes and quotation marks, and where a paragraph ends. An element of the home page that is gone is told by the rule for those.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 2,
  messages: {
    altered: '“{item}” changes fixed text: {change}.',
    missing: '“{item}” no longer has the fixed text “{text}”.',
  },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      if (!isFixedText(block.definition)) continue
      if (!stands) {
        yield { ...told, outcome: 'absent' }
        continue
      }
      const { there, reading } = stands
      // An element of the home page that is not there is told by the rule for those.
      if (
        reading.state === 'missing' &&
        part === context.expected.home &&
        block.definition.element
      ) {
        yield { ...told, outcome: 'inapplicable' }
        continue
      }
      // What stands in the spots of its sentences is the instructor’s.
      if (
        reading.state === 'unchanged' ||
        reading.state === 'filled' ||
        reading.state === 'unfilled'
      ) {
        yield { ...told, outcome: 'passed' }
        continue
      }
      const wanted = analysePage(block.html)
        .paragraphs.map((paragraph) => paragraph.text)
        .join(' ')
      const failed = {
        ...told,
        outcome: 'failed',
        expected: wanted,
        itemId: there.item.id,
        together: `${part.key}/${block.key}`,
      } as const
      const short = (text: string) => (text.length > 120 ? `${text.slice(0, 119)}…` : text)
      if (reading.state === 'missing')
        yield {
          ...failed,
          message: 'missing',
          values: { item: there.item.name, text: short(wanted) },
          evidence: [{ kind: 'count', text: 'no such passage' }],
        }
      else {
        const runs = wordDifference(wanted, reading.text)
        const gone = changedPhrases(runs, 'gone')
        const added = changedPhrases(runs, 'new')
        const change = [
          gone.length > 0 ? `“${short(gone.join(' … '))}” is gone` : '',
          added.length > 0 ? `“${short(added.join(' … '))}” is new` : '',
        ]
          .filter(Boolean)
          .join(', ')
        yield {
          ...failed,
          message: 'altered',
          values: { item: there.item.name, change },
          evidence: [{ kind: 'words', text: added.join(' … ') || gone.join(' … ') }],
        }
      }
    }
  },
})
