import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Link, useNavigate, useParams } from 'react-router'
import type { Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../api/client.ts'
import { useRun } from '../../api/queries.ts'
import { Button, Moment, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { RolloutPlan } from './RolloutPlan.tsx'
import { Rehearsals, RolloutResult } from './RolloutResult.tsx'
import { speedWords, taskOrder, taskWords } from './runWords.ts'

/** A run from its plans to its end: planned, approved, watched, taken back. */
export const RunScreen = ({ me }: { me: Me }) => {
  const { run = '' } = useParams()
  const id = Number(run)
  const client = useQueryClient()
  const navigate = useNavigate()
  const query = useRun(id)
  const act = useMutation({
    mutationFn: (act: 'approveRun' | 'pauseRun' | 'resumeRun' | 'cancelRun' | 'retryRun') =>
      call(act, { at: { run: id } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['run', id] }),
  })
  const back = useMutation({
    mutationFn: () =>
      call('planRenames', {
        body: {
          names: (query.data?.tasks ?? []).flatMap((task) =>
            task.state === 'done'
              ? task.renames.map((rename) => ({
                  course: task.course,
                  what: rename.what,
                  id: rename.id,
                  was: rename.name,
                  name: rename.was,
                }))
              : [],
          ),
        },
      }),
    onSuccess: ({ run: planned }) => void navigate(`/rollouts/${planned}`),
  })
  if (query.isPending)
    return (
      <Page title="Rollout">
        <Waiting what="the run" />
      </Page>
    )
  const detail = query.data
  if (!detail)
    return (
      <Page title="Rollout">
        <Problem error={query.error} />
      </Page>
    )
  const { counts, state } = detail
  const all = Object.values(counts).reduce((sum, count) => sum + count, 0)
  const planning = state === 'planning'
  const plans =
    detail.kind === 'rollout' && detail.order !== null && (planning || state === 'planned')
  const over = planning
    ? all - counts['to-plan'] - counts['at-work']
    : counts.done + counts.failed + counts.cancelled + counts.held
  const mayAct = may(me, 'roll out')
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
        mayAct && (
          <>
            {state === 'planned' && !plans && (
              <Button shape="main" onClick={() => act.mutate('approveRun')}>
                Approve and run
              </Button>
            )}
            {(state === 'planned' || planning) && (
              <Button onClick={() => act.mutate('cancelRun')}>Drop the plan</Button>
            )}
            {detail.kind === 'renames' && state === 'done' && counts.done > 0 && (
              <Button disabled={back.isPending} onClick={() => back.mutate()}>
                Plan the way back
              </Button>
            )}
            {state === 'running' && over < all && (
              <Button onClick={() => act.mutate('pauseRun')}>Pause</Button>
            )}
            {state === 'paused' && (
              <Button shape="main" onClick={() => act.mutate('resumeRun')}>
                Go on
              </Button>
            )}
            {(state === 'running' || state === 'paused') && over < all && (
              <Button onClick={() => act.mutate('cancelRun')}>Leave out the rest</Button>
            )}
            {counts.failed > 0 && !plans && (
              <Button shape="main" onClick={() => act.mutate('retryRun')}>
                Try {counts.failed} failed again
              </Button>
            )}
          </>
        )
      }
    >
      <p className="text-ink-2">
        {state === 'planned' || planning ? 'Planned' : 'Begun'} <Moment at={detail.createdAt} /> by{' '}
        {detail.by}
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
      {state !== 'planned' && (
        <div className="mt-4" role="status">
          <progress className="h-2 w-full" max={all} value={over} aria-label="Progress" />
          <p>
            {planning
              ? `Reading and planning: ${over} of ${plural(all, 'course')}.`
              : `${over} of ${plural(all, 'course')}: ${taskOrder
                  .filter((one) => counts[one] > 0)
                  .map((one) => `${counts[one]} ${taskWords[one]}`)
                  .join(', ')}.`}{' '}
            {speedWords(detail.perSecond, detail.secondsLeft)}
          </p>
        </div>
      )}
      {plans ? (
        <RolloutPlan detail={detail} may={mayAct} />
      ) : (
        <RolloutResult detail={detail} may={mayAct} />
      )}
      {mayAct && state === 'planned' && plans && detail.order?.mode === 'version' && (
        <Rehearsals detail={detail} />
      )}
    </Page>
  )
}
