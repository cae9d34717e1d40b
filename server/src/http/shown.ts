import { HttpProblem } from './problem.ts'

/** What was shown is what is done: refuses an act whose preview was made from something else than what is there now. */
export const mustBeAsShown = (shown: string | null, digest: string): void => {
  if (shown !== null && shown !== digest)
    throw new HttpProblem(
      409,
      'changed',
      'what you were shown is not what would be done now: something it was made from has changed. Look at the new preview, then decide again.',
    )
}
