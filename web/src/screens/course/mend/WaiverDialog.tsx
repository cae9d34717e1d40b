import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { FindingPlace } from '@wickerframe/core'
import { call } from '../../../api/client.ts'
import { Button, Pick, plural, Problem } from '../../../controls/controls.tsx'
import { Dialog } from '../../../controls/Dialog.tsx'
import { Lasting } from '../../waivers/Lasting.tsx'

const scopes = [
  { value: 'place', text: 'whatever is wrong there' },
  { value: 'evidence', text: 'only what is seen now; if it changes, look again' },
  { value: 'part', text: 'this rule at this part, in every week' },
  { value: 'rule', text: 'the rule in the whole course' },
] as const
type Scope = (typeof scopes)[number]['value']

/** Reasoned, dated exceptions, one for each place: given by a designer, asked for by an instructor. */
export const WaiverDialog = ({
  courseId,
  today,
  places,
  mayGive,
  onClose,
}: {
  today: string
  courseId: number
  places: readonly FindingPlace[]
  mayGive: boolean
  onClose: () => void
}) => {
  const client = useQueryClient()
  const [reason, setReason] = useState('')
  const [scope, setScope] = useState<Scope>('place')
  const [from, setFrom] = useState('')
  const [until, setUntil] = useState('')
  const [carried, setCarried] = useState(false)
  const give = useMutation({
    mutationFn: () =>
      call('askWaiver', {
        at: { course: courseId },
        body: {
          fingerprints: places.map(({ fingerprint }) => fingerprint),
          scope,
          ...(from === '' ? {} : { from }),
          until: until === '' ? null : until,
          carried,
          reason,
        },
      }),
    onSuccess: async () => {
      await client.invalidateQueries()
      onClose()
    },
  })
  const what = places.length === 1 ? 'this' : plural(places.length, 'place')
  const messages = [...new Set(places.map(({ message }) => message))]
  return (
    <Dialog
      open
      onClose={onClose}
      title={mayGive ? `Waive ${what}` : `Ask for a waiver of ${what}`}
      explains={messages.slice(0, 6).join(' ') + (messages.length > 6 ? ' …' : '')}
    >
      <form
        className="mt-3 space-y-3"
        onSubmit={(event) => {
          event.preventDefault()
          give.mutate()
        }}
      >
        <label className="flex flex-col gap-0.5 text-ink-2">
          <span>Why it is right as it is</span>
          <textarea
            required
            className="h-24 border border-line-strong bg-sheet px-2 py-1 text-ink"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            maxLength={2000}
          />
        </label>
        <Pick
          label="It excuses"
          options={scopes}
          value={scope}
          onChange={(event) =>
            setScope(scopes.find(({ value }) => value === event.target.value)?.value ?? 'place')
          }
        />
        <Lasting {...{ today, from, setFrom, until, setUntil, carried, setCarried }} />
        <Problem error={give.error} />
        <p className="flex gap-3">
          <Button shape="main" type="submit" disabled={give.isPending || reason.trim() === ''}>
            {mayGive
              ? places.length === 1
                ? 'Give the waiver'
                : 'Give the waivers'
              : 'Ask for it'}
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </p>
      </form>
    </Dialog>
  )
}
