import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import type { Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../api/client.ts'
import { useMessages, useRollouts } from '../../api/queries.ts'
import { Button, Moment, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { runWords } from './runWords.ts'

/** Messages about rollouts that ended, newest first. */
const Messages = () => {
  const client = useQueryClient()
  const messages = useMessages()
  const read = useMutation({
    mutationFn: (id: number) => call('markMessageRead', { at: { message: id } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['messages'] }),
  })
  const unread = messages.data?.filter(({ read }) => !read) ?? []
  if (unread.length === 0) return null
  return (
    <section className="mt-4 border border-line bg-sheet px-4 py-2">
      <h2 className="text-[16px]">{plural(unread.length, 'message')} for you</h2>
      <ul className="divide-y divide-line">
        {unread.slice(0, 5).map((message) => (
          <li key={message.id} className="flex flex-wrap items-baseline gap-x-3 py-1">
            {message.run === null ? (
              <span>{message.subject}</span>
            ) : (
              <Link
                className="font-semibold underline decoration-line-strong underline-offset-2"
                to={`/rollouts/${message.run}`}
              >
                {message.subject}
              </Link>
            )}
            <span className="text-ink-2">{message.body}</span>{' '}
            <span className="text-ink-3">
              <Moment at={message.at} />
            </span>
            <Button
              shape="word"
              className="ml-auto py-0!"
              onClick={() => read.mutate(message.id)}
              aria-label={`Put away: ${message.subject}`}
            >
              put away
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}

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
      <Messages />
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
