export * from './remember.ts'
