import { addBlock } from './kinds/add-block.ts'
import { addPart } from './kinds/add-part.ts'
import { moveBlock } from './kinds/move-block.ts'
import { movePart } from './kinds/move-part.ts'
import { removeBlock } from './kinds/remove-block.ts'
import { removePart } from './kinds/remove-part.ts'
import { setBlock } from './kinds/set-block.ts'
import { setField } from './kinds/set-field.ts'

/** Every kind of edit of a draft. A kind is one file, and a line here. */
export const definedEdits = [
  setField,
  addPart,
  removePart,
  movePart,
  setBlock,
  addBlock,
  removeBlock,
  moveBlock,
] as const
