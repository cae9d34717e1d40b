import type { Request } from 'express'
import { HttpProblem } from './problem.ts'

/** The digest of the preview an act was decided on, where the request names one (`?shown=`). */
export const shownIn = (request: Request): string | null =>
  typeof request.query['shown'] === 'string' ? request.query['shown'] : null

/** What was shown is what is done: refuses an act whose preview was made from something else than what is there now. */
export const mustBeAsShown = (shown: string | null, digest: string): void => {
  if (shown !== null && shown !== digest)
    throw new HttpProblem(
      409,
      'changed',
      'what you were shown is not what would be done now: something it was made from has changed. Look at the new preview, then decide again.',
    )
}
