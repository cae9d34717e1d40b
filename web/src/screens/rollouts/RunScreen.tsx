import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Link, useNavigate, useParams } from 'react-router'
import type { Me, RunDetail } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../api/client.ts'
import { useRun } from '../../api/queries.ts'
import { Button, Moment, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { RolloutPlan } from './RolloutPlan.tsx'
import { Rehearsals, RolloutResult } from './RolloutResult.tsx'
import {
  progressOf,
  runActions,
  showsPlans,
  speedWords,
  taskOrder,
  taskWords,
  waitsForWords,
} from './runWords.ts'

/** A run from its plans to its end: planned, approved, watched, taken back. */
export const RunScreen = ({ me }: { me: Me }) => {
  const { run = '' } = useParams()
  const query = useRun(Number(run))
  if (query.data) return <Run detail={query.data} mayAct={may(me, 'roll out')} />
  return (
    <Page title="Rollout">
      {query.isPending ? <Waiting what="the run" /> : <Problem error={query.error} />}
    </Page>
  )
}

const useRunActions = (detail: RunDetail) => {
  const client = useQueryClient()
  const navigate = useNavigate()
  const act = useMutation({
    mutationFn: (act: 'approveRun' | 'pauseRun' | 'resumeRun' | 'cancelRun' | 'retryRun') =>
      call(act, { at: { run: detail.id } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['run', detail.id] }),
  })
  const back = useMutation({
    mutationFn: () =>
      call('planRenames', {
        body: {
          names: detail.tasks.flatMap(({ course, state, renames }) =>
            state === 'done'
              ? renames.map(({ what, id, was, name }) => ({
                  course,
                  what,
                  id,
                  was: name,
                  name: was,
                }))
              : [],
          ),
        },
      }),
    onSuccess: ({ run: planned }) => void navigate(`/rollouts/${planned}`),
  })
  return { act, back }
}

const Run = ({ detail, mayAct }: { detail: RunDetail; mayAct: boolean }) => {
  const { act, back } = useRunActions(detail)
  const { state } = detail
  const offered = mayAct ? runActions(detail) : null
  const looksOver = showsPlans(detail)
  return (
    <Page
      title={detail.title}
      above={
        <>
          <Link className="underline" to="/rollouts">
            Rollouts
          </Link>{' '}
          › run {detail.id}
        </>
      }
      beside={
        offered && (
          <>
            {offered.approve && (
              <Button shape="main" onClick={() => act.mutate('approveRun')}>
                Approve and run
              </Button>
            )}
            {offered.drop && <Button onClick={() => act.mutate('cancelRun')}>Drop the plan</Button>}
            {offered.wayBack && (
              <Button disabled={back.isPending} onClick={() => back.mutate()}>
                Plan the way back
              </Button>
            )}
            {offered.pause && <Button onClick={() => act.mutate('pauseRun')}>Pause</Button>}
            {offered.goOn && (
              <Button shape="main" onClick={() => act.mutate('resumeRun')}>
                Go on
              </Button>
            )}
            {offered.leaveOut && (
              <Button onClick={() => act.mutate('cancelRun')}>Leave out the rest</Button>
            )}
            {offered.tryAgain && (
              <Button shape="main" onClick={() => act.mutate('retryRun')}>
                Try {detail.counts.failed} failed again
              </Button>
            )}
          </>
        )
      }
    >
      <p className="text-ink-2">
        {state === 'planning' || state === 'planned' ? 'Planned' : 'Begun'}{' '}
        <Moment at={detail.createdAt} /> by {detail.by}
        {detail.finishedAt && (
          <>
            , ended <Moment at={detail.finishedAt} />
          </>
        )}
        .{' '}
        {state === 'planned'
          ? `Nothing is written until you approve it.${detail.kind === 'renames' ? ' Students will see the new names in their lists and calendars.' : ''}`
          : 'It goes on when this page is closed.'}
      </p>
      <Problem error={act.error ?? back.error} />
      {state !== 'planned' && <RunProgress detail={detail} />}
      {looksOver ? (
        <RolloutPlan detail={detail} may={mayAct} />
      ) : (
        <RolloutResult detail={detail} may={mayAct} />
      )}
      {mayAct && looksOver && state === 'planned' && detail.order?.mode === 'version' && (
        <Rehearsals detail={detail} />
      )}
    </Page>
  )
}

const RunProgress = ({ detail }: { detail: RunDetail }) => {
  const { counts } = detail
  const { all, over } = progressOf(detail)
  const waits = waitsForWords(detail)
  return (
    <div className="mt-4" role="status">
      <progress className="h-2 w-full" max={all} value={over} aria-label="Progress" />
      <p>
        {detail.state === 'planning'
          ? `Reading and planning: ${over} of ${plural(all, 'course')}.`
          : `${over} of ${plural(all, 'course')}: ${taskOrder
              .filter((state) => counts[state] > 0)
              .map((state) => `${counts[state]} ${taskWords[state]}`)
              .join(', ')}.`}{' '}
        {speedWords(detail.perSecond, detail.secondsLeft)}
      </p>
      {waits !== '' && <p className="text-straw">{waits}</p>}
    </div>
  )
}
