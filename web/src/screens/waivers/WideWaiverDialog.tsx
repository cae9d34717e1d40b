import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { WaiverChoices } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { Button, Pick, Problem } from '../../controls/controls.tsx'
import { Dialog } from '../../controls/Dialog.tsx'
import { Lasting } from './Lasting.tsx'

const any = ''
const orNull = (value: string): string | null => (value === any ? null : value)

/** Waives a rule or a part in many courses at once: those of which all that is chosen here is true. */
export const WideWaiverDialog = ({
  choices,
  today,
  onClose,
  onGiven,
}: {
  today: string
  choices: WaiverChoices
  onClose: () => void
  onGiven: (courses: number) => void
}) => {
  const client = useQueryClient()
  const [rule, setRule] = useState(any)
  const [template, setTemplate] = useState(any)
  const [part, setPart] = useState(any)
  const [department, setDepartment] = useState(any)
  const [term, setTerm] = useState(any)
  const [from, setFrom] = useState('')
  const [until, setUntil] = useState('')
  const [carried, setCarried] = useState(false)
  const [reason, setReason] = useState('')
  const give = useMutation({
    mutationFn: () =>
      call('giveWideWaiver', {
        body: {
          rule: orNull(rule),
          template: orNull(template),
          part: orNull(part),
          department: orNull(department),
          term: orNull(term),
          ...(from === '' ? {} : { from }),
          until: until === '' ? null : until,
          carried,
          reason,
        },
      }),
    onSuccess: async ({ courses }) => {
      await client.invalidateQueries()
      onGiven(courses)
    },
  })
  const parts = choices.templates.find(({ key }) => key === template)?.parts ?? []
  return (
    <Dialog
      open
      onClose={onClose}
      title="Waive in many courses"
      explains="It excuses what is chosen in every course of which all of this is true, also in those that come later. What it excuses stays to be seen, and is not counted."
    >
      <form
        className="mt-3 space-y-3"
        onSubmit={(event) => {
          event.preventDefault()
          give.mutate()
        }}
      >
        <Pick
          label="The rule"
          value={rule}
          onChange={(event) => setRule(event.target.value)}
          options={[
            { value: any, text: part === any ? 'choose one' : 'whatever is wrong at the part' },
            ...choices.rules.map(({ id, title }) => ({ value: id, text: title })),
          ]}
        />
        <div className="flex flex-wrap gap-3">
          <Pick
            label="In courses of"
            value={department}
            onChange={(event) => setDepartment(event.target.value)}
            options={[
              { value: any, text: 'every department' },
              ...choices.departments.map((name) => ({ value: name, text: name })),
            ]}
          />
          <Pick
            label="In the term"
            value={term}
            onChange={(event) => setTerm(event.target.value)}
            options={[
              { value: any, text: 'every term' },
              ...choices.terms.map(({ code, title }) => ({ value: code, text: title })),
            ]}
          />
        </div>
        <div className="flex flex-wrap gap-3">
          <Pick
            label="Under the template"
            value={template}
            onChange={(event) => {
              setTemplate(event.target.value)
              setPart(any)
            }}
            options={[
              { value: any, text: 'every template' },
              ...choices.templates.map(({ key, title }) => ({ value: key, text: title })),
            ]}
          />
          {template !== any && (
            <Pick
              label="At the part"
              value={part}
              onChange={(event) => setPart(event.target.value)}
              options={[
                { value: any, text: 'every part' },
                ...parts.map(({ key, name }) => ({ value: key, text: name })),
              ]}
            />
          )}
        </div>
        <Lasting {...{ today, from, setFrom, until, setUntil, carried, setCarried }} />
        <label className="flex flex-col gap-0.5 text-ink-2">
          <span>Why it is right so</span>
          <textarea
            required
            className="h-20 border border-line-strong bg-sheet px-2 py-1 text-ink"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            maxLength={2000}
          />
        </label>
        <Problem error={give.error} />
        <p className="flex gap-3">
          <Button
            shape="main"
            type="submit"
            disabled={give.isPending || reason.trim() === '' || (rule === any && part === any)}
          >
            Give the waiver
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </p>
      </form>
    </Dialog>
  )
}
