import { z } from 'zod'
import type { CheckContext } from '../context.ts'
import { defineRule, orPassed, type Verdict } from '../rule.ts'

export const strayItem = defineRule({
  id: 'stray-item',
  group: 'structure',
  title: 'Nothing stands outside every module',
  why: 'Students find items through their modules; what stands in none is found by nobody, or only by those who search.',
  untold:
    'The home page, parts that the template itself keeps outside every module, and kinds that the template does not list.',
  strength: 'should',
  parameters: z.strictObject({
    kinds: z.array(z.string()).default(['page', 'discussion', 'assignment', 'assessment']),
  }),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { stray: '“{name}” stands in no module, where students do not find it.' },
  check: (context, { kinds }) => orPassed(strays(context, kinds)),
})

function* strays(context: CheckContext, kinds: readonly string[]): Generator<Verdict> {
  for (const { item, module } of context.placedItems) {
    if (module !== null || item.id === context.course.homePage || !kinds.includes(item.kind))
      continue
    const subject = { about: 'found', id: item.id, name: item.name } as const
    if (context.partOf(item.id)?.parent === null) continue
    yield {
      subject,
      outcome: 'failed',
      message: 'stray',
      values: { name: item.name },
      evidence: [{ kind: 'words', text: item.name }],
      expected: 'every item in a module',
      itemId: item.id,
    }
  }
}
