import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { AccountRequest, OpenLink } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { Button, Field, Moment, plural, Problem } from '../../controls/controls.tsx'
import { RolesAndDepartments, type Held } from './RolesAndDepartments.tsx'

const Request = ({
  request,
  departments,
  onAnswered,
}: {
  request: AccountRequest
  departments: readonly string[]
  onAnswered: (link: OpenLink | null) => void
}) => {
  const [held, setHeld] = useState<Held>({ roles: ['instructor'], departments: [] })
  const [why, setWhy] = useState('')
  const answer = useMutation({
    mutationFn: (letIn: boolean) =>
      call('answerAccountRequest', {
        at: { request: request.id },
        body: letIn ? { answer: 'let in', ...held } : { answer: 'refuse', why },
      }),
    onSuccess: ({ link }) => onAnswered(link),
  })
  return (
    <li className="border-t border-line py-3">
      <details>
        <summary className="cursor-pointer">
          <span className="font-semibold">{request.name}</span>, {request.email}, asked{' '}
          <Moment at={request.askedAt} />
        </summary>
        <div className="pl-4">
          {request.words !== '' && (
            <p className="mt-1 max-w-[70ch] whitespace-pre-wrap">{request.words}</p>
          )}
          <Problem error={answer.error} />
          <RolesAndDepartments held={held} departments={departments} onChange={setHeld} />
          <div className="mt-3 flex flex-wrap items-end gap-2">
            <Button
              shape="main"
              disabled={answer.isPending || held.roles.length === 0}
              onClick={() => answer.mutate(true)}
            >
              Let them in
            </Button>
            <Field
              className="ml-6 w-72"
              label="Or the reason why not"
              maxLength={2000}
              value={why}
              onChange={(event) => setWhy(event.target.value)}
            />
            <Button
              disabled={answer.isPending || why.trim() === ''}
              onClick={() => answer.mutate(false)}
            >
              Refuse
            </Button>
          </div>
        </div>
      </details>
    </li>
  )
}

/** Those who asked for an account and wait for an answer; nothing when nobody does. */
export const AccountRequests = ({
  departments,
  onAnswered,
}: {
  departments: readonly string[]
  onAnswered: (link: OpenLink | null) => void
}) => {
  const requests = useQuery({
    queryKey: ['accountRequests'],
    queryFn: () => call('listAccountRequests'),
  })
  if (requests.isError) return <Problem error={requests.error} />
  if (!requests.data || requests.data.length === 0) return null
  return (
    <section className="mt-4 border border-line-strong bg-sheet px-4 pt-3" aria-label="Requests">
      <h2 className="pb-2 text-lg">
        {plural(requests.data.length, 'person asks', 'people ask')} for an account
      </h2>
      <ul className="max-h-96 overflow-y-auto">
        {requests.data.map((request) => (
          <Request
            key={request.id}
            request={request}
            departments={departments}
            onAnswered={onAnswered}
          />
        ))}
      </ul>
    </section>
  )
}
