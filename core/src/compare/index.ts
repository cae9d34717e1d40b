export * from './compareTemplates.ts'
export * from './words.ts'
