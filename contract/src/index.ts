export * from './api.ts'
export * from './connector.ts'
export * from './openApi.ts'
export * from './rollouts.ts'
