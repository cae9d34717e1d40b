import { z } from 'zod'
import { At, ClientId, Id, ModuleFields } from '../fields.ts'
import { defineChange } from '../kind.ts'
import { insert } from '../site.ts'
import { plain } from '../wording.ts'

const schema = z.strictObject({
  change: z.literal('create-module'),
  clientId: ClientId,
  parent: Id.nullable(),
  at: At,
  fields: ModuleFields.required({ name: true }),
})

export const createModule = defineChange('create-module', schema, {
  apply({ clientId, parent, at, fields }, site) {
    const list = site.listOf('module', parent)
    if (!list) return site.gone(parent ?? '')
    const id = site.mint(clientId, 'module')
    insert(list, at, {
      id,
      kind: 'module',
      name: fields.name,
      published: fields.published ?? true,
      staffOnly: fields.staffOnly ?? false,
      opensAt: fields.opensAt ?? null,
      url: site.hand.urlOf(id),
      ...(fields.carried ? { carried: fields.carried } : {}),
      children: [],
    })
    return null
  },
  words: ({ fields }) => [plain(`The module “${fields.name}” is made`)],
  writes: ({ parent }) => [`order/${parent ?? 'modules'}`],
})
