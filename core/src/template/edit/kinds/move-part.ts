import { z } from 'zod'
import { success } from '../../../document/index.ts'
import { isModule } from '../../part.ts'
import { Key } from '../../words.ts'
import { defineEdit } from '../kind.ts'
import { gone, notAllowed } from '../problem.ts'
import { At, Parent } from '../shared.ts'
import { holds } from '../site.ts'

const schema = z.strictObject({ edit: z.literal('move-part'), part: Key, parent: Parent, at: At })

export const movePart = defineEdit('move-part', schema, {
  apply({ part: key, parent, at }, site) {
    const from = site.place(key)
    const part = from?.list[from.index]
    if (!from || !part) return gone('the part')
    if (parent !== null && isModule(part) && holds(part, parent))
      return notAllowed(
        site.nameOf(key),
        '/parent',
        parent,
        'a module that does not stand inside the one being moved',
      )
    from.list.splice(from.index, 1)
    const list = site.listOf(parent)
    if (!list) return gone('the module it goes into')
    list.splice(at, 0, part)
    return success({ edit: 'move-part', part: key, parent: from.parent, at: from.index })
  },
})
