import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { blockRegions, countWords } from '../../page/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

export const guidanceVisible = defineRule({
  id: 'guidance-visible',
  group: 'page content',
  title: 'Notes to the instructor are gone before students see them',
  why: 'Students read advice that was written to their instructor, and wonder what else was left undone.',
  untold:
    'A note of which more than half was rewritten: it has become the instructor’s own text. A few words that also stand in a note are asked about only when they are many.',
  strength: 'must',
  parameters: z.strictObject({
    leastWords: z.number().int().min(1).default(8),
    leastSurviving: z.number().min(0).max(1).default(0.8),
  }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { visible: 'Students can read a note to the instructor in “{item}”: “{text}”.' },
  *check(context, { leastWords, leastSurviving }): Generator<Verdict> {
    for (const {
      part,
      block,
      told: { subject, discriminator },
      stands,
    } of context.blocks()) {
      if (block.kind !== 'guidance-note') continue
      // A note has no strength of its own: that students read it is judged as the rule says.
      const told = { subject, discriminator }
      if (!stands) {
        yield { ...told, outcome: 'absent' }
        continue
      }
      const { there, reading } = stands
      const need = context.needOf(part)
      if (part.audience === 'staff') yield { ...told, outcome: 'inapplicable' }
      // More than half rewritten: it has become the instructor's own text.
      else if (reading.state === 'missing' || reading.text === '' || reading.surviving < 0.5)
        yield { ...told, outcome: 'passed' }
      else if (!context.studentsReach(there)) {
        if (context.reached(need)) yield { ...told, outcome: 'passed' }
        else yield { ...told, outcome: 'not-due-yet', dueOn: need }
      } else if (reading.byMarker || reading.state === 'unchanged')
        yield {
          ...told,
          outcome: 'failed',
          message: 'visible',
          values: {
            item: there.item.name,
            text: reading.text.length > 160 ? `${reading.text.slice(0, 159)}…` : reading.text,
          },
          evidence: [{ kind: 'words', text: reading.text }],
          expected: 'the note taken out',
          itemId: there.item.id,
          together: `${part.key}/${block.key}`,
        }
      else if (countWords(reading.text) >= leastWords && reading.surviving >= leastSurviving)
        yield {
          ...told,
          outcome: 'cannot-tell',
          reason: `“${there.item.name}” holds words much like a note to the instructor: “${reading.text.slice(0, 120)}”. Look at it.`,
          itemId: there.item.id,
        }
      else yield { ...told, outcome: 'passed' }
    }
  },
  mend(verdict, context): Change[] {
    const there = verdict.subject.about === 'part' ? context.itemFor(verdict.subject.part) : null
    if (!there?.item.html || !verdict.discriminator) return []
    const html = withoutBlock(there.item.html, there.part.blocks, verdict.discriminator)
    return html === there.item.html
      ? []
      : [{ change: 'set-item', id: there.item.id, fields: { html } }]
  },
})

/** A page on which a note stands more often than this was made by no hand; the rest is found again. */
const mostTimes = 20

/** A page without a block, as often as it stands there: by its marker, or word for word. */
const withoutBlock = (
  html: string,
  blocks: Parameters<typeof blockRegions>[1],
  key: string,
): string => {
  let left = html
  for (let times = 0; times < mostTimes; times++) {
    const region = blockRegions(left, blocks).regions.get(key)
    if (!region || !(region.marked || region.asLookedFor())) break
    left = left.slice(0, region.outer.from) + left.slice(region.outer.to)
  }
  return left
}
