import { useMutation, useQueryClient } from '@tanstack/react-query'
import { refusalWords, type Finding, type FindingPlace } from '@wickerframe/core'
import type { CourseCare, MeInCourse } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../../api/client.ts'
import { Button, plural, Problem, Sentence } from '../../../controls/controls.tsx'
import { FollowUpLine } from './FollowUpLine.tsx'
import { whoseMove } from './grouping.ts'

export interface FindingActions {
  courseId: number
  me: MeInCourse
  people: readonly { name: string; email: string }[]
  asOf: string
  care: CourseCare
  /** Ids of items that have a page. */
  pages: ReadonlySet<string>
  onMend: (places: FindingPlace[]) => void
  onWaive: (place: FindingPlace) => void
  onShowPage: (itemId: string) => void
}

const attested = 'tool-not-attested'

/** A part that may go is left out on purpose; one word of the instructor's says so. */
const NotThisWeek = ({ courseId, instance }: { courseId: number; instance: string }) => {
  const client = useQueryClient()
  const say = useMutation({
    mutationFn: () =>
      call('notThisWeek', { at: { course: courseId }, body: { instance, leftOut: true } }),
    onSuccess: () => client.invalidateQueries(),
  })
  return (
    <>
      <Button
        shape="word"
        className="py-0.5!"
        disabled={say.isPending}
        onClick={() => say.mutate()}
      >
        Not this week
      </Button>
      <Problem error={say.error} />
    </>
  )
}

export const Attest = ({
  courseId,
  fingerprint,
  words,
}: {
  courseId: number
  fingerprint: string
  words: string
}) => {
  const client = useQueryClient()
  const say = useMutation({
    mutationFn: () => call('attest', { at: { course: courseId }, body: { fingerprint, words } }),
    onSuccess: () => client.invalidateQueries(),
  })
  return (
    <>
      <Button
        shape="word"
        className="py-0.5!"
        disabled={say.isPending}
        onClick={() => say.mutate()}
      >
        {words}
      </Button>
      <Problem error={say.error} />
    </>
  )
}

const Place = ({
  finding,
  place,
  actions,
  fresh,
  mends,
}: {
  finding: Finding
  place: FindingPlace
  actions: FindingActions
  fresh: boolean
  mends: readonly FindingPlace[]
}) => {
  const mayAct = may(actions.me, 'look after course')
  const mayDecide = may(actions.me, 'decide for course')
  const missing = finding.rule === 'item-missing' && place.says === 'unsaid'
  return (
    <li className="border-t border-line py-1.5">
      <p className="text-ink-2">
        {place.place.path.join(' › ')}
        {fresh && (
          <span className="ml-2 border border-line-strong px-1 text-[12px] text-ink">
            new since the check before
          </span>
        )}
      </p>
      {place.waived && (
        <p>
          Waived{place.waived.until && ` until ${place.waived.until}`}: {place.waived.reason}
          {place.waived.changedSince && <strong> What is seen has changed since.</strong>}
        </p>
      )}
      <p>
        Seen:{' '}
        {place.evidence.map((seen, i) => (
          <mark
            key={i}
            className={`mr-1 px-0.5 text-ink ${finding.strength === 'must' ? 'bg-rust-soft' : 'bg-straw-soft'}`}
          >
            {seen.text}
          </mark>
        ))}
      </p>
      <p className="text-ink-2">Expected: {place.expected}</p>
      <p className="flex flex-wrap gap-x-4">
        {mayAct && mends.includes(place) && (
          <Button shape="word" className="py-0.5!" onClick={() => actions.onMend([place])}>
            Show the mend
          </Button>
        )}
        {place.place.foundId !== null && actions.pages.has(place.place.foundId) && (
          <Button
            shape="word"
            className="py-0.5!"
            onClick={() => actions.onShowPage(place.place.foundId ?? '')}
          >
            Show page
          </Button>
        )}
        {mayDecide && !place.waived && (
          <Button shape="word" className="py-0.5!" onClick={() => actions.onWaive(place)}>
            {may(actions.me, 'decide waivers') ? 'Waive' : 'Ask for a waiver'}
          </Button>
        )}
        {mayDecide && missing && place.place.instance && (
          <NotThisWeek courseId={actions.courseId} instance={place.place.instance} />
        )}
        {mayDecide && finding.rule === attested && (
          <Attest
            courseId={actions.courseId}
            fingerprint={place.fingerprint}
            words="It is set up for this term"
          />
        )}
      </p>
    </li>
  )
}

