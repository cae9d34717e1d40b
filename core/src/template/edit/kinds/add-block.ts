import { z } from 'zod'
import { success } from '../../../document/index.ts'
import { Block } from '../../block.ts'
import { Key } from '../../words.ts'
import { defineEdit } from '../kind.ts'
import { gone } from '../problem.ts'
import { At } from '../shared.ts'

const schema = z.strictObject({ edit: z.literal('add-block'), part: Key, at: At, block: Block })

export const addBlock = defineEdit('add-block', schema, {
  apply({ part, at, block }, site) {
    const blocks = site.blocksOf(part)
    if (!blocks) return gone('the page')
    blocks.splice(at, 0, structuredClone(block))
    return success({ edit: 'remove-block', part, block: block.key })
  },
})
