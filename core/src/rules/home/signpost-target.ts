import { z } from 'zod'
import { defineRule, type Verdict } from '../rule.ts'

export const signpostTarget = defineRule({
  id: 'signpost-target',
  group: 'home page',
  title: 'Signposts lead where they say',
  why: 'A signpost “Get help” that leads to the calendar is worse than none.',
  untold:
    'Links to parts that are not in the course, which are told as missing; where to begin has a rule of its own.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { target: 'In “{item}” the signpost to {wanted} leads elsewhere or is gone.' },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      if (block.definition.kind !== 'signposts' || block.definition.element === 'where-to-begin')
        continue
      if (!stands || stands.reading.state === 'missing') {
        yield { ...told, outcome: 'absent' }
        continue
      }
      const { reading, there } = stands
      const page = context.pageOf(there.item)
      const places = new Set(reading.paragraphs)
      const links =
        page?.links.filter((link) =>
          reading.byMarker ? link.block === block.key : places.has(link.paragraph),
        ) ?? []
      const targets = new Set(
        links.flatMap((link) => {
          const target = context.leadsTo(link.href)
          return target.leads === 'item' ? [target.id] : []
        }),
      )
      const wanted = block.definition.links.flatMap((link) => {
        const parts = context
          .partsOfKey(link.to)
          .flatMap((part) => context.itemFor(part)?.item ?? [])
        return parts.length > 0 && !parts.some((item) => targets.has(item.id))
          ? [parts[0]?.name ?? link.text]
          : []
      })
      if (wanted.length === 0) yield { ...told, outcome: 'passed' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'target',
          values: { item: there.item.name, wanted: wanted.map((name) => `“${name}”`).join(', ') },
          evidence: [
            { kind: 'value', text: links.map((link) => link.href).join(', ') || 'no link' },
          ],
          expected: wanted.join(', '),
          itemId: there.item.id,
          together: `${part.key}/${block.key}`,
        }
    }
  },
})
