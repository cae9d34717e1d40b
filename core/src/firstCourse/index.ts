export * from './firstCourse.ts'
export * from './firstCourseRemarks.ts'
export * from './firstFindings.ts'
