import { useState } from 'react'
import { Button, Field, Problem } from '../../../controls/controls.tsx'
import { Dialog } from '../../../controls/Dialog.tsx'
import { DateField } from '../../../controls/date/DateField.tsx'
import type { Reply } from './actions.ts'
import { useFollowUp } from './useFollowUp.ts'

/** A promise for a day, or an answer, to whoever raised it. */
export const ReplyDialog = ({
  reply: { does, fingerprints, message },
  courseId,
  asOf,
  today,
  onClose,
}: {
  reply: Reply
  courseId: number
  asOf: string
  today: string
  onClose: () => void
}) => {
  const [words, setWords] = useState('')
  const [date, setDate] = useState('')
  const send = useFollowUp(courseId, asOf)
  const promises = does === 'promise'
  return (
    <Dialog
      open
      onClose={onClose}
      title={promises ? 'Promise it for a date' : 'Answer'}
      explains={message}
    >
      <form
        className="mt-3 space-y-3"
        onSubmit={(event) => {
          event.preventDefault()
          send.mutate(
            promises
              ? { does, fingerprints, by: date, answer: words }
              : { does: 'answer', fingerprints, answer: words },
            { onSuccess: onClose },
          )
        }}
      >
        {promises && (
          <DateField
            label="Mended by"
            required
            notBefore={today}
            near={today}
            value={date}
            onPick={setDate}
          />
        )}
        <Field
          label={promises ? 'A word with it' : 'The answer'}
          required={!promises}
          value={words}
          onChange={(event) => setWords(event.target.value)}
          maxLength={2000}
        />
        <Problem error={send.error} />
        <p className="flex gap-3">
          <Button shape="main" type="submit" disabled={send.isPending}>
            {promises ? 'Promise' : 'Answer'}
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </p>
      </form>
    </Dialog>
  )
}
