import { z } from 'zod'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const homeElementMissing = defineRule({
  id: 'home-element-missing',
  group: 'home page',
  title: 'The home page shows what every home page shows',
  why: 'Who teaches, when they can be reached, where to begin and where to find help: students look for these first.',
  untold:
    'Whether what an element says is true. All that is missing is told at once and opened place by place.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 5,
  messages: { missing: 'The home page has no {element}.' },
  several: { message: 'The home page lacks its {list}.', lists: 'element' },
  *check(context): Generator<Verdict> {
    const { home } = context.expected
    const there = context.itemFor(home)
    const readings = there ? context.readingsOf(there) : null
    for (const block of home.blocks) {
      const element = block.definition.element
      if (!element) continue
      const told = {
        subject: aboutPart(home),
        discriminator: block.key,
        strength: block.strength,
      } as const
      const reading = readings?.find((reading) => reading.block === block)
      if (!there || !readings) yield { ...told, outcome: 'absent' }
      else if (reading && reading.state !== 'missing') yield { ...told, outcome: 'passed' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'missing',
          values: { element: element.replaceAll('-', ' ') },
          evidence: [{ kind: 'count', text: `no ${element.replaceAll('-', ' ')}` }],
          expected: element.replaceAll('-', ' '),
          itemId: there.item.id,
          together: 'home page',
        }
    }
  },
})
