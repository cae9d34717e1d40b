export * from './colour.ts'
export * from './nearestPassing.ts'
