import { z } from 'zod'
import { isModule } from '../../template/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const moduleCount = defineRule({
  id: 'module-count',
  group: 'structure',
  title: 'As many modules as weeks, or an accepted grouping',
  why: 'When weeks are folded into longer units, each week must still stand in exactly one of them, or students lose a week.',
  untold:
    'Units that the template accepts; their ranges may be uneven. Units that cannot be read are one question, and nothing else is told of them.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 5,
  messages: { extra: '{found} weekly modules where the term has {wanted weeks}: {names}.' },
  *check(context): Generator<Verdict> {
    for (const definition of context.expected.template.parts) {
      if (!isModule(definition) || definition.repeat?.per !== 'week') continue
      const grouping = context.groupings[definition.key]
      const base = { subject: aboutCourse, discriminator: definition.key }
      if (grouping?.state === 'unreadable') {
        yield {
          ...base,
          outcome: 'cannot-tell',
          reason: `The weeks seem to be grouped into ${grouping.modules.length} units, but ${grouping.why}. Say which weeks each unit covers.`,
        }
        continue
      }
      if (grouping?.state === 'grouped') {
        yield { ...base, outcome: 'passed' }
        continue
      }
      const wanted = context.partsOfKey(definition.key)
      const beyond = context.modules.filter(
        (module) =>
          context.partOf(module.id) === null && /^\s*(week|wk)\b\.?\s*\d/i.test(module.name),
      )
      if (beyond.length === 0) yield { ...base, outcome: 'passed' }
      else
        yield {
          ...base,
          outcome: 'failed',
          message: 'extra',
          values: {
            found: String(wanted.filter((part) => context.moduleFor(part)).length + beyond.length),
            wanted: String(wanted.length),
            names: beyond.map((module) => `“${module.name}”`).join(', '),
          },
          evidence: beyond.map((module) => ({ kind: 'words', text: module.name }) as const),
          expected: `${wanted.length} modules, one for each week`,
          itemId: beyond[0]?.id,
        }
    }
  },
})
