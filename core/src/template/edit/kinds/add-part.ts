import { z } from 'zod'
import { success } from '../../../document/index.ts'
import { Part } from '../../part.ts'
import { defineEdit } from '../kind.ts'
import { gone } from '../problem.ts'
import { At, Parent } from '../shared.ts'

const schema = z.strictObject({ edit: z.literal('add-part'), parent: Parent, at: At, part: Part })

export const addPart = defineEdit('add-part', schema, {
  apply({ parent, at, part }, site) {
    const list = site.listOf(parent)
    if (!list) return gone('the module it goes into')
    list.splice(at, 0, structuredClone(part))
    return success({ edit: 'remove-part', part: part.key })
  },
})
