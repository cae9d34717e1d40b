export * from './foreseeRelease.ts'
export * from './courseImpact.ts'
export * from './sumImpacts.ts'
