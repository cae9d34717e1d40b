import { z } from 'zod'
import { fewestMoves } from '../../pair/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const homeElementOrder = defineRule({
  id: 'home-element-order',
  group: 'home page',
  title: 'The home page shows its elements in their order',
  why: 'Students of five courses find where to begin without looking, if it always stands in the same place.',
  untold: 'Where the instructor’s own words stand between the elements.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: { order: 'On the home page {seen} stands out of its order.' },
  *check(context): Generator<Verdict> {
    const { home } = context.expected
    const subject = aboutPart(home)
    const there = context.itemFor(home)
    const readings = there ? context.readingsOf(there) : null
    if (!there || !readings) {
      yield { subject, outcome: 'absent' }
      return
    }
    const standing = readings
      .flatMap((reading, rank) =>
        reading.block.definition.element && reading.paragraphs[0] !== undefined
          ? [{ reading, rank, at: reading.paragraphs[0] }]
          : [],
      )
      .sort((a, b) => a.at - b.at)
    const moved = fewestMoves(standing.map(({ rank }) => rank)).flatMap(
      (i) => standing[i]?.reading.block.definition.element?.replaceAll('-', ' ') ?? [],
    )
    if (moved.length === 0)
      yield { subject, outcome: standing.length > 1 ? 'passed' : 'inapplicable' }
    else
      yield {
        subject,
        outcome: 'failed',
        message: 'order',
        values: { seen: moved.join(', ') },
        evidence: moved.map((text) => ({ kind: 'words', text }) as const),
        expected: readings
          .flatMap((reading) => reading.block.definition.element?.replaceAll('-', ' ') ?? [])
          .join(', '),
        itemId: there.item.id,
      }
  },
})
