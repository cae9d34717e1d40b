import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { RuleUse, TemplateDraft } from '@wickerframe/contract'
import { call } from '../../../api/client.ts'
import { useTemplates } from '../../../api/queries.ts'
import { Button, Field, Pick, Problem, Waiting } from '../../../controls/controls.tsx'
import { Dialog } from '../../../controls/Dialog.tsx'
import { Tick } from '../../../controls/typed.tsx'
import { parametersOf, typedOf, valueOf, type Parameter } from './parameters.ts'

type Policy = TemplateDraft['draft']['policies'][number]
const strengths = [
  { value: 'must', text: 'a must' },
  { value: 'should', text: 'a should' },
  { value: 'may', text: 'for information only' },
  { value: 'off', text: 'not asked at all' },
] as const
type Asked = (typeof strengths)[number]['value']

/** How a template asks for a rule: lowered, raised, switched off or set otherwise, in its draft. What that would change is shown there. */
export const RuleDialog = ({ rule, onClose }: { rule: RuleUse; onClose: () => void }) => {
  const templates = useTemplates()
  const [chosen, setChosen] = useState('')
  const template = chosen === '' ? (templates.data?.[0]?.key ?? '') : chosen
  const draft = useQuery({
    queryKey: ['template', template],
    queryFn: () => call('readDraft', { at: { template } }),
    enabled: template !== '',
  })
  return (
    <Dialog open onClose={onClose} title={rule.title} explains={rule.why}>
      <div className="mt-3 space-y-3">
        <Problem error={templates.error ?? draft.error} />
        <Pick
          label="In the draft of"
          value={template}
          onChange={(event) => setChosen(event.target.value)}
          options={(templates.data ?? []).map(({ key, title }) => ({ value: key, text: title }))}
        />
        {draft.data && !draft.isFetching ? (
          <Setting key={template} rule={rule} draft={draft.data} onClose={onClose} />
        ) : (
          template !== '' && <Waiting what="its draft" />
        )}
      </div>
    </Dialog>
  )
}

const Setting = ({
  rule,
  draft: { key, draft, draftRevision },
  onClose,
}: {
  rule: RuleUse
  draft: TemplateDraft
  onClose: () => void
}) => {
  const client = useQueryClient()
  const navigate = useNavigate()
  const policy = draft.policies.find((one) => one.rule === rule.id)
  const [asked, setAsked] = useState<Asked>(
    policy?.off ? 'off' : (policy?.strength ?? rule.strength),
  )
  const parameters = parametersOf(rule)
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries(
      parameters.map((one) => [
        one.name,
        typedOf(one, policy?.parameters[one.name] ?? one.initial),
      ]),
    ),
  )
  const put = useMutation({
    mutationFn: () => {
      const set = Object.fromEntries(
        parameters.flatMap((one) => {
          const text = typed[one.name] ?? ''
          const value = valueOf(one, text)
          return text === typedOf(one, one.initial) || value === undefined
            ? []
            : [[one.name, value]]
        }),
      )
      const others = Object.entries(policy?.parameters ?? {}).filter(
        ([name]) => !parameters.some((one) => one.name === name),
      )
      const next: Policy = {
        rule: rule.id,
        off: asked === 'off',
        parameters: { ...Object.fromEntries(others), ...set },
        ...(policy?.basis ? { basis: policy.basis } : {}),
        ...(asked === 'off' ? {} : { strength: asked }),
      }
      return call('editDraft', {
        at: { template: key },
        body: {
          revision: draftRevision,
          edits: [
            {
              edit: 'set-field',
              part: null,
              field: ['policies'],
              was: draft.policies,
              value: [...draft.policies.filter((one) => one.rule !== rule.id), next],
            },
          ],
        },
      })
    },
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['template', key] })
      await navigate(`/templates/${key}?release=asked`)
    },
  })
  return (
    <form
      className="space-y-3"
      onSubmit={(event) => {
        event.preventDefault()
        put.mutate()
      }}
    >
      <Pick
        label="It is"
        value={asked}
        onChange={(event) =>
          setAsked(strengths.find(({ value }) => value === event.target.value)?.value ?? 'must')
        }
        options={strengths}
      />
      {asked !== 'off' &&
        parameters.map((one) => (
          <OneParameter
            key={one.name}
            parameter={one}
            typed={typed[one.name] ?? ''}
            onType={(text) => setTyped({ ...typed, [one.name]: text })}
          />
        ))}
      <p className="text-ink-2">
        It changes the draft only. What it would change for courses is shown before it is released.
      </p>
      <Problem error={put.error} />
      <p className="flex gap-3">
        <Button shape="main" type="submit" disabled={put.isPending}>
          Set it, and see what it would change
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </p>
    </form>
  )
}

const OneParameter = ({
  parameter: { kind, about, choices },
  typed,
  onType,
}: {
  parameter: Parameter
  typed: string
  onType: (text: string) => void
}) => {
  switch (kind) {
    case 'flag':
      return (
        <Tick
          label={about}
          checked={typed === 'true'}
          onChange={(checked) => onType(String(checked))}
        />
      )
    case 'choice':
      return (
        <Pick
          label={about}
          value={typed}
          onChange={(event) => onType(event.target.value)}
          options={choices.map((choice) => ({ value: choice, text: choice }))}
        />
      )
    case 'lines':
      return (
        <label className="flex flex-col gap-0.5 text-ink-2">
          <span>{about}, one in a line</span>
          <textarea
            rows={4}
            className="border border-line-strong bg-sheet px-2 py-1 text-ink"
            value={typed}
            onChange={(event) => onType(event.target.value)}
          />
        </label>
      )
    case 'number':
      return (
        <Field
          label={about}
          type="number"
          step="any"
          value={typed}
          onChange={(event) => onType(event.target.value)}
        />
      )
  }
}
