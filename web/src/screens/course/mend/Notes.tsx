import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { grouped, type CheckResult, type Finding } from '@wickerframe/core'
import type { CourseCare, MeInCourse } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../../api/client.ts'
import { Button, Moment, plural, Problem } from '../../../controls/controls.tsx'

const Note = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="mb-4 break-inside-avoid border border-line bg-sheet p-3">
    <h2 className="text-[17px]">{title}</h2>
    {children}
  </section>
)

const Withdraw = ({ courseId, waiver }: { courseId: number; waiver: string }) => {
  const client = useQueryClient()
  const withdraw = useMutation({
    mutationFn: () =>
      call('decideWaiver', { at: { course: courseId, waiver }, body: { decision: 'withdraw' } }),
    onSuccess: () => client.invalidateQueries(),
  })
  return (
    <>
      <Button shape="word" className="py-0!" onClick={() => withdraw.mutate()}>
        withdraw
      </Button>
      <Problem error={withdraw.error} />
    </>
  )
}

/** A waiver that reaches other courses as well is withdrawn where all of them stand. */
const ForMany = ({ me }: { me: MeInCourse }) =>
  may(me, 'see college') ? (
    <Link className="text-tide underline underline-offset-2" to="/conformance/waivers">
      given for many courses
    </Link>
  ) : (
    <>Given for many courses.</>
  )

/** What is not to be mended but known: what changed since the check before, what is waived, answered for, mended since it was raised. */
export const Notes = ({
  courseId,
  me,
  care: { since, followUps, attestations, waivers },
  result,
  waived,
  information,
}: {
  courseId: number
  me: MeInCourse
  care: CourseCare
  result: CheckResult
  waived: readonly Finding[]
  information: readonly Finding[]
}) => {
  const own = new Set(waivers.map(({ id }) => id))
  const mended = followUps.filter(({ state }) => state === 'mended')
  const seenOpen = new Set(
    result.outcomes.flatMap(({ outcome, attestedBy, fingerprint }) =>
      outcome === 'failed' && attestedBy === undefined ? [fingerprint] : [],
    ),
  )
  return (
    <div className="mt-8 gap-4 md:columns-2 lg:columns-3">
      <Note title="Since the check before">
        {since ? (
          <>
            <p className="text-ink-2">
              That was <Moment at={since.checkedAt} today={me.today} />.
            </p>
            <p>
              {plural(since.fresh.length, 'place')} new, {since.gone.length} gone.
            </p>
            {since.gone.length > 0 && (
              <details>
                <summary className="cursor-pointer text-tide underline">what is gone</summary>
                <ul className="mt-1 space-y-1 text-ink-2">
                  {since.gone.slice(0, 40).map((message, i) => (
                    <li key={i}>{message}</li>
                  ))}
                </ul>
              </details>
            )}
          </>
        ) : (
          <p className="text-ink-2">This is the first check of the course.</p>
        )}
      </Note>
      {mended.length > 0 && (
        <Note title="Mended since it was raised">
          <ul>
            {[...new Set(mended.map(({ message }) => message))].map((message) => (
              <li key={message} className="border-t border-line py-1.5 text-ink-2">
                {message}
              </li>
            ))}
          </ul>
        </Note>
      )}
      {waived.length > 0 && (
        <Note title="Waived">
          <ul>
            {waived.map((finding) =>
              finding.places.map(
                (place) =>
                  place.waived && (
                    <li key={place.fingerprint} className="border-t border-line py-1.5">
                      <p>{place.message}</p>
                      <p className="text-ink-2">
                        {place.waived.reason}
                        {place.waived.until && `, until ${place.waived.until}`}
                        {place.waived.changedSince && <strong> Text changed since.</strong>}{' '}
                        {own.has(place.waived.id) ? (
                          may(me, 'raise findings') && (
                            <Withdraw courseId={courseId} waiver={place.waived.id} />
                          )
                        ) : (
                          <ForMany me={me} />
                        )}
                      </p>
                    </li>
                  ),
              ),
            )}
          </ul>
        </Note>
      )}
      {attestations.length > 0 && (
        <Note title="Given word for">
          <ul>
            {[...grouped(attestations, ({ words, by, on }) => `${words} (${by}, ${on})`)].map(
              ([given, of]) => {
                const open = of.filter(({ fingerprint }) => seenOpen.has(fingerprint)).length
                return (
                  <li key={given} className="border-t border-line py-1.5">
                    {given}
                    {of.length > 1 && (
                      <span className="text-ink-2"> · {plural(of.length, 'requirement')}</span>
                    )}
                    {open > 0 && (
                      <strong>
                        {' · '}
                        {open} can be seen now and {open === 1 ? 'is' : 'are'} not met: told above.
                      </strong>
                    )}
                  </li>
                )
              },
            )}
          </ul>
        </Note>
      )}
      {information.length > 0 && (
        <Note title="For information">
          <ul>
            {information.map((finding) => (
              <li key={finding.rule + finding.fingerprint} className="border-t border-line py-1.5">
                {finding.message}
              </li>
            ))}
          </ul>
        </Note>
      )}
    </div>
  )
}
