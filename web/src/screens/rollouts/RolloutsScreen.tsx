import { Link } from 'react-router'
import type { Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { useRollouts } from '../../api/queries.ts'
import { Moment, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { Messages } from '../../shell/Messages.tsx'
import { runWords } from './runWords.ts'

export const RolloutsScreen = ({ me }: { me: Me }) => {
  const rollouts = useRollouts()
  const mayPlan = may(me, 'roll out')
  return (
    <Page
      title="Rollouts"
      beside={
        mayPlan && (
          <>
            <Link
              to="/rollouts/next-term"
              className="rounded-sm border border-line-strong bg-sheet px-3 py-1.5 leading-tight font-semibold"
            >
              Next term
            </Link>
            <Link
              to="/rollouts/new"
              className="rounded-sm border border-tide bg-tide px-3 py-1.5 leading-tight font-semibold text-sheet"
            >
              Plan rollout
            </Link>
          </>
        )
      }
    >
      <Problem error={rollouts.error} />
      {rollouts.isPending && <Waiting what="the rollouts" />}
      {rollouts.data?.length === 0 && (
        <p className="py-10 text-ink-2">
          Nothing was rolled out yet. A rollout brings a released version into the courses you
          choose: you see the plan for each course first.
        </p>
      )}
      <Messages about="run" />
      <ul className="mt-4 divide-y divide-line border-y border-line">
        {rollouts.data?.map((run) => (
          <li key={run.id} className="grid grid-cols-[1fr_16rem_16rem] gap-4 py-2.5">
            <Link
              className="font-semibold underline decoration-line-strong underline-offset-2"
              to={`/rollouts/${run.id}`}
            >
              {run.title}
            </Link>
            <span className={run.counts.failed + run.counts.held > 0 ? 'text-rust' : 'text-ink-2'}>
              {runWords(run)}
            </span>
            <span className="text-ink-2">
              <Moment at={run.createdAt} /> by {run.by}
            </span>
          </li>
        ))}
      </ul>
      {(rollouts.data?.length ?? 0) > 0 && (
        <p className="mt-2 text-ink-3">{plural(rollouts.data?.length ?? 0, 'rollout')}</p>
      )}
    </Page>
  )
}
