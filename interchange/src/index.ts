export * from './roster.ts'
