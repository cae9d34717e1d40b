/** What people will notice of a plan once it is run. */
export interface Consequence {
  code:
    | 'new-names'
    | 'new-dates'
    | 'student-work'
    | 'past-last-day'
    | 'dead-links'
    | 'dates-in-prose'
    | 'old-term'
    | 'dates-to-set'
    | 'attest-again'
    | 'left-behind'
  count: number
  /** The first of them by name. */
  example: string
  /** All of them, at most 50. */
  all: string[]
}
