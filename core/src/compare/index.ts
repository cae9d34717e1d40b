export { TemplateChange } from './change.ts'
export * from './compareTemplates.ts'
export * from './words.ts'
