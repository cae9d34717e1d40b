import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { TemplateComment } from '@wickerframe/contract'
import { call } from '../../../api/client.ts'
import { useComments } from '../../../api/queries.ts'
import { Button, Moment, Pick, Problem } from '../../../controls/controls.tsx'
import { Tick } from '../../../controls/typed.tsx'

/** What reviewers and contributors say of the template and its parts, answered and closed. */
export const CommentsView = ({
  template,
  parts,
  part,
  onOpen,
}: {
  template: string
  parts: readonly { key: string; name: string }[]
  part: string | null
  onOpen: (key: string) => void
}) => {
  const client = useQueryClient()
  const comments = useComments(template)
  const [about, setAbout] = useState(part ?? '')
  const [text, setText] = useState('')
  const [answering, setAnswering] = useState<{ id: number; text: string } | null>(null)
  const [closedToo, setClosedToo] = useState(false)
  const refresh = () =>
    Promise.all([
      client.invalidateQueries({ queryKey: ['comments', template] }),
      client.invalidateQueries({ queryKey: ['template', template] }),
      client.invalidateQueries({ queryKey: ['templates'] }),
    ])
  const write = useMutation({
    mutationFn: (comment: { part: string | null; answersTo: number | null; text: string }) =>
      call('addComment', { at: { template }, body: comment }),
    onSuccess: () => {
      setText('')
      setAnswering(null)
      return refresh()
    },
  })
  const close = useMutation({
    mutationFn: ({ id, closed }: { id: number; closed: boolean }) =>
      call('closeComment', { at: { template, comment: id }, body: { closed } }),
    onSuccess: refresh,
  })
  const nameOf = (key: string | null) =>
    key === null
      ? 'the template as a whole'
      : (parts.find((part) => part.key === key)?.name ?? `${key}, which is not there any more`)
  const all = comments.data ?? []
  const threads = all.filter(
    ({ answersTo, closedAt }) => answersTo === null && (closedToo || closedAt === null),
  )
  const said = (comment: TemplateComment) => (
    <>
      <p className="whitespace-pre-wrap">{comment.text}</p>
      <p className="text-[12.5px] text-ink-3">
        {comment.by}, <Moment at={comment.at} />
      </p>
    </>
  )
  return (
    <div className="mt-3 grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div>
        <div className="flex justify-between">
          <h2 className="text-[18px]">Comments</h2>
          <Tick label="closed ones too" checked={closedToo} onChange={setClosedToo} />
        </div>
        <Problem error={comments.error ?? close.error} />
        {threads.length === 0 && (
          <p className="py-4 text-ink-2">
            No open comment. A standard is agreed by many: say here what you would have otherwise,
            on a part or on the whole.
          </p>
        )}
        <ul className="mt-2 grid gap-3">
          {threads.map((thread) => (
            <li
              key={thread.id}
              className={`border bg-sheet p-3 ${thread.closedAt ? 'border-line text-ink-2' : 'border-line-strong'}`}
            >
              <p className="text-[12.5px] text-ink-2">
                on{' '}
                {thread.part === null ? (
                  nameOf(null)
                ) : (
                  <Button
                    shape="word"
                    className="py-0! text-[12.5px]"
                    onClick={() => onOpen(thread.part ?? '')}
                  >
                    {nameOf(thread.part)}
                  </Button>
                )}
                {thread.closedAt && (
                  <>
                    ; closed by {thread.closedBy}, <Moment at={thread.closedAt} />
                  </>
                )}
              </p>
              {said(thread)}
              <ul className="mt-2 grid gap-2 border-l-2 border-line pl-3">
                {all
                  .filter((answer) => answer.answersTo === thread.id)
                  .map((answer) => (
                    <li key={answer.id}>{said(answer)}</li>
                  ))}
              </ul>
              {answering?.id === thread.id ? (
                <form
                  className="mt-2 grid gap-2"
                  onSubmit={(event) => {
                    event.preventDefault()
                    write.mutate({ part: thread.part, answersTo: thread.id, text: answering.text })
                  }}
                >
                  <textarea
                    autoFocus
                    aria-label="Your answer"
                    rows={2}
                    className="border border-line-strong bg-sheet px-2 py-1"
                    value={answering.text}
                    onChange={(event) => setAnswering({ id: thread.id, text: event.target.value })}
                  />
                  <span className="flex gap-3">
                    <Button
                      type="submit"
                      disabled={answering.text.trim() === '' || write.isPending}
                    >
                      Answer
                    </Button>
                    <Button shape="word" onClick={() => setAnswering(null)}>
                      never mind
                    </Button>
                  </span>
                </form>
              ) : (
                <p className="mt-1 flex gap-4">
                  <Button shape="word" onClick={() => setAnswering({ id: thread.id, text: '' })}>
                    answer
                  </Button>
                  <Button
                    shape="word"
                    onClick={() =>
                      close.mutate({ id: thread.id, closed: thread.closedAt === null })
                    }
                  >
                    {thread.closedAt === null ? 'close' : 'open again'}
                  </Button>
                </p>
              )}
            </li>
          ))}
        </ul>
      </div>
      <form
        className="grid content-start gap-2 bg-sheet p-4"
        onSubmit={(event) => {
          event.preventDefault()
          write.mutate({ part: about || null, answersTo: null, text })
        }}
      >
        <h2 className="text-[18px]">New comment</h2>
        <Pick
          label="On"
          className="[&>select]:w-full"
          value={about}
          onChange={(event) => setAbout(event.target.value)}
          options={[
            { value: '', text: 'the template as a whole' },
            ...parts.map((part) => ({ value: part.key, text: part.name })),
          ]}
        />
        <label className="flex flex-col text-ink-2">
          What you would say
          <textarea
            rows={5}
            maxLength={4000}
            className="border border-line-strong bg-sheet px-2 py-1 text-ink"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <Problem error={write.error} />
        <Button type="submit" disabled={text.trim() === '' || write.isPending}>
          Comment
        </Button>
      </form>
    </div>
  )
}
