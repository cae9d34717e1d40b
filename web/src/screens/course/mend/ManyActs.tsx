import type { Finding } from '@wickerframe/core'
import { may } from '@wickerframe/contract/capabilities'
import { Button, plural, Problem } from '../../../controls/controls.tsx'
import { mendsOf, raisable, type FindingActions } from './actions.ts'
import { openPlaces } from './followed.ts'
import { nameOf } from './grouping.ts'
import { useFollowUp } from './useFollowUp.ts'

/** With whom findings would be raised, where that is one person of the course. */
const raisedWith = (findings: readonly Finding[], people: FindingActions['people']): string => {
  const owners = new Set(findings.map(({ owner }) => owner))
  const [owner = null] = owners
  return owners.size === 1 && owner !== null ? ` with ${nameOf(owner, people)}` : ''
}

/** What is done with the chosen findings at once; with none chosen, mending all whose mend is known, and raising the rest. */
export const ManyActs = ({
  chosen,
  shown,
  actions,
  onLetGo,
}: {
  chosen: readonly Finding[]
  shown: readonly Finding[]
  actions: FindingActions
  onLetGo: () => void
}) => {
  const { me, courseId, asOf, people, onMend, onReply, onWaive } = actions
  const send = useFollowUp(courseId, asOf)
  const some = chosen.length > 0
  const about = some ? chosen : shown
  const mendable = about.filter((finding) => mendsOf(finding, me).length > 0)
  const toRaise = about.filter(
    (finding) =>
      raisable(finding, actions).length > 0 &&
      (some || (finding.mender === 'instructor' && mendsOf(finding, me).length === 0)),
  )
  const fingerprints = chosen.flatMap(openPlaces).map(({ fingerprint }) => fingerprint)
  const message = plural(chosen.length, 'finding')
  return (
    <div className="ml-auto flex flex-wrap items-center justify-end gap-2" role="group">
      {some && <span className="font-semibold">{chosen.length} chosen</span>}
      {mendable.length > 0 && (
        <Button
          shape="main"
          className="py-1!"
          onClick={() => onMend(mendable.flatMap((finding) => mendsOf(finding, me)))}
        >
          {some
            ? `Mend ${mendable.length}`
            : mendable.length === 1
              ? 'Mend the one we know'
              : `Mend the ${mendable.length} we know`}
        </Button>
      )}
      {toRaise.length > 0 && (
        <Button
          className="py-1!"
          disabled={send.isPending}
          onClick={() =>
            send.mutate(
              {
                does: 'raise',
                fingerprints: toRaise.flatMap((finding) => raisable(finding, actions)),
                note: '',
              },
              { onSuccess: onLetGo },
            )
          }
        >
          Raise {toRaise.length}
          {raisedWith(toRaise, people)}
        </Button>
      )}
      {some && may(me, 'look after course') && (
        <Button
          className="py-1!"
          onClick={() => onReply({ does: 'promise', fingerprints, message })}
        >
          Promise {chosen.length}
        </Button>
      )}
      {some && may(me, 'decide for course') && (
        <Button className="py-1!" onClick={() => onWaive(chosen.flatMap(openPlaces))}>
          {may(me, 'decide waivers')
            ? `Waive ${chosen.length}`
            : `Ask for waivers of ${chosen.length}`}
        </Button>
      )}
      {some && (
        <Button shape="word" className="py-1!" onClick={onLetGo}>
          let go
        </Button>
      )}
      <Problem error={send.error} />
    </div>
  )
}
