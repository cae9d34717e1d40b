import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import type { Me, MendFirstAction, RaisedWith } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../api/client.ts'
import { Button, plural, Problem, Sentence } from '../../controls/controls.tsx'
import { CourseName } from '../../controls/CourseName.tsx'

const effort = (minutes: number): string =>
  minutes < 90 ? `about ${minutes} min` : `about ${Math.round(minutes / 60)} h`

/** The few actions that bring the most courses to ready, each with the press that does it. */
export const MendFirst = ({
  actions,
  me,
  acts = true,
}: {
  actions: readonly MendFirstAction[]
  me: Me
  /** Of another day than today there is nothing to press: what is done is done now. */
  acts?: boolean
}) =>
  actions.length === 0 ? (
    <p className="text-ink-2">No open musts.</p>
  ) : (
    <ol className="divide-y divide-line">
      {actions.map((action) => (
        <Action
          key={`${action.rule} ${action.part} ${action.mender}`}
          action={action}
          me={me}
          acts={acts}
        />
      ))}
    </ol>
  )

const Action = ({ action, me, acts }: { action: MendFirstAction; me: Me; acts: boolean }) => (
  <li className="py-2">
    <div className="flex justify-between gap-3">
      <p className="font-semibold">{action.title}</p>
      {action.becomeReady > 0 && (
        <p className="whitespace-nowrap text-[13px] text-tide">
          {plural(action.becomeReady, 'becomes', 'become')} ready
        </p>
      )}
    </div>
    <p className="line-clamp-2">
      <Sentence text={action.example} strength="must" />
    </p>
    <p className="text-ink-3">
      {plural(action.places, 'place')} in {plural(action.count, 'course')} ·{' '}
      {effort(action.effortMinutes)}
    </p>
    {acts && <Acts action={action} me={me} />}
    <details>
      <summary className="cursor-pointer text-tide underline">
        {action.count === 1 ? 'which course' : 'which courses'}
      </summary>
      <ul>
        {action.courses.map((course) => (
          <li key={course.id} className="border-t border-line py-1">
            <CourseName course={course} to="?by=rule&strength=must" apart />
          </li>
        ))}
        {action.count > action.courses.length && (
          <li className="border-t border-line py-1 text-ink-2">
            and {action.count - action.courses.length} more
          </li>
        )}
      </ul>
    </details>
  </li>
)

const cameWords = ({ places, courses, people, nobodys }: RaisedWith): string =>
  [
    places === 0
      ? 'It was raised already, or nothing of it is open any more.'
      : `Raised with ${plural(people, 'person', 'people')} in ${plural(courses, 'course')}.`,
    ...(nobodys > 0 ? [`Nobody teaches ${plural(nobodys, 'course')}.`] : []),
  ].join(' ')

/** What pressing does: a plan of all mends, to be approved, where the mend is known; telling those whose move it is. */
const Acts = ({ action: { rule, part, ...action }, me }: { action: MendFirstAction; me: Me }) => {
  const navigate = useNavigate()
  const client = useQueryClient()
  const plan = useMutation({
    mutationFn: () => call('planMendsOf', { body: { rule, part } }),
    onSuccess: ({ run }) => void navigate(`/rollouts/${run}`),
  })
  const raise = useMutation({
    mutationFn: () => call('raiseEverywhere', { body: { rule, part, note: '' } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['course'] }),
  })
  return (
    <>
      <p className="my-1 flex flex-wrap gap-2">
        {action.byMachine && may(me, 'mend courses') && (
          <Button className="py-1!" disabled={plan.isPending} onClick={() => plan.mutate()}>
            Plan {plural(action.places, 'mend')} in {plural(action.count, 'course')}
          </Button>
        )}
        {!action.byMachine && action.people > 0 && may(me, 'raise findings') && (
          <Button
            className="py-1!"
            disabled={raise.isPending || raise.isSuccess}
            onClick={() => raise.mutate()}
          >
            Raise it with {plural(action.people, 'person', 'people')}
          </Button>
        )}
      </p>
      {raise.data && <p role="status">{cameWords(raise.data)}</p>}
      <Problem error={plan.error ?? raise.error} />
    </>
  )
}
