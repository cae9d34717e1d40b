export * from './formats.ts'
export * from './report.ts'
export * from './since.ts'
