import { z } from 'zod'
import { failure, success } from '../../../document/index.ts'
import { blockName } from '../../block.ts'
import { Key } from '../../words.ts'
import { fieldNoun } from '../fieldNoun.ts'
import { isRecord, neverSet, same, writeField } from '../fields.ts'
import { defineEdit } from '../kind.ts'
import { gone, notAllowed, type EditProblem } from '../problem.ts'

const schema = z.strictObject({
  edit: z.literal('set-block'),
  part: Key,
  block: Key,
  field: z.string().max(40),
  was: z.unknown(),
  value: z.unknown(),
})

export const setBlock = defineEdit('set-block', schema, {
  apply(edit, site) {
    const found = site.blocksOf(edit.part)?.find((block) => block.key === edit.block)
    const where = `${fieldNoun([edit.field])} of ${found ? blockName(found) : 'a block'} on ${site.nameOf(edit.part)}`
    const block: unknown = found
    if (!isRecord(block)) return gone(where)
    if (neverSet.has(edit.field))
      return notAllowed(where, `/${edit.field}`, edit.field, 'a field of the block that can be set')
    const present = block[edit.field] ?? null
    if (!same(present, edit.was) && !same(present, edit.value))
      return failure<EditProblem>({ code: 'clash', where, present, wanted: edit.value })
    writeField(block, [edit.field], edit.value)
    return success({ ...edit, was: edit.value ?? null, value: present })
  },
})
