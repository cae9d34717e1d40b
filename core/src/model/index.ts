export type { ModelProposal } from './proposing.ts'
export { templateFromModel, type ModelTemplate } from './templateFromModel.ts'
export { readModel, type ModelReading, type ReadSlot } from './readModel.ts'
