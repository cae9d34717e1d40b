export * from './drawing.ts'
export * from './letIn.ts'
export { styleProperties, styleValue } from './styles.ts'
export * from './frames.ts'
