import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import {
  everyCourseItem,
  type CheckResult,
  type Course,
  type Facts,
  type Finding,
  type FindingPlace,
  type Template,
} from '@wickerframe/core'
import type { CourseCare, MeInCourse } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../../api/client.ts'
import { Button, Choice, Moment, plural, Problem } from '../../../controls/controls.tsx'
import { useAddress } from '../../../shell/useAddress.ts'
import { Attest, FindingCard, type FindingActions } from './FindingCard.tsx'
import { grouped, groupings, isShared, mineFirst, sorted, type Grouping } from './grouping.ts'
import { MendDialog } from './MendDialog.tsx'
import { WaiverDialog } from './WaiverDialog.tsx'

const byWords: Readonly<Record<Grouping, string>> = {
  move: 'by whose move',
  module: 'by module',
  rule: 'by rule',
}

/** What the check could not tell; somebody's word settles it. */
const Untold = ({
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

/** What is to be mended in a course: by whom, where or by which rule; what is new and what is gone; each with its mend. */
export const WhatToMend = ({
  me,
  courseId,
  course,
  facts,
  template,
  result,
  care,
  only,
  onShowPage,
  onBegun,
}: {
  me: MeInCourse
  courseId: number
  course: Course
  facts: Facts
  template: Template
  result: CheckResult
  care: CourseCare
  /** Findings of one column of the weave, where the reader came from there. */
  only: Finding[] | null
  onShowPage: (itemId: string) => void
  onBegun: (run: number) => void
}) => {
  const { search, set } = useAddress()
  const by = groupings.find((grouping) => grouping === search.get('by')) ?? 'move'
  const strength = search.get('strength')
  const fresh = search.get('new') === '1'
  const people = [...facts.instructors, ...facts.assistants]
  const mine = search.get('mine') === '1'
  const [mending, setMending] = useState<FindingPlace[] | null>(null)
  const [waiving, setWaiving] = useState<FindingPlace | null>(null)
  const { open, waived, information } = sorted(only ? { ...result, findings: only } : result)
  const freshPlaces = new Set(care.since?.fresh)
  const shown = open.filter(
    (finding) =>
      (strength === null || finding.strength === strength) &&
      (!mine || finding.owner === me.email) &&
      (!fresh || finding.places.some((place) => freshPlaces.has(place.fingerprint))),
  )
  const mends = shown.flatMap((finding) =>
    finding.mender === 'administrator' && !may(me, 'mend for administrators')
      ? []
      : finding.places.filter((place) => place.mend && !place.waived),
  )
  const mayAct = may(me, 'look after course')
  const actions: FindingActions = {
    courseId,
    me,
    people,
    asOf: result.asOf,
    care,
    pages: new Set(
      everyCourseItem(course).flatMap(({ item }) => (item.html === null ? [] : [item.id])),
    ),
    onMend: setMending,
    onWaive: setWaiving,
    onShowPage,
  }
  const effort = shown.reduce((sum, finding) => sum + finding.effortMinutes, 0)
  const followed = care.followUps.filter(
    ({ state }) => state === 'raised' || state === 'promised' || state === 'answered',
  )
  return (
    <div className="grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div>
        <div className="flex flex-wrap items-center gap-2">
          {groupings.map((grouping) => (
            <Choice
              key={grouping}
              pressed={by === grouping}
              onClick={() => set({ by: grouping === 'move' ? null : grouping })}
            >
              {byWords[grouping]}
            </Choice>
          ))}
          <span className="mx-1 text-ink-3" aria-hidden>
            ·
          </span>
          <Choice
            pressed={strength === 'must'}
            onClick={() => set({ strength: strength === 'must' ? null : 'must' })}
          >
            only musts
          </Choice>
          {(mine || isShared(open, me.email)) && (
            <Choice pressed={mine} onClick={() => set({ mine: mine ? null : '1' })}>
              only mine
            </Choice>
          )}
          {care.since && care.since.fresh.length > 0 && (
            <Choice pressed={fresh} onClick={() => set({ new: fresh ? null : '1' })}>
              only new ones
            </Choice>
          )}
          <span className="ml-auto text-ink-2">
            {plural(shown.length, 'finding')}, about {effort} min
          </span>
        </div>
        {mayAct && mends.length > 1 && (
          <p className="mt-3 flex flex-wrap items-baseline gap-3 border-l-4 border-tide bg-tide-soft px-3 py-2">
            <span>Wickerframe knows the mend of {mends.length} of these places.</span>
            <Button shape="word" className="py-0!" onClick={() => setMending(mends)}>
              Show all {mends.length} mends
            </Button>
          </p>
        )}
        {shown.length === 0 && (
          <p className="py-6 text-ink-2">
            {open.length === 0
              ? result.counts.cannotTell > 0
                ? `Nothing to mend as far as seen; ${result.counts.cannotTell} could not be told.`
                : 'Nothing to mend: every requirement is met.'
              : 'Nothing to mend under these filters.'}
          </p>
        )}
        {grouped(mineFirst(shown, me.email), by, people).map((group) => (
          <section key={group.title} className="mt-4">
            <h2 className="text-[17px]">
              {group.title}{' '}
              <span className="font-sans text-[13px] font-normal text-ink-2">
                {plural(group.findings.length, 'finding')}
              </span>
            </h2>
            <ul>
              {group.findings.map((finding) => (
                <FindingCard
                  key={finding.rule + finding.fingerprint + finding.message + finding.owner}
                  finding={finding}
                  actions={actions}
                />
              ))}
            </ul>
          </section>
        ))}
        <Untold result={result} courseId={courseId} mayAct={may(me, 'decide for course')} />
      </div>
      <aside>
        <section className="border border-line bg-sheet p-3">
          <h2 className="text-[17px]">Since the check before</h2>
          {care.since ? (
            <>
              <p className="text-ink-2">
                That was <Moment at={care.since.checkedAt} today={me.today} />.
              </p>
              <p>
                {plural(care.since.fresh.length, 'place')} new, {care.since.gone.length} gone.
              </p>
              {care.since.gone.length > 0 && (
                <details>
                  <summary className="cursor-pointer text-tide underline">what is gone</summary>
                  <ul className="mt-1 space-y-1 text-ink-2">
                    {care.since.gone.slice(0, 40).map((message, i) => (
                      <li key={i}>{message}</li>
                    ))}
                  </ul>
                </details>
              )}
            </>
          ) : (
            <p className="text-ink-2">This is the first check of the course.</p>
          )}
        </section>
        {followed.length > 0 && (
          <section className="mt-4 border border-line bg-sheet p-3">
            <h2 className="text-[17px]">Followed up</h2>
            <ul>
              {followed.map((followUp) => (
                <li key={followUp.fingerprint} className="border-t border-line py-1.5">
                  <p>{followUp.message}</p>
                  <p className="text-ink-2">
                    {followUp.state === 'promised'
                      ? `promised for ${followUp.promisedFor} by ${followUp.owner}`
                      : followUp.state === 'answered'
                        ? `${followUp.owner}: ${followUp.answer}`
                        : `raised with ${followUp.owner}`}
                    {followUp.state === 'promised' && (followUp.promisedFor ?? '') < me.today && (
                      <strong> The date has passed.</strong>
                    )}
                  </p>
                </li>
              ))}
            </ul>
          </section>
        )}
        {waived.length > 0 && (
          <section className="mt-4 border border-line bg-sheet p-3">
            <h2 className="text-[17px]">Waived</h2>
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
                          {may(me, 'raise findings') && (
                            <Withdraw courseId={courseId} waiver={place.waived.id} />
                          )}
                        </p>
                      </li>
                    ),
                ),
              )}
            </ul>
          </section>
        )}
        {care.attestations.length > 0 && (
          <section className="mt-4 border border-line bg-sheet p-3">
            <h2 className="text-[17px]">Given word for</h2>
            <ul>
              {care.attestations.map((attestation) => (
                <li key={attestation.id} className="border-t border-line py-1.5">
                  {attestation.words}{' '}
                  <span className="text-ink-2">
                    ({attestation.by}, {attestation.on})
                  </span>
                </li>
              ))}
            </ul>
          </section>
        )}
        {information.length > 0 && (
          <section className="mt-4 border border-line bg-sheet p-3">
            <h2 className="text-[17px]">For information</h2>
            <ul>
              {information.map((finding) => (
                <li
                  key={finding.rule + finding.fingerprint}
                  className="border-t border-line py-1.5"
                >
                  {finding.message}
                </li>
              ))}
            </ul>
          </section>
        )}
      </aside>
      {mending && (
        <MendDialog
          places={mending}
          course={course}
          facts={facts}
          template={template}
          result={result}
          courseId={courseId}
          onClose={() => setMending(null)}
          onBegun={(run) => {
            setMending(null)
            onBegun(run)
          }}
        />
      )}
      {waiving && (
        <WaiverDialog
          courseId={courseId}
          place={waiving}
          mayGive={may(me, 'decide waivers')}
          onClose={() => setWaiving(null)}
        />
      )}
    </div>
  )
}
