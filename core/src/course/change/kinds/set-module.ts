import { z } from 'zod'
import { Id, ModuleFields } from '../fields.ts'
import { fieldWords } from '../fieldWords.ts'
import { defineChange } from '../kind.ts'

const schema = z.strictObject({ change: z.literal('set-module'), id: Id, fields: ModuleFields })

export const setModule = defineChange('set-module', schema, {
  apply({ id, fields }, site) {
    const module = site.module(id)
    if (!module) return site.gone(id)
    Object.assign(module.child, fields)
    return null
  },
  words: ({ id, fields }, wording) => fieldWords(id, fields, wording),
  writes: ({ id, fields }) => Object.keys(fields).map((field) => `${id}/${field}`),
})
