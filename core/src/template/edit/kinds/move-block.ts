import { z } from 'zod'
import { success } from '../../../document/index.ts'
import { Key } from '../../words.ts'
import { defineEdit } from '../kind.ts'
import { gone } from '../problem.ts'
import { At } from '../shared.ts'

const schema = z.strictObject({ edit: z.literal('move-block'), part: Key, block: Key, at: At })

export const moveBlock = defineEdit('move-block', schema, {
  apply({ part, block: key, at }, site) {
    const blocks = site.blocksOf(part) ?? []
    const from = blocks.findIndex((block) => block.key === key)
    const [block] = from < 0 ? [] : blocks.splice(from, 1)
    if (!block) return gone(`a block of ${site.nameOf(part)}`)
    blocks.splice(at, 0, block)
    return success({ edit: 'move-block', part, block: key, at: from })
  },
})
