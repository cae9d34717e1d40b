import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { Template } from '@wickerframe/core'
import { templateListOf, type SharedKind, type LibraryPut } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../api/client.ts'
import { useLibrary, useMe } from '../../api/queries.ts'
import { Button, Problem } from '../../controls/controls.tsx'
import { Menu } from '../../controls/menu.tsx'
import { useDraftStore } from './draftStore.ts'

/** Takes something of a kind from the library into the template. */
export const TakeFromLibrary = ({ template, kind }: { template: Template; kind: SharedKind }) => {
  const { edit, mayEdit } = useDraftStore()
  const library = useLibrary()
  const held = new Set(template[templateListOf[kind]].map(({ key }) => key))
  const offered = (library.data ?? []).filter(
    (entry) => entry.kind === kind && !held.has(entry.key),
  )
  if (!mayEdit || offered.length === 0) return null
  const take = (key: string) => {
    const entry = offered.find((entry) => entry.key === key)
    if (entry)
      edit({
        edit: 'set-field',
        part: null,
        field: [templateListOf[kind], entry.key],
        was: null,
        value: entry.document,
      })
  }
  return (
    <Menu
      label="Take from the library"
      className="mt-2"
      groups={[{ items: offered.map((entry) => ({ value: entry.key, text: entry.title })) }]}
      onPick={take}
    />
  )
}

/** Puts a rubric or kept block of the template into the library, for others to take. */
export const PutIntoLibrary = ({ put }: { put: LibraryPut }) => {
  const client = useQueryClient()
  const me = useMe()
  const library = useLibrary()
  const save = useMutation({
    mutationFn: () => call('putIntoLibrary', { body: put }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['library'] }),
  })
  if (!me.data || !may(me.data, 'keep library')) return null
  if (library.data?.some((entry) => entry.kind === put.kind && entry.key === put.document.key))
    return <span className="text-ink-3">in the library</span>
  return (
    <>
      <Button
        shape="word"
        disabled={save.isPending || library.isPending}
        onClick={() => save.mutate()}
      >
        put into the library
      </Button>
      <Problem error={save.error} />
    </>
  )
}
