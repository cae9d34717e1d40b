import { refusalWords, type Finding, type FindingPlace } from '@wickerframe/core'
import { may } from '@wickerframe/contract/capabilities'
import { Button } from '../../../controls/controls.tsx'
import { mendsOf, type FindingActions } from './actions.ts'
import { OneWord } from './OneWord.tsx'

const leftTo = (finding: Finding): string =>
  finding.places[0]?.refusal
    ? `Wickerframe leaves it to somebody: ${refusalWords(finding.places[0].refusal)}.`
    : finding.mender === 'instructor'
      ? 'The right answer is the instructor’s to give.'
      : ''

const ofTemplate =
  'The course has it from its template: every course just deployed and filled in is told the same, so the designers mend it there.'

/** Why a finding matters, what it rests on, how it is mended, and each of its places with what was seen there. */
export const FindingDetail = ({
  finding,
  actions,
  id,
}: {
  finding: Finding
  actions: FindingActions
  id: string
}) => {
  const mends = mendsOf(finding, actions.me)
  const fresh = new Set(actions.care.since?.fresh)
  return (
    <div id={id} className="col-start-3 col-end-[-1] max-w-[100ch] pb-2">
      <p className="text-ink-2">
        {finding.why}
        {finding.basis ? ` Rests on: ${finding.basis}.` : ''}{' '}
        {finding.ofTemplate ? `${ofTemplate} ` : ''}
        {mends.length > 0 ? 'Wickerframe knows the mend.' : leftTo(finding)} About{' '}
        {finding.effortMinutes} min. <span className="text-ink-3">Rule {finding.rule}.</span>
      </p>
      <ul className="mt-1">
        {finding.places.map((place) => (
          <Place
            key={place.fingerprint}
            finding={finding}
            place={place}
            actions={actions}
            isFresh={fresh.has(place.fingerprint)}
            mendable={mends.includes(place)}
          />
        ))}
      </ul>
    </div>
  )
}

const Place = ({
  finding,
  place,
  actions,
  isFresh,
  mendable,
}: {
  finding: Finding
  place: FindingPlace
  actions: FindingActions
  isFresh: boolean
  mendable: boolean
}) => {
  const { me, onMend, onShowPage, onWaive, pages } = actions
  const { foundId } = place.place
  return (
    <li className="border-t border-line py-1.5">
      <p className="text-ink-2">
        {place.place.path.join(' › ')}
        {isFresh && (
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
        {mendable && (
          <Button shape="word" className="py-0.5!" onClick={() => onMend([place])}>
            Show the mend
          </Button>
        )}
        {foundId !== null && pages.has(foundId) && (
          <Button shape="word" className="py-0.5!" onClick={() => onShowPage(foundId)}>
            Show page
          </Button>
        )}
        {may(me, 'decide for course') && !place.waived && (
          <Button shape="word" className="py-0.5!" onClick={() => onWaive([place])}>
            {may(me, 'decide waivers') ? 'Waive this place' : 'Ask for a waiver of this place'}
          </Button>
        )}
        <OneWord finding={finding} place={place} actions={actions} />
      </p>
    </li>
  )
}
