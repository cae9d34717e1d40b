import type { CheckResult } from '@wickerframe/core'
import { Attest } from './OneWord.tsx'

/** What the check could not tell; somebody's word settles it. */
export const Untold = ({
  result,
  courseId,
  mayAct,
}: {
  result: CheckResult
  courseId: number
  mayAct: boolean
}) => {
  const untold = result.outcomes.filter(
    (outcome) => outcome.outcome === 'cannot-tell' && outcome.attestedBy === undefined,
  )
  if (untold.length === 0) return null
  return (
    <section className="mt-6 border border-line bg-sheet p-3">
      <h2 className="text-[17px]">Could not be told</h2>
      <p className="text-ink-2">The snapshot does not show it. Look, and give your word for it.</p>
      <ul>
        {untold.map((outcome) => (
          <li key={outcome.rule + outcome.fingerprint} className="border-t border-line py-2">
            {outcome.reason}{' '}
            {mayAct && (
              <Attest
                courseId={courseId}
                fingerprint={outcome.fingerprint}
                words="I looked: it is in order"
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
