export * from './fillDocument.ts'
export * from './readHandout.ts'
