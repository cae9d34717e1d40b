export * from './context.ts'
export * from './message.ts'
export * from './registry.ts'
export * from './rule.ts'
