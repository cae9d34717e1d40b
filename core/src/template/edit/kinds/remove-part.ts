import { z } from 'zod'
import { success } from '../../../document/index.ts'
import { Key } from '../../words.ts'
import { defineEdit } from '../kind.ts'
import { gone } from '../problem.ts'

const schema = z.strictObject({ edit: z.literal('remove-part'), part: Key })

export const removePart = defineEdit('remove-part', schema, {
  apply({ part: key }, site) {
    const place = site.place(key)
    const [part] = place?.list.splice(place.index, 1) ?? []
    if (!place || !part) return gone('the part')
    return success({ edit: 'add-part', parent: place.parent, at: place.index, part })
  },
})
