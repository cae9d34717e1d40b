import { z } from 'zod'
import { Id } from '../fields.ts'
import { defineChange } from '../kind.ts'
import { plain } from '../wording.ts'

const schema = z.strictObject({ change: z.literal('remove-module'), id: Id })

export const removeModule = defineChange('remove-module', schema, {
  apply({ id }, site) {
    const stand = site.module(id)
    if (!stand) return site.gone(id)
    if (stand.child.children.length > 0)
      return {
        code: 'not-empty',
        message: `“${stand.child.name}” still holds something; empty it first`,
      }
    stand.list.splice(stand.index, 1)
    return null
  },
  words: ({ id }, { nameOf }) => [plain(`${nameOf(id)} is removed`)],
  writes: () => ['remove-module'],
})
