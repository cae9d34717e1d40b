import { z } from 'zod'
/**
 * What people will notice of a plan once it is run.
 *
 * `shortened`: pages somebody wrote in would be emptied, shortened by half, or taken out. Of an earlier course, `not-chosen`:
 * written there, and not chosen to come along; `words-left`: written where the template has its own words, and staying there;
 * `no-place`: nothing in the new one takes the place where it stood; `answers-together`: answers that stood side by side come
 * as one.
 */
export const Consequence = z.strictObject({
  code: z.enum([
    'shortened',
    'new-names',
    'new-dates',
    'student-work',
    'past-last-day',
    'dead-links',
    'dates-in-prose',
    'old-term',
    'dates-to-set',
    'attest-again',
    'left-behind',
    'not-chosen',
    'words-left',
    'no-place',
    'answers-together',
  ]),
  count: z.number(),

  /** The first of them by name. */
  example: z.string(),

  /** All of them, as far as they are listed one by one. */
  all: z.array(z.string()),
})
export type Consequence = z.output<typeof Consequence>
