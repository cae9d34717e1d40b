export * from './filledIn.ts'
export * from './firstCourse.ts'
export * from './perfectAnswer.ts'
export * from './saidFacts.ts'
