export * from './designedHtml.ts'
export * from './expandCourse.ts'
export * from './expected.ts'
export { neededBy, openingDayOf } from './neededBy.ts'
export * from './fileForCourse.ts'
export {
  occurrencesOf,
  weekOccurrence,
  type Occurrence,
  type OccurrenceCalendar,
} from './repetitions.ts'
export * from './occurrenceValues.ts'
export * from './knownRepetitions.ts'
export * from './nameContext.ts'
export * from './wantedFields.ts'
