export * from './grouped.ts'
