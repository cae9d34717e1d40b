export * from './emptyTemplate.ts'
export * from './sentences.ts'
