export * from './analysePage.ts'
export * from './readBlocks.ts'
export * from './renderPage.ts'
export * from './wordDifference.ts'
