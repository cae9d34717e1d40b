export * from './roster.ts'
export * from './calendarFile.ts'
export * from './holidays.ts'
export * from './rubricFile.ts'
