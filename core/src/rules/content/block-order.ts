import { z } from 'zod'
import { fewestMoves } from '../../pair/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const blockOrder = defineRule({
  id: 'block-order',
  group: 'page content',
  title: 'Blocks stand in their order',
  why: 'Where the policy comes before the welcome in one course and after it in the next, students stop looking for it.',
  untold:
    'Where notes to the instructor stand, as they are to go; and words of the instructor’s own between two blocks.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { order: 'In “{item}” the block {seen} stands out of its order.' },
  *check(context): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.blocks.length < 2) continue
      const subject = aboutPart(part)
      const there = context.itemFor(part)
      const readings = there ? context.readingsOf(there) : null
      if (!there || !readings) {
        yield { subject, outcome: 'absent' }
        continue
      }
      // A note to the instructor is to go, wherever it stands.
      const standing = readings
        .flatMap((reading, rank) =>
          reading.paragraphs[0] === undefined || reading.block.kind === 'guidance-note'
            ? []
            : [{ reading, rank, at: reading.paragraphs[0] }],
        )
        .sort((a, b) => a.at - b.at)
      const moved = fewestMoves(standing.map(({ rank }) => rank)).flatMap((i) => standing[i] ?? [])
      if (moved.length === 0) yield { subject, outcome: 'passed' }
      else {
        const names = moved.map(({ reading }) => `“${reading.text.slice(0, 60)}”`)
        yield {
          subject,
          outcome: 'failed',
          message: 'order',
          values: { item: there.item.name, seen: names.join(', ') },
          evidence: names.map((text) => ({ kind: 'words', text }) as const),
          expected: 'the order of the template',
          itemId: there.item.id,
        }
      }
    }
  },
})
