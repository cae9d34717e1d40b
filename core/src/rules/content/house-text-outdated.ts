import { z } from 'zod'
import { blockHtmlOn, revisionInForce } from '../../page/index.ts'
import type { Change } from '../../course/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const houseTextOutdated = defineRule({
  id: 'house-text-outdated',
  group: 'page content',
  title: 'House texts are current',
  why: 'Students are told last year’s policy or a telephone number that nobody answers.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 1,
  messages: {
    outdated: '“{item}” shows {title} as of revision {seen}; revision {wanted} is in force since {since}.',
    altered: '“{item}” changes the house text {title}.',
    missing: '“{item}” no longer shows the house text {title}.',
  },
  *check(context): Generator<Verdict> {
    for (const part of context.pageParts()) {
      const there = context.itemFor(part)
      const readings = there ? context.readingsOf(there) : null
      for (const block of part.blocks) {
        if (block.definition.kind !== 'house-text') continue
        const { houseText: key, mode } = block.definition
        const told = { subject: aboutPart(part), discriminator: block.key, strength: block.strength } as const
        const reading = readings?.find((one) => one.block === block)
        if (!there || !reading) {
          yield { ...told, outcome: 'absent' }
          continue
        }
        if (!block.houseText) {
          // What is linked is current; only the link itself can go missing.
          const title = context.expected.template.houseTexts.find((one) => one.key === key)?.title ?? key
          if (mode === 'linked' && reading.state === 'missing') yield { ...told, outcome: 'failed', expected: title, itemId: there.item.id, together: `house-text/${key}`, values: { item: there.item.name, title }, message: 'missing', evidence: [{ kind: 'count', text: `no ${title}` }] }
          else yield { ...told, outcome: 'passed' }
          continue
        }
        const inForce = revisionInForce(block.houseText, context.asOf)
        const { title } = block.houseText
        const values = { item: there.item.name, title, seen: String(reading.revision ?? ''), wanted: String(inForce?.number ?? ''), since: inForce?.inForceFrom ?? '' }
        const failed = { ...told, outcome: 'failed', expected: `${title}, revision ${inForce?.number ?? 1}`, itemId: there.item.id, together: `house-text/${block.houseText.key}`, values } as const
        if (reading.revision !== null && reading.revision === inForce?.number) yield { ...told, outcome: 'passed' }
        else if (reading.revision !== null) yield { ...failed, message: 'outdated', evidence: [{ kind: 'words', text: reading.text.slice(0, 300) }] }
        else if (block.definition.element) yield reading.state === 'missing' ? { ...told, outcome: 'absent' } : { ...failed, message: 'altered', evidence: [{ kind: 'words', text: reading.text.slice(0, 300) }] }
        else if (reading.state === 'missing') yield { ...failed, message: 'missing', evidence: [{ kind: 'count', text: `no ${title}` }] }
        else yield { ...failed, message: 'altered', evidence: [{ kind: 'words', text: reading.text.slice(0, 300) }] }
      }
    }
  },
  mend(verdict, context): Change[] {
    if (verdict.subject.about !== 'part' || verdict.message !== 'outdated') return []
    const there = context.itemFor(verdict.subject.part)
    const block = verdict.subject.part.blocks.find((one) => one.key === verdict.discriminator)
    const old = there && block ? context.readingsOf(there)?.find((one) => one.block === block) : undefined
    const earlier = block?.houseText?.revisions.find((one) => one.number === old?.revision)
    const html = there?.item.html
    // Only where the earlier wording stands byte for byte is it sure what to replace.
    if (!there || !block || !earlier || !html || html.split(earlier.html).length !== 2) return []
    return [{ change: 'set-item', id: there.item.id, fields: { html: html.replace(earlier.html, () => blockHtmlOn(block, context.asOf)) } }]
  },
  examples: {
    passes: [
      { title: 'the current revision', change: () => {} },
      { title: 'before the new revision is in force the old one is right', asOf: '2026-09-01', change: ({ item }) => void (item('welcome').html = (item('welcome').html ?? '').replace('Call 5500.', 'Call 4400.')) },
    ],
    fails: [
      { title: 'the revision of last year', change: ({ item }) => void (item('welcome').html = (item('welcome').html ?? '').replace('Call 5500.', 'Call 4400.')), evidence: 'In an emergency leave by the stair. Call 4400.' },
      { title: 'changed by hand', change: ({ item }) => void (item('welcome').html = (item('welcome').html ?? '').replace('Call 5500.', 'Call me.')), evidence: 'In an emergency leave by the stair. Call me.' },
    ],
  },
})
