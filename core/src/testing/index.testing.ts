/** Courses, templates and facts for tests of every package, small and complete. */
export {
  emptyCourse,
  exampleCourse,
  exampleFacts,
  exampleTemplate,
} from '../rules/example/exampleCourse.ts'
export { courseItem, courseModule } from '../rules/example/courseParts.ts'
export { gradedTemplate } from '../rules/example/gradedTemplate.ts'
export { propertyRuns } from './propertyRuns.testing.ts'
export { growth } from './growth.testing.ts'
export { processorMilliseconds } from './processorTime.testing.ts'
