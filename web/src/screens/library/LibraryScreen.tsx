import { useMutation } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import type { Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../api/client.ts'
import { useLibrary } from '../../api/queries.ts'
import { Choice, Field, Page, Problem, Waiting } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { EntryList } from './EntryList.tsx'
import { EntryPane } from './EntryPane.tsx'
import { foundAmong, heldBy, kinds, type ShownKind } from './libraryKinds.ts'
import { NewEntry } from './NewEntry.tsx'
import { NewFiles } from './NewFiles.tsx'
import { NewImages } from './NewImages.tsx'
import { ImageSets } from './sets/ImageSets.tsx'
import { inSet, setsOf } from './sets/setsOf.ts'

/** House texts, images, rubrics and blocks of the college: a list to find them in, and the one that is read beside it. */
export const LibraryScreen = ({ me }: { me: Me }) => {
  const library = useLibrary()
  const { search, set } = useAddress()
  const kind: ShownKind = kinds.find(([id]) => id === search.get('kind'))?.[0] ?? 'house-text'
  const sought = search.get('find') ?? ''
  const mayEdit = may(me, 'keep library')
  const all = library.data ?? []
  const entries = all.filter((entry) => entry.kind === kind)
  const sets = setsOf(all)
  const chosenSet = kind === 'image' ? search.get('set') : null
  const found = foundAmong(entries.filter(inSet(sets, chosenSet)), sought)
  const images = entries.flatMap((entry) => {
    const of = heldBy(entry)
    return of.kind === 'image' ? [of.held] : []
  })
  const open = found.find(({ key }) => key === search.get('open')) ?? found[0]
  const shown = (key: string) => set({ open: key, find: null })
  const showSet = (key: string | null) => set({ set: key, open: null, find: null })
  const navigate = useNavigate()
  const rollOut = useMutation({
    mutationFn: (houseText: string) =>
      call('planRollout', { body: { order: { mode: 'house-text', houseText } } }),
    onSuccess: ({ run }) => void navigate(`/rollouts/${run}`),
  })
  return (
    <Page title="Library">
      <div className="mt-2 flex flex-wrap gap-2" role="group" aria-label="Show">
        {kinds.map(([id, text]) => (
          <Choice
            key={id}
            pressed={kind === id}
            onClick={() => set({ kind: id, open: null, find: null, set: null })}
          >
            {text} ({all.filter((entry) => entry.kind === id).length})
          </Choice>
        ))}
      </div>
      <p className="mt-2 text-ink-2">{kinds.find(([id]) => id === kind)?.[2]}</p>
      <Problem error={library.error ?? rollOut.error} />
      {library.isPending && <Waiting what="the library" />}
      {kind === 'image' && library.data && (
        <ImageSets
          sets={sets}
          images={images}
          chosen={chosenSet}
          mayEdit={mayEdit}
          onChoose={showSet}
        />
      )}
      <div className="mt-3 grid items-start gap-6 lg:grid-cols-[minmax(0,26rem)_minmax(0,1fr)]">
        <div>
          <Field
            label="Find"
            type="search"
            className="mb-2"
            value={sought}
            onChange={(event) => set({ find: event.target.value || null })}
          />
          <EntryList
            entries={found}
            open={open?.key ?? null}
            onOpen={(key) => set({ open: key })}
          />
          {library.data && found.length === 0 && (
            <p className="py-6 text-ink-2">
              {entries.length === 0
                ? 'Nothing of this kind yet.'
                : sought === ''
                  ? 'Nothing is in it yet.'
                  : `None of ${entries.length} holds “${sought}”.`}
            </p>
          )}
        </div>
        {open && (
          <EntryPane
            key={`${open.kind} ${open.key}`}
            entry={open}
            sets={sets}
            today={me.today}
            mayEdit={mayEdit}
            isPlanning={rollOut.isPending}
            onRollOut={() => rollOut.mutate(open.key)}
          />
        )}
      </div>
      {mayEdit && (
        <section className="mt-6">
          <h2 className="text-[18px]">Put something in</h2>
          {kind === 'image' ? (
            <NewImages held={images} sets={sets} into={chosenSet} onSaved={shown} />
          ) : kind === 'file' ? (
            <NewFiles
              held={entries.flatMap((entry) => {
                const of = heldBy(entry)
                return of.kind === 'file' ? [of.held] : []
              })}
              onSaved={shown}
            />
          ) : (
            <NewEntry
              key={kind}
              kind={kind}
              taken={new Set(entries.map((entry) => entry.key))}
              today={me.today}
              onSaved={shown}
            />
          )}
        </section>
      )}
    </Page>
  )
}
