export * from './givesAway.ts'
export * from './questionHtml.ts'
export * from './sameQuestion.ts'
