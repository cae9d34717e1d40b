import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import type { FollowUp, FollowUpPut, MeInCourse } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../../api/client.ts'
import { Button, Field, Moment, Problem } from '../../../controls/controls.tsx'

const says = ({ state, owner, promisedFor, answer }: FollowUp): string =>
  state === 'raised'
    ? `Raised with ${owner}`
    : state === 'promised'
      ? `${owner} promised it for ${promisedFor}`
      : state === 'answered'
        ? `${owner} answered: ${answer}`
        : state === 'mended'
          ? 'Mended since it was raised'
          : 'Closed'

/** Where a raised finding stands, and whose move it is. */
export const FollowUpLine = ({
  courseId,
  fingerprints,
  followUp,
  me,
  asOf,
  children,
}: {
  courseId: number
  fingerprints: string[]
  followUp: FollowUp | undefined
  me: MeInCourse
  asOf: string
  children?: ReactNode
}) => {
  const client = useQueryClient()
  const [answering, setAnswering] = useState<'promise' | 'answer' | null>(null)
  const [words, setWords] = useState('')
  const [date, setDate] = useState('')
  const send = useMutation({
    mutationFn: (put: FollowUpPut) =>
      call('followUp', { at: { course: courseId }, query: { asOf }, body: put }),
    onSuccess: async () => {
      setAnswering(null)
      await client.invalidateQueries({ queryKey: ['course', String(courseId)] })
    },
  })
  const looksAfter = may(me, 'raise findings')
  const settled = !followUp || followUp.state === 'mended' || followUp.state === 'closed'
  return (
    <div className="mt-1">
      {followUp && (
        <p className="text-ink-2">
          {says(followUp)}, <Moment at={followUp.raisedAt} />
          {followUp.note && <> — “{followUp.note}”</>}
        </p>
      )}
      <p className="flex flex-wrap gap-x-4">
        {children}
        {looksAfter && settled && (
          <Button
            shape="word"
            className="py-0.5!"
            disabled={send.isPending}
            onClick={() => send.mutate({ does: 'raise', fingerprints, note: '' })}
          >
            Raise it
          </Button>
        )}
        {!settled && may(me, 'look after course') && (
          <>
            <Button shape="word" className="py-0.5!" onClick={() => setAnswering('promise')}>
              Promise it for a date
            </Button>
            <Button shape="word" className="py-0.5!" onClick={() => setAnswering('answer')}>
              Answer
            </Button>
          </>
        )}
        {looksAfter && !settled && (
          <Button
            shape="word"
            className="py-0.5!"
            disabled={send.isPending}
            onClick={() => send.mutate({ does: 'close', fingerprints })}
          >
            Close it
          </Button>
        )}
      </p>
      {answering && (
        <form
          className="mt-1 flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            send.mutate(
              answering === 'promise'
                ? { does: 'promise', fingerprints, by: date, answer: words }
                : { does: 'answer', fingerprints, answer: words },
            )
          }}
        >
          {answering === 'promise' && (
            <Field
              label="Mended by"
              type="date"
              required
              value={date}
              onChange={(event) => setDate(event.target.value)}
            />
          )}
          <Field
            label={answering === 'promise' ? 'A word with it' : 'The answer'}
            required={answering === 'answer'}
            value={words}
            onChange={(event) => setWords(event.target.value)}
            maxLength={2000}
          />
          <Button type="submit" disabled={send.isPending}>
            {answering === 'promise' ? 'Promise' : 'Answer'}
          </Button>
        </form>
      )}
      <Problem error={send.error} />
    </div>
  )
}
