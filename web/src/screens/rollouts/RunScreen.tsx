import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Link, useNavigate, useParams } from 'react-router'
import type { Me, TaskState } from '@wickerframe/contract'
import { post } from '../../api/client.ts'
import { useRun } from '../../api/queries.ts'
import { Renames } from './Renames.tsx'
import { Button, Moment, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'

const words: Record<TaskState, string> = { waiting: 'waiting', 'at-work': 'at work', sent: 'sent, waiting for the answer', done: 'done', failed: 'failed', cancelled: 'left out' }
const order: readonly TaskState[] = ['failed', 'sent', 'at-work', 'waiting', 'cancelled', 'done']

const speedWords = (perSecond: number | null, secondsLeft: number | null): string =>
  perSecond === null || secondsLeft === null ? '' : `${perSecond >= 1 ? `${perSecond.toFixed(1)} courses a second` : `${(perSecond * 60).toFixed(0)} courses a minute`}, about ${secondsLeft < 90 ? `${Math.ceil(secondsLeft)} s` : `${Math.ceil(secondsLeft / 60)} min`} left`

export const RunScreen = ({ me }: { me: Me }) => {
  const { run = '' } = useParams()
  const id = Number(run)
  const client = useQueryClient()
  const navigate = useNavigate()
  const query = useRun(id)
  const act = useMutation({ mutationFn: (command: string) => post(`/api/runs/${id}/${command}`), onSuccess: () => client.invalidateQueries({ queryKey: ['run', id] }) })
  const back = useMutation({
    mutationFn: () => post<{ run: number }>('/api/renames', { names: (query.data?.tasks ?? []).flatMap((task) => (task.state === 'done' ? task.renames.map((one) => ({ course: task.course, what: one.what, id: one.id, was: one.name, name: one.was })) : [])) }),
    onSuccess: ({ run: planned }) => void navigate(`/rollouts/${planned}`),
  })
  if (query.isPending) return <Page title="Rollout"><Waiting what="the run" /></Page>
  const detail = query.data
  if (!detail) return <Page title="Rollout"><Problem error={query.error} /></Page>
  const all = detail.tasks.length
  const over = detail.counts.done + detail.counts.failed + detail.counts.cancelled
  const may = me.role === 'designer' || me.role === 'administrator'
  const tasks = detail.tasks.toSorted((a, b) => order.indexOf(a.state) - order.indexOf(b.state))
  return (
    <Page
      title={detail.title}
      above={<><Link className="underline" to="/rollouts">Rollouts</Link> › run {detail.id}</>}
      beside={
        may && (
          <>
            {detail.state === 'planned' && <Button shape="main" onClick={() => act.mutate('approve')}>Approve and run</Button>}
            {detail.state === 'planned' && <Button onClick={() => act.mutate('cancel')}>Drop the plan</Button>}
            {detail.kind === 'renames' && detail.state === 'done' && detail.counts.done > 0 && <Button disabled={back.isPending} onClick={() => back.mutate()}>Plan the way back</Button>}
            {detail.state === 'running' && over < all && <Button onClick={() => act.mutate('pause')}>Pause</Button>}
            {detail.state === 'paused' && <Button shape="main" onClick={() => act.mutate('resume')}>Go on</Button>}
            {(detail.state === 'running' || detail.state === 'paused') && over < all && <Button onClick={() => act.mutate('cancel')}>Leave out the rest</Button>}
            {detail.counts.failed > 0 && <Button shape="main" onClick={() => act.mutate('retry')}>Try {detail.counts.failed} failed again</Button>}
          </>
        )
      }
    >
      <p className="text-ink-2">{detail.state === 'planned' ? 'Planned' : 'Begun'} <Moment at={detail.createdAt} /> by {detail.by}{detail.finishedAt && <>, ended <Moment at={detail.finishedAt} /></>}. {detail.state === 'planned' ? 'Nothing is written until you approve it. Students will see the new names in their lists and calendars.' : 'It goes on when this page is closed.'}</p>
      <Problem error={act.error ?? back.error} />
      <div className="mt-4" role="status">
        <progress className="h-2 w-full" max={all} value={over} aria-label="Progress" />
        <p>
          {over} of {plural(all, 'course')}: {order.filter((state) => detail.counts[state] > 0).map((state) => `${detail.counts[state]} ${words[state]}`).join(', ')}. {speedWords(detail.perSecond, detail.secondsLeft)}
        </p>
      </div>
      <table className="mt-4 w-full border border-line bg-sheet text-left">
        <thead>
          <tr className="border-b border-line-strong bg-band"><th scope="col" className="px-3 py-1">Course</th><th scope="col" className="px-3">State</th><th scope="col" className="px-3">{detail.state === 'planned' ? 'What it would do' : 'What came of it'}</th><th scope="col" className="px-3">Attempts</th></tr>
        </thead>
        <tbody>
          {tasks.map((task) => (
            <tr key={task.id} className="border-b border-line align-top">
              <td className="px-3 py-1"><Link className="underline decoration-line-strong underline-offset-2" to={`/courses/${task.course}`}>{task.code} {task.title}</Link></td>
              <td className={`px-3 ${task.state === 'failed' ? 'font-semibold text-rust' : ''}`}>{words[task.state]}</td>
              <td className="px-3 text-ink-2">{task.renames.length > 0 && <Renames renames={task.renames} open={detail.state === 'planned'} />}{task.message}{task.finishedAt && <> · <Moment at={task.finishedAt} /></>}</td>
              <td className="px-3 text-ink-2">{task.attempts}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Page>
  )
}
