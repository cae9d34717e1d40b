import type { AnyRule, Subject, Verdict } from '../rules/index.ts'
import type { Outcome } from './outcome.ts'

/** A requirement that is not simply met, with what its rule says of it. */
export interface OpenRequirement {
  rule: AnyRule
  outcome: Outcome
  /** What the verdict says of which requirement. Verdicts are of many shapes, and this is asked of all of them again and again. */
  said: Verdict['outcome']
  subject: Subject
  discriminator: string | undefined
  verdict: Exclude<Verdict, { outcome: 'passed' | 'inapplicable' }>
}

/** What a subject is known by inside one check. */
export const subjectKey = (subject: Subject): string =>
  subject.about === 'part'
    ? subject.part.instance
    : subject.about === 'found'
      ? `found:${subject.id}`
      : 'course'
