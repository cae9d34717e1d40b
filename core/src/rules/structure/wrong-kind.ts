import { z } from 'zod'
import { isModule, kindWords } from '../../template/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const wrongKind = defineRule({
  id: 'wrong-kind',
  group: 'structure',
  title: 'Items are of the kind they should be',
  why: 'A discussion turned into a page takes no answers; an assignment turned into a page takes no work and has no place in the grades.',
  untold: 'Kinds that the template accepts instead.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 10,
  messages: { kind: '“{name}” is a {found} where a {wanted} is expected.' },
  *check(context): Generator<Verdict> {
    for (const part of context.parts) {
      const definition = part.definition
      if (isModule(definition)) continue
      const subject = aboutPart(part)
      const there = context.itemFor(part)
      if (!there) yield { subject, outcome: 'absent' }
      else if (there.item.kind === part.kind || definition.acceptsInstead.includes(there.item.kind))
        yield { subject, outcome: 'passed' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'kind',
          values: {
            name: there.item.name,
            found: kindWords(there.item.kind),
            wanted: kindWords(part.kind),
          },
          evidence: [{ kind: 'value', text: there.item.kind }],
          expected: part.kind,
          itemId: there.item.id,
        }
    }
  },
})
