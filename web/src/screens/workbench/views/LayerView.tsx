import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { TemplateDraft } from '@wickerframe/contract'
import { call } from '../../../api/client.ts'
import { Button, Pick, plural, Problem } from '../../../controls/controls.tsx'
import { ChangeList } from './ChangeList.tsx'

const noteWords = {
  'key-taken': 'stands above too now, and gives way to that',
  'place-gone': 'has lost its module above, and stands at the top now',
  'answer-overruled': 'is said above now, which holds',
} as const

/** What a layer is built on, and what a newer version of that would bring. */
export const LayerView = ({
  template,
  revision,
  waiting,
  onTaken,
}: {
  template: TemplateDraft
  revision: number
  waiting: boolean
  onTaken: () => void
}) => {
  const client = useQueryClient()
  const { above } = template
  const [version, setVersion] = useState(above?.newest ?? 0)
  const ask = (dry: boolean) =>
    call('takeOver', { at: { template: template.key }, body: { revision, version, dry } })
  const look = useMutation({ mutationFn: () => ask(true) })
  const take = useMutation({
    mutationFn: () => ask(false),
    onSuccess: async () => {
      look.reset()
      await client.invalidateQueries({ queryKey: ['template', template.key] })
      onTaken()
    },
  })
  if (!above) return null
  return (
    <div className="mt-3 bg-sheet p-4">
      <h2 className="text-[18px]">
        Built on {above.title}, version {above.version}
      </h2>
      <p className="text-ink-2">
        What comes from above is marked so in the outline; this layer adds to it, answers fill-ins
        and raises strengths, and weakens nothing.{' '}
        {above.newest > above.version
          ? `Version ${above.newest} has been released since.`
          : 'It is the newest version.'}
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Pick
          inline
          label="Version above"
          value={String(version)}
          onChange={(event) => {
            setVersion(Number(event.target.value))
            look.reset()
          }}
          options={Array.from({ length: above.newest }, (_, i) => ({
            value: String(above.newest - i),
            text: `version ${above.newest - i}${above.newest - i === above.version ? ', built on now' : ''}`,
          }))}
        />
        <Button
          disabled={look.isPending || waiting || version === above.version}
          onClick={() => look.mutate()}
        >
          See what it would bring
        </Button>
        {look.data && template.mayEdit && (
          <Button shape="main" disabled={take.isPending || waiting} onClick={() => take.mutate()}>
            Take version {version} over
          </Button>
        )}
      </div>
      <Problem error={look.error ?? take.error} />
      {take.data && (
        <p role="status" className="mt-2 border-l-4 border-tide bg-tide-soft px-3 py-1">
          Taken over: {plural(take.data.brings.length, 'change')}. The layer kept its own.
        </p>
      )}
      {look.data && (
        <div className="mt-3">
          <p>
            {look.data.brings.length === 0
              ? 'It changes nothing here.'
              : `It would bring ${plural(look.data.brings.length, 'change')}:`}
          </p>
          <ChangeList changes={look.data.brings} />
          {look.data.notes.length > 0 && (
            <>
              <p className="mt-2">Of this layer’s own:</p>
              <ul className="list-disc pl-6">
                {look.data.notes.map((note) => (
                  <li key={`${note.part} ${note.what} ${note.code}`}>
                    {note.part}
                    {note.what ? `, ${note.what},` : ''} {noteWords[note.code]}
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      )}
    </div>
  )
}
