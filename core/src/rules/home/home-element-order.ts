import { z } from 'zod'
import { fewestMoves } from '../../pair/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const homeElementOrder = defineRule({
  id: 'home-element-order',
  group: 'home page',
  title: 'The home page shows its elements in their order',
  why: 'Students of five courses find where to begin without looking, if it always stands in the same place.',
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
    const moved = fewestMoves(standing.map((one) => one.rank)).flatMap(
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
  examples: {
    passes: [
      { title: 'the order of the template', change: () => {} },
      {
        title: 'something of the instructor’s own in between',
        change: ({ item }) =>
          void (item('home-page').html = (item('home-page').html ?? '').replace(
            '<div data-wf-block="begin"',
            '<p>Fair winds!</p><div data-wf-block="begin"',
          )),
      },
    ],
    fails: [
      {
        title: 'help was moved to the top',
        change: ({ item }) => {
          const html = item('home-page').html ?? ''
          const help = /<div data-wf-block="help".*?<\/div>/s.exec(html)?.[0] ?? ''
          item('home-page').html = help + html.replace(help, '')
        },
        evidence: 'help',
      },
      {
        title: 'where to begin stands last',
        change: ({ item }) => {
          const html = item('home-page').html ?? ''
          const begin = /<div data-wf-block="begin".*?<\/div>/s.exec(html)?.[0] ?? ''
          item('home-page').html = html.replace(begin, '') + begin
        },
        evidence: 'help',
      },
    ],
  },
})
