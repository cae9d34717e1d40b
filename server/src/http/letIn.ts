import { refusedIn } from '@wickerframe/core'
import { HttpProblem } from './problem.ts'

/** @throws HttpProblem 400 that names what of a document is not let into a course */
export const mustBeLetIn = (document: unknown): void => {
  const problems = refusedIn(document)
  const [first] = problems
  if (first)
    throw new HttpProblem(
      400,
      'unusable-input',
      `at ${first.path}: found ${first.found}; expected ${first.expected}`,
      { problems: problems.slice(0, 50) },
    )
}
