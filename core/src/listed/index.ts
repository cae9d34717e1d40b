export type { ListedRow, SaidField } from './listedRow.ts'
export { saidFields } from './listedRow.ts'
export * from './partsOfListed.ts'
export * from './readListed.ts'
