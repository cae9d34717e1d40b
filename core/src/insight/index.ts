export * from './byWhen.ts'
export * from './mendFirst.ts'
export * from './weave.ts'
export * from './outlook.ts'
