import { grouped, ruleById, type CheckResult } from '@wickerframe/core'
import { plural } from '../../../controls/controls.tsx'
import { Attest } from './OneWord.tsx'

/** What the check could not tell; somebody's word settles it, at once for all that one thing keeps from being told. */
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
        {[...grouped(untold, ({ reason }) => reason ?? '')].map(([reason, of]) => (
          <li key={reason} className="border-t border-line py-2">
            {reason}{' '}
            {mayAct && (
              <Attest
                courseId={courseId}
                fingerprints={of.map(({ fingerprint }) => fingerprint)}
                words="I looked: it is in order"
              />
            )}
            {of.length > 1 && (
              <details className="text-ink-2">
                <summary className="cursor-pointer">{plural(of.length, 'requirement')}</summary>
                <ul className="pl-4">
                  {[...grouped(of, ({ rule }) => rule)].map(([rule, list]) => (
                    <li key={rule}>
                      {ruleById(rule)?.title ?? rule}
                      {list.length > 1 && ` (${list.length} times)`}
                    </li>
                  ))}
                </ul>
              </details>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
