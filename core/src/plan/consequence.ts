/** What people will notice of a plan once it is run. */
export interface Consequence {
  code:
    /** Pages somebody wrote in would be emptied, shortened by half, or taken out. */
    | 'shortened'
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
    /** Of an earlier course: written there, and not chosen to come along. */
    | 'not-chosen'
    /** Of an earlier course: written where the template has its own words; they stay there. */
    | 'words-left'
    /** Of an earlier course: nothing in the new one takes the place where it stood. */
    | 'no-place'
    /** Of an earlier course: answers that stood side by side, come as one. */
    | 'answers-together'
  count: number
  /** The first of them by name. */
  example: string
  /** All of them, as far as they are listed one by one. */
  all: string[]
}
