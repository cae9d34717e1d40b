export * from './givesAway.ts'
export * from './questionHtml.ts'
export * from './sameQuestion.ts'
export * from './readTyped.ts'
