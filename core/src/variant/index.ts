export * from './sideBySide.ts'
export * from './variantsOf.ts'
