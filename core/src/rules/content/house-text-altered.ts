import { z } from 'zod'
import { analysePage, changedPhrases, revisionInForce, wordDifference } from '../../page/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

export const houseTextAltered = defineRule({
  id: 'house-text-altered',
  group: 'page content',
  title: 'House texts stand as the house wrote them',
  why: 'A policy with one word changed promises what the college does not keep, or takes away what it grants.',
  untold:
    'A house text that is linked, not copied: it cannot be altered here. An earlier revision, word for word, is told as outdated.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 2,
  messages: { altered: '“{item}” changes the house text {title}: {change}.' },
  *check(context): Generator<Verdict> {
    for (const { block, told, stands } of context.blocks()) {
      if (block.definition.kind !== 'house-text' || !block.houseText) continue
      if (!stands) yield { ...told, outcome: 'absent' }
      else if (stands.reading.state !== 'altered')
        yield { ...told, outcome: stands.reading.state === 'missing' ? 'inapplicable' : 'passed' }
      else {
        const { reading, there } = stands
        const revision = revisionInForce(block.houseText, context.asOf)
        const wanted = analysePage(revision?.html ?? '')
          .paragraphs.map((paragraph) => paragraph.text)
          .join(' ')
        const runs = wordDifference(wanted, reading.text)
        const [gone, added] = [
          changedPhrases(runs, 'gone').join(' … '),
          changedPhrases(runs, 'new').join(' … '),
        ]
        const change = [
          gone === '' ? '' : `“${gone.slice(0, 120)}” is gone`,
          added === '' ? '' : `“${added.slice(0, 120)}” is new`,
        ]
          .filter(Boolean)
          .join(', ')
        yield {
          ...told,
          outcome: 'failed',
          message: 'altered',
          values: { item: there.item.name, title: block.houseText.title, change },
          evidence: [{ kind: 'words', text: (added || gone).slice(0, 300) }],
          expected: `${block.houseText.title}, revision ${revision?.number ?? 1}`,
          itemId: there.item.id,
          together: `house-text/${block.houseText.key}`,
        }
      }
    }
  },
})
