import { z } from 'zod'
import { ClientId, Id } from '../fields.ts'
import { defineChange } from '../kind.ts'
import { plain } from '../wording.ts'

const schema = z.strictObject({ change: z.literal('duplicate-item'), id: Id, clientId: ClientId })

export const duplicateItem = defineChange('duplicate-item', schema, {
  apply(change, site) {
    const stand = site.item(change.id)
    if (!stand) return site.gone(change.id)
    const id = site.mint(change.clientId, 'item')
    const { recordedAs: _, ...rest } = stand.child
    const questions = stand.child.questions?.map((question) => ({
      ...structuredClone(question),
      id: site.hand.newId('question'),
    }))
    // As is common: a copy lands at the end of the list, under its old name, and nobody has worked in it yet.
    stand.list.push({
      ...rest,
      id,
      url: site.hand.urlOf(id),
      studentWork: false,
      ...(questions ? { questions } : {}),
    })
    return null
  },
  words: ({ id }, { nameOf }) => [plain(`${nameOf(id)} is duplicated`)],
  writes: () => ['duplicate-item'],
})
