export * from './departmentsTold.ts'
export * from './sideBySide.ts'
export * from './variantsOf.ts'
export * from './overlay.ts'
