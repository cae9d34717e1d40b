import { itemsIn } from '../../course/index.ts'
import { z } from 'zod'
import type { CheckContext } from '../context.ts'
import { defineRule, orPassed, type Verdict } from '../rule.ts'

export const extraModule = defineRule({
  id: 'extra-module',
  group: 'structure',
  title: 'Modules beyond the template',
  why: 'For information: an instructor’s own modules are welcome, and somebody who looks after the course should know of them.',
  untold:
    'Units in place of weeks. That there is more than the template asks for is for information only.',
  strength: 'may',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 1,
  messages: { extra: '“{module}” is a module of the course’s own, with {count items}.' },
  check: (context) => orPassed(extras(context)),
})

function* extras(context: CheckContext): Generator<Verdict> {
  const grouped = new Set(
    Object.values(context.groupings).flatMap((reading) =>
      reading.state === 'weekly' ? [] : reading.modules,
    ),
  )
  for (const module of context.modules)
    if (context.partOf(module.id) === null && !grouped.has(module.id))
      yield {
        subject: { about: 'found', id: module.id, name: module.name },
        outcome: 'failed',
        message: 'extra',
        values: { module: module.name, count: String(itemsIn(module).length) },
        evidence: [{ kind: 'words', text: module.name }],
        expected: 'nothing',
        itemId: module.id,
        together: 'own-modules',
      }
}
