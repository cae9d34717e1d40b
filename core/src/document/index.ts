export * from './canonical.ts'
export * from './readDocument.ts'
export * from './result.ts'
export * from './jsonSchema.ts'
