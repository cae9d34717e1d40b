/** Courses, templates and facts for tests of every package, small and complete, and how many cases a property has. */
export { exampleCourse, exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
export { courseItem } from '../rules/example/courseParts.ts'
export { propertyRuns } from './propertyRuns.testing.ts'
export { askAgain, weekPrompt } from './askingExample.testing.ts'
