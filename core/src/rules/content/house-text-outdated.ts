import { z } from 'zod'
import { blockHtmlOn, blockRegions, revisionInForce, standsAsSent } from '../../page/index.ts'
import type { Change } from '../../course/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

export const houseTextOutdated = defineRule({
  id: 'house-text-outdated',
  group: 'page content',
  title: 'House texts are current',
  why: 'Students are told last year’s policy or a telephone number that nobody answers.',
  untold:
    'A house text that was changed by hand: which revision it was cannot be told, and another rule tells the change.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  onlyInCourse: true,
  effortMinutes: 1,
  messages: {
    outdated:
      '“{item}” shows {title} as of revision {seen}; revision {wanted} is in force since {since}.',
  },
  *check(context): Generator<Verdict> {
    for (const { block, told, stands } of context.blocks()) {
      if (block.definition.kind !== 'house-text') continue
      if (!stands) yield { ...told, outcome: 'absent' }
      // What is linked is current; what was changed by hand or taken out is told by other rules.
      else if (!block.houseText || stands.reading.revision === null)
        yield {
          ...told,
          outcome:
            block.houseText || stands.reading.state === 'missing' ? 'inapplicable' : 'passed',
        }
      else {
        const inForce = revisionInForce(block.houseText, context.asOf)
        const { reading, there } = stands
        if (reading.revision === inForce?.number) yield { ...told, outcome: 'passed' }
        else
          yield {
            ...told,
            outcome: 'failed',
            message: 'outdated',
            values: {
              item: there.item.name,
              title: block.houseText.title,
              seen: String(reading.revision),
              wanted: String(inForce?.number ?? ''),
              since: inForce?.inForceFrom ?? '',
            },
            evidence: [{ kind: 'words', text: reading.text.slice(0, 300) }],
            expected: `${block.houseText.title}, revision ${inForce?.number ?? 1}`,
            itemId: there.item.id,
            together: `house-text/${block.houseText.key}`,
          }
      }
    }
  },
  mend(verdict, context): Change[] {
    const there = verdict.subject.about === 'part' ? context.itemFor(verdict.subject.part) : null
    const block = there?.part.blocks.find((block) => block.key === verdict.discriminator)
    const old =
      there && block
        ? context.readingsOf(there)?.find((reading) => reading.block === block)
        : undefined
    const earlier = block?.houseText?.revisions.find(
      (revision) => revision.number === old?.revision,
    )
    const html = there?.item.html
    if (!there || !block || !earlier || !html) return []
    // The place is sure only where its words are those of the earlier revision, space aside.
    const { regions, doubtful } = blockRegions(
      html,
      there.part.blocks.map((other) =>
        other === block
          ? { key: other.key, html: earlier.html }
          : { key: other.key, html: blockHtmlOn(other, context.asOf) },
      ),
    )
    const region = regions.get(block.key)
    if (!region || doubtful.has(block.key) || !region.asLookedFor()) return []
    // Of the same words, but with a link or a picture of somebody’s own: it is not the earlier revision.
    const stands = html.slice(region.inner.from, region.inner.to)
    if (!standsAsSent(stands, earlier.html)) return []
    return [
      {
        change: 'set-item',
        id: there.item.id,
        fields: {
          html:
            html.slice(0, region.inner.from) +
            blockHtmlOn(block, context.asOf) +
            html.slice(region.inner.to),
        },
      },
    ]
  },
})
