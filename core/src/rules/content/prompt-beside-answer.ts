import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { askedOf, blockRegions } from '../../page/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

export const promptBesideAnswer = defineRule({
  id: 'prompt-beside-answer',
  group: 'page content',
  title: 'No prompt stands beside its answer',
  why: 'Students read the question that was put to their instructor, and the answer after it.',
  untold:
    'A prompt that is quoted in other words. Only a prompt in a paragraph of its own is taken out by the mend: within an answer it may be quoted on purpose.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { beside: '“{item}” has an answer, and the prompt “{prompt}” still stands beside it.' },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      const asked = askedOf(block)
      if (!asked || asked.within) continue
      const [prompt = ''] = asked.prompts
      const label = 'label' in block.definition ? block.definition.label : undefined
      if (!stands) yield { ...told, outcome: 'absent' }
      else if (stands.reading.state === 'filled') yield { ...told, outcome: 'passed' }
      else if (stands.reading.state !== 'prompt-beside-answer')
        yield { ...told, outcome: 'inapplicable' }
      else if (!context.reached(context.needOf(part)))
        yield { ...told, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'beside',
          values: { item: stands.there.item.name, prompt },
          evidence: [{ kind: 'words', text: stands.reading.text.slice(0, 300) }],
          expected: label ?? 'the answer alone',
          itemId: stands.there.item.id,
          together: `${part.key}/${block.key}`,
        }
    }
  },
  mend(verdict, context): Change[] {
    const there = verdict.subject.about === 'part' ? context.itemFor(verdict.subject.part) : null
    const block = there?.part.blocks.find((block) => block.key === verdict.discriminator)
    const html = there?.item.html
    const asked = block && askedOf(block)
    if (!there || !asked || !html) return []
    // Only a prompt that fills a paragraph of its own is taken out; within an answer it may be quoted on purpose.
    const region = blockRegions(html, there.part.blocks).regions.get(block.key)
    if (!region) return []
    const inside = html.slice(region.inner.from, region.inner.to)
    for (const text of asked.prompts) {
      const paragraph = `<p>${text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')}</p>`
      if (inside.split(paragraph).length === 2)
        return [
          {
            change: 'set-item',
            id: there.item.id,
            fields: {
              html:
                html.slice(0, region.inner.from) +
                inside.replace(paragraph, '') +
                html.slice(region.inner.to),
            },
          },
        ]
    }
    return []
  },
})
