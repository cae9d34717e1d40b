export * from './mendFirst.ts'
export * from './weave.ts'