/** A finding as a sentence with its evidence; it opens into why it matters, what it rests on, how to mend it, and its places. */
export const FindingCard = ({
  finding,
  actions,
  openFirst = false,
}: {
  finding: Finding
  actions: FindingActions
  openFirst?: boolean
}) => {
  // What is an administrator’s to mend, an instructor cannot.
  const mayMend = finding.mender !== 'administrator' || may(actions.me, 'mend for administrators')
  const mends = mayMend ? finding.places.filter((place) => place.mend && !place.waived) : []
  const fingerprints = finding.places.map((place) => place.fingerprint)
  const followUp = actions.care.followUps.find(({ fingerprint }) =>
    fingerprints.includes(fingerprint),
  )
  const fresh = new Set(actions.care.since?.fresh)
  const mayAct = may(actions.me, 'look after course')
  const asked = actions.care.waivers.find(
    (waiver) =>
      waiver.state === 'asked' &&
      waiver.fingerprint !== null &&
      fingerprints.includes(waiver.fingerprint),
  )
  const followed =
    (followUp !== undefined || may(actions.me, 'raise findings')) && finding.strength !== 'may'
  const showMend = mayAct && mends.length > 0 && (
    <Button shape="word" className="py-0.5!" onClick={() => actions.onMend(mends)}>
      {mends.length === 1 ? 'Show the mend' : `Show the mend in ${mends.length} places`}
    </Button>
  )
  return (
    <li className="border-t border-line py-3">
      <p
        className={`text-[12.5px] font-semibold ${finding.strength === 'must' ? 'text-rust' : finding.strength === 'should' ? 'text-straw' : 'text-ink-2'}`}
      >
        {finding.strength === 'may' ? 'For information' : `Open ${finding.strength}`} ·{' '}
        {whoseMove(finding, actions.people)} · about {finding.effortMinutes} min
        {fingerprints.some((fingerprint) => fresh.has(fingerprint)) && ' · new'}
      </p>
      <p>
        <Sentence text={finding.message} strength={finding.strength} />
      </p>
      {asked && (
        <p className="text-ink-2">
          A waiver is asked for: {asked.reason}{' '}
          <WaiverAnswer courseId={actions.courseId} waiver={asked.id} me={actions.me} />
        </p>
      )}
      {!followed && <p className="mt-1">{showMend}</p>}
      {followed && (
        <FollowUpLine
          courseId={actions.courseId}
          fingerprints={followUp ? [followUp.fingerprint] : fingerprints.slice(0, 1)}
          followUp={followUp}
          me={actions.me}
          asOf={actions.asOf}
        >
          {showMend}
        </FollowUpLine>
      )}
      <details className="mt-1" open={openFirst}>
        <summary className="cursor-pointer text-tide underline">
          why, and {plural(finding.places.length, 'place')}
        </summary>
        <p className="py-1 text-ink-2">
          {finding.why}
          {finding.basis ? ` Rests on: ${finding.basis}.` : ''}{' '}
          {mends.length > 0
            ? 'Wickerframe knows the mend.'
            : finding.places[0]?.refusal
              ? `Wickerframe leaves it to somebody: ${refusalWords(finding.places[0].refusal)}.`
              : finding.mender === 'instructor'
                ? 'The right answer is the instructor’s to give.'
                : ''}{' '}
          <span className="text-ink-3">Rule {finding.rule}.</span>
        </p>
        <ul>
          {finding.places.map((place) => (
            <Place
              key={place.fingerprint}
              finding={finding}
              place={place}
              actions={actions}
              fresh={fresh.has(place.fingerprint)}
              mends={mends}
            />
          ))}
        </ul>
      </details>
    </li>
  )
}

const WaiverAnswer = ({
  courseId,
  waiver,
  me,
}: {
  courseId: number
  waiver: string
  me: MeInCourse
}) => {
  const client = useQueryClient()
  const decide = useMutation({
    mutationFn: (decision: 'approve' | 'refuse' | 'withdraw') =>
      call('decideWaiver', { at: { course: courseId, waiver }, body: { decision } }),
    onSuccess: () => client.invalidateQueries(),
  })
  if (!may(me, 'decide for course')) return null
  return (
    <>
      {may(me, 'decide waivers') && (
        <>
          <Button shape="word" className="mr-3 py-0!" onClick={() => decide.mutate('approve')}>
            Approve
          </Button>
          <Button shape="word" className="mr-3 py-0!" onClick={() => decide.mutate('refuse')}>
            Refuse
          </Button>
        </>
      )}
      <Button shape="word" className="py-0!" onClick={() => decide.mutate('withdraw')}>
        Withdraw
      </Button>
      <Problem error={decide.error} />
    </>
  )
}
