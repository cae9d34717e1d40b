export * from './proposals.ts'
export { readModel, type ModelReading, type ReadSlot } from './readModel.ts'
