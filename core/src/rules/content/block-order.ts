import { z } from 'zod'
import { fewestMoves } from '../../pair/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const blockOrder = defineRule({
  id: 'block-order',
  group: 'page content',
  title: 'Blocks stand in their order',
  why: 'Where the policy comes before the welcome in one course and after it in the next, students stop looking for it.',
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
      const standing = readings
        .flatMap((reading, rank) =>
          reading.paragraphs[0] === undefined ? [] : [{ reading, rank, at: reading.paragraphs[0] }],
        )
        .sort((a, b) => a.at - b.at)
      const moved = fewestMoves(standing.map((one) => one.rank)).flatMap((i) => standing[i] ?? [])
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
  examples: {
    passes: [
      { title: 'the order of the template', change: () => {} },
      {
        title: 'something of the instructor’s own between two blocks',
        change: ({ item }) =>
          void (item('welcome').html = (item('welcome').html ?? '').replace(
            '<div data-wf-block="promise"',
            '<p>My boat is called Petrel.</p><div data-wf-block="promise"',
          )),
      },
    ],
    fails: [
      {
        title: 'the promise was moved to the top',
        change: ({ item }) => {
          const html = item('welcome').html ?? ''
          const promise = /<div data-wf-block="promise".*?<\/div>/s.exec(html)?.[0] ?? ''
          item('welcome').html = promise + html.replace(promise, '')
        },
        evidence: '“You will have an answer to every question by Friday of the s”',
      },
      {
        title: 'the list of work stands before what the week is about',
        change: ({ item }) => {
          const html = item('week-overview', 3).html ?? ''
          const list = /<div data-wf-block="to-do".*?<\/div>/s.exec(html)?.[0] ?? ''
          item('week-overview', 3).html = list + html.replace(list, '')
        },
        evidence: '“To do NAV 110 · Discussion 3: Compass Week 3 checklist”',
      },
    ],
  },
})
