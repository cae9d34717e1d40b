export * from './takeOver.ts'
export * from './weakenings.ts'
