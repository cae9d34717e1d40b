import type { CheckContext } from '../context.ts'
import { aboutPart, type Verdict } from '../rule.ts'
import { assessmentsThere, untold, type AssessmentThere } from './questionsThere.ts'

/** An assessment that is there, with its questions told. */
export type KnownAssessment = AssessmentThere & {
  there: NonNullable<AssessmentThere['there']>
  fates: NonNullable<AssessmentThere['fates']>
}

/** Verdicts about the assessments for which the template says something of questions: absent, not told, or as judged. */
export function* perAssessment(
  context: CheckContext,
  judge: (assessment: KnownAssessment) => Iterable<Verdict>,
): Generator<Verdict> {
  for (const assessment of assessmentsThere(context)) {
    const { part, there, fates } = assessment
    const subject = aboutPart(part)
    if (!there)
      yield context.itemFor(part)
        ? { subject, outcome: 'inapplicable' }
        : { subject, outcome: 'absent' }
    else if (!fates)
      yield { subject, outcome: 'cannot-tell', reason: untold, itemId: there.item.id }
    else yield* judge({ ...assessment, there, fates })
  }
}
