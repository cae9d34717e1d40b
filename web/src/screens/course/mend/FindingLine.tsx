import { useId, useState } from 'react'
import { changeInBrief, type Finding } from '@wickerframe/core'
import type { FollowUp } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { Button, plural, Problem, Sentence } from '../../../controls/controls.tsx'
import { mendsOf, raisable, type FindingActions } from './actions.ts'
import { FindingDetail } from './FindingDetail.tsx'
import { followedOf, openPlaces } from './followed.ts'
import { nameOf } from './grouping.ts'
import { OneWord } from './OneWord.tsx'
import { useFollowUp } from './useFollowUp.ts'
import { WaiverAnswer } from './WaiverAnswer.tsx'

const says = (
  { state, owner, promisedFor, answer }: FollowUp,
  { people, me: { today } }: FindingActions,
): string => {
  const who = nameOf(owner, people)
  switch (state) {
    case 'raised':
      return `raised with ${who}`
    case 'promised':
      return `${who} promised it for ${promisedFor}${(promisedFor ?? '') < today ? ', which has passed' : ''}`
    case 'answered':
      return `${who}: ${answer}`
    case 'mended':
      return 'mended since it was raised'
    case 'closed':
      return 'raised and closed'
  }
}

/** A finding in one line: how strong, what is seen where, how it is followed up, and at its end what can be done about it. */
export const FindingLine = ({
  finding,
  actions,
  chosen,
  onChoose,
}: {
  finding: Finding
  actions: FindingActions
  /** null where nothing can be done with several at once. */
  chosen: boolean | null
  onChoose: () => void
}) => {
  const id = useId()
  const [opened, setOpened] = useState(false)
  const { care, people } = actions
  const count = finding.places.length
  const followed = followedOf(finding, care.followUps)
  const fresh = new Set(care.since?.fresh)
  const fingerprints = new Set(finding.places.map(({ fingerprint }) => fingerprint))
  const asked = care.waivers.find(
    ({ state, fingerprint }) =>
      state === 'asked' && fingerprint !== null && fingerprints.has(fingerprint),
  )
  return (
    <li
      data-finding={finding.rule}
      className="grid grid-cols-[1.4rem_5.6rem_minmax(0,1fr)_auto] items-baseline gap-x-2 border-b border-line py-px"
    >
      {chosen === null ? (
        <span />
      ) : (
        <input
          type="checkbox"
          className="size-4 translate-y-0.5 accent-tide"
          aria-labelledby={`${id}-says`}
          checked={chosen}
          onChange={onChoose}
        />
      )}
      <span className="whitespace-nowrap text-[13px]">
        <span
          className={`font-semibold ${finding.strength === 'must' ? 'text-rust' : 'text-straw'}`}
        >
          {finding.strength}
        </span>
        {count > 1 && <span className="text-ink-2 tabular-nums"> × {count}</span>}
      </span>
      <div>
        <span id={`${id}-says`}>
          <Sentence text={finding.message} strength={finding.strength} />
        </span>
        {[...fingerprints].some((fingerprint) => fresh.has(fingerprint)) && (
          <span className="ml-2 border border-line-strong px-1 text-[12px]">new</span>
        )}
        {followed && followed.followUp.state !== 'mended' && (
          <span className="ml-2 text-[13px] text-ink-2">
            {says(followed.followUp, actions)}
            {followed.followUp.note && <> — “{followed.followUp.note}”</>}
          </span>
        )}
        {asked && (
          <span className="ml-2 text-[13px] text-ink-2">
            {nameOf(asked.askedBy, people)} asks for a waiver: {asked.reason}{' '}
            <WaiverAnswer courseId={actions.courseId} waiver={asked} me={actions.me} />
          </span>
        )}
      </div>
      <Acts
        finding={finding}
        actions={actions}
        isAsked={asked !== undefined}
        described={`${id}-says`}
        toggle={
          <Button
            shape="word"
            className="py-0.5!"
            aria-expanded={opened}
            aria-controls={`${id}-detail`}
            aria-describedby={`${id}-says`}
            onClick={() => setOpened(!opened)}
          >
            {count > 1 ? plural(count, 'place') : 'why'}
          </Button>
        }
      />
      {opened && <FindingDetail id={`${id}-detail`} finding={finding} actions={actions} />}
    </li>
  )
}

const Acts = ({
  finding,
  actions,
  isAsked,
  described,
  toggle,
}: {
  finding: Finding
  actions: FindingActions
  isAsked: boolean
  described: string
  toggle: React.ReactNode
}) => {
  const { me, courseId, asOf, care, onFillIn, onMend, onReply, onWaive } = actions
  const send = useFollowUp(courseId, asOf)
  const mends = mendsOf(finding, me)
  const toRaise = raisable(finding, actions)
  const pending = followedOf(finding, care.followUps)?.pending ?? []
  const [onlyPlace] = finding.places
  const act = { shape: 'word', className: 'py-0.5!', 'aria-describedby': described } as const
  const [change] = mends[0]?.mend ?? []
  return (
    <div className="flex flex-wrap justify-end gap-x-3 print:hidden">
      {finding.rule === 'fill-in-unfilled' && may(me, 'look after course') && (
        <Button {...act} onClick={() => onFillIn(finding.places[0]?.place.foundId ?? null)}>
          fill in here
        </Button>
      )}
      {change && (
        <Button {...act} onClick={() => onMend(mends)}>
          mend: {changeInBrief(change)}
          {mends.length > 1 && ` × ${mends.length}`}
        </Button>
      )}
      {toRaise.length > 0 && (
        <Button
          {...act}
          disabled={send.isPending}
          onClick={() => send.mutate({ does: 'raise', fingerprints: toRaise, note: '' })}
        >
          raise
        </Button>
      )}
      {pending.length > 0 && may(me, 'look after course') && (
        <>
          {(['promise', 'answer'] as const).map((does) => (
            <Button
              key={does}
              {...act}
              onClick={() => onReply({ does, fingerprints: pending, message: finding.message })}
            >
              {does}
            </Button>
          ))}
          {may(me, 'raise findings') && (
            <Button
              {...act}
              disabled={send.isPending}
              onClick={() => send.mutate({ does: 'close', fingerprints: pending })}
            >
              close
            </Button>
          )}
        </>
      )}
      {may(me, 'decide for course') && !isAsked && (
        <Button {...act} onClick={() => onWaive(openPlaces(finding))}>
          {may(me, 'decide waivers') ? 'waive' : 'ask for a waiver'}
        </Button>
      )}
      {onlyPlace && finding.places.length === 1 && (
        <OneWord finding={finding} place={onlyPlace} actions={actions} />
      )}
      {toggle}
      <Problem error={send.error} />
    </div>
  )
}
