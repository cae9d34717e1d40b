import { z } from 'zod'
import { At, Id } from '../fields.ts'
import { defineChange } from '../kind.ts'
import { insert } from '../site.ts'
import { plain } from '../wording.ts'

/** A module moves within what it stands in; into another module it is moved by hand. */
const schema = z.strictObject({ change: z.literal('move-module'), id: Id, at: At })

export const moveModule = defineChange('move-module', schema, {
  apply({ id, at }, site) {
    const stand = site.module(id)
    if (!stand) return site.gone(id)
    stand.list.splice(stand.index, 1)
    insert(stand.list, at, stand.child)
    return null
  },
  words: ({ id, at }, { nameOf }) => [
    plain(`${nameOf(id)} moves ${at === null ? 'to the end' : `to place ${at + 1}`}`),
  ],
  writes: () => ['order/modules'],
})
