export * from './checkCourse.ts'
export * from './outcome.ts'
export * from './silence.ts'
export * from './dispensation.ts'
