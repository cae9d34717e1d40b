export { proofChecks } from './registry.ts'
export type { ProofCheck, Remark, Severity } from './remark.ts'
export * from './proofread.ts'
export * from './refusedIn.ts'
