export * from './content.ts'
export * from './fileKinds.ts'
export * from './fileName.ts'
export * from './newWords.ts'
