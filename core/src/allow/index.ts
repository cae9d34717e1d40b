export * from './drawing.ts'
export * from './letIn.ts'
