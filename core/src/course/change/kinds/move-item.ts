import { z } from 'zod'
import { At, Id } from '../fields.ts'
import { defineChange } from '../kind.ts'
import { insert } from '../site.ts'
import { plain } from '../wording.ts'

const schema = z.strictObject({
  change: z.literal('move-item'),
  id: Id,
  module: Id.nullable(),
  at: At,
})

export const moveItem = defineChange('move-item', schema, {
  apply({ id, module, at }, site) {
    const to = site.listOf('item', module)
    if (!to) return site.gone(module ?? '')
    const stand = site.item(id)
    if (!stand) return site.gone(id)
    stand.list.splice(stand.index, 1)
    insert(to, at, stand.child)
    return null
  },
  words: ({ id, module, at }, { nameOf }) => [
    plain(
      `${nameOf(id)} moves ${at === null ? 'to the end' : `to place ${at + 1}`} in ${nameOf(module)}`,
    ),
  ],
  writes: ({ module }) => [`order/${module}`],
})
