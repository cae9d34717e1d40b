import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import { placeOfMessage } from '@wickerframe/contract/messagePlace'
import { call } from '../api/client.ts'
import { useMessages } from '../api/queries.ts'
import { Button, Moment, plural } from '../controls/controls.tsx'

/** Messages that were not put away, newest first: about rollouts that ended, templates one looks after, or courses one was given. */
export const Messages = ({ about }: { about: 'run' | 'template' | 'course' }) => {
  const client = useQueryClient()
  const messages = useMessages()
  const read = useMutation({
    mutationFn: (id: number) => call('markMessageRead', { at: { message: id } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['messages'] }),
  })
  const unread = messages.data?.filter((message) => !message.read && message[about] !== null) ?? []
  if (unread.length === 0) return null
  return (
    <section className="mt-4 border border-line bg-sheet px-4 py-2">
      <h2 className="text-[16px]">{plural(unread.length, 'message')} for you</h2>
      <ul className="divide-y divide-line">
        {unread.slice(0, 5).map((message) => (
          <li key={message.id} className="flex flex-wrap items-baseline gap-x-3 py-1">
            <Link
              className="font-semibold underline decoration-line-strong underline-offset-2"
              to={placeOfMessage(message)}
            >
              {message.subject}
            </Link>
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
