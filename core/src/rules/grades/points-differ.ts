import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { defineRule } from '../rule.ts'
import { partItems } from '../partItems.ts'

export const pointsDiffer = defineRule({
  id: 'points-differ',
  group: 'grades',
  title: 'Work carries the points it should',
  why: 'The same work counts 100 in one class section and 10 in the next, and students compare.',
  untold: 'Work for which the template sets no points.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { points: '“{item}” carries {seen points} where {wanted} are set.' },
  check: (context) =>
    partItems(
      context,
      (part) => part.definition.settings.points !== undefined,
      ({ part, item }) => {
        const wanted = part.definition.settings.points ?? 0
        return item.points === wanted
          ? null
          : {
              message: 'points',
              values: {
                seen: item.points === null ? 'no' : String(item.points),
                wanted: String(wanted),
              },
              seen: item.points === null ? 'no points' : String(item.points),
              expected: String(wanted),
            }
      },
    ),
  mend(verdict, context): Change[] {
    const item = context.itemAt(verdict.itemId)
    return item
      ? [{ change: 'set-item', id: item.id, fields: { points: Number(verdict.expected) } }]
      : []
  },
})
