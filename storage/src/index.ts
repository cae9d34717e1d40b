export * from './anyOf.ts'
export * from './connect.ts'
export * from './migrate.ts'
export * from './transaction.ts'
