import { z } from 'zod'
import { success } from '../../../document/index.ts'
import { Key } from '../../words.ts'
import { defineEdit } from '../kind.ts'
import { gone } from '../problem.ts'

const schema = z.strictObject({ edit: z.literal('remove-block'), part: Key, block: Key })

export const removeBlock = defineEdit('remove-block', schema, {
  apply({ part, block: key }, site) {
    const blocks = site.blocksOf(part) ?? []
    const at = blocks.findIndex((block) => block.key === key)
    const [block] = at < 0 ? [] : blocks.splice(at, 1)
    if (!block) return gone(`a block of ${site.nameOf(part)}`)
    return success({ edit: 'add-block', part, at, block })
  },
})
