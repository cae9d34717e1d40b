import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import {
  freshKey,
  imageData,
  rubricPoints,
  type Asset,
  type HouseText,
  type KeptBlock,
  type Rubric,
} from '@wickerframe/core'
import type { LibraryEntry, LibraryKind, LibraryPut, Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../api/client.ts'
import { useLibrary } from '../../api/queries.ts'
import {
  Button,
  Choice,
  Field,
  Moment,
  Page,
  Pick,
  plural,
  Problem,
  Waiting,
} from '../../controls/controls.tsx'
import { readImageFile, type ImageContent } from '../../controls/imageFile.ts'
import { useAddress } from '../../shell/useAddress.ts'
import { blockTitle } from '../workbench/page/blockWords.ts'
import { RichText } from '../workbench/page/RichText.tsx'
import { RubricTable } from '../workbench/views/GradingView.tsx'

const kinds: readonly (readonly [LibraryKind, string, string])[] = [
  [
    'house-text',
    'House texts',
    'A passage, file or page kept centrally and shown in many courses: a policy, support contacts.',
  ],
  [
    'image',
    'Images',
    'Drawings and photographs with what they show and under which licence they may be used.',
  ],
  ['rubric', 'Rubrics', 'By what work is judged, for any template to take.'],
  ['block', 'Blocks', 'Blocks kept for other pages and templates.'],
]

const usePut = (onSaved: () => void) => {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (put: LibraryPut) => call('putIntoLibrary', { body: put }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['library'] })
      await client.invalidateQueries({ queryKey: ['template'] })
      onSaved()
    },
  })
}

const HouseTextEditor = ({
  entry,
  today,
  onSaved,
}: {
  entry: LibraryEntry
  today: string
  onSaved: () => void
}) => {
  const text = entry.document as HouseText
  const last = text.revisions.at(-1)
  const [html, setHtml] = useState(last?.html ?? '')
  const [inForceFrom, setInForceFrom] = useState(today)
  const put = usePut(onSaved)
  const problem =
    last && inForceFrom < last.inForceFrom
      ? `not before ${last.inForceFrom}, when revision ${last.number} came into force`
      : null
  return (
    <div className="mt-2 grid gap-2 border border-line bg-paper p-3">
      <p className="font-semibold">Correct it: revision {(last?.number ?? 0) + 1}</p>
      <RichText
        label={`Words of ${text.title}`}
        html={html}
        sources={{ parts: [], assets: [] }}
        onDone={setHtml}
      />
      <Field
        label="In force from"
        type="date"
        className="w-44"
        value={inForceFrom}
        onChange={(event) => setInForceFrom(event.target.value)}
      />
      {problem && <p className="text-rust">{problem}</p>}
      <p className="text-ink-2">
        Courses are checked against the new words from that day on. Those that copied the old words
        show as out of date until they are brought up to it.
      </p>
      <Problem error={put.error} />
      <Button
        className="justify-self-start"
        disabled={put.isPending || problem !== null || inForceFrom === '' || html === last?.html}
        onClick={() =>
          put.mutate({
            kind: 'house-text',
            was: entry.revision,
            document: {
              ...text,
              revisions: [
                ...text.revisions,
                { number: (last?.number ?? 0) + 1, inForceFrom, html },
              ],
            },
          })
        }
      >
        Put revision {(last?.number ?? 0) + 1} in force
      </Button>
    </div>
  )
}

const ImageEditor = ({ entry, onSaved }: { entry: LibraryEntry; onSaved: () => void }) => {
  const image = entry.document as Asset
  const [alternativeText, setAlternativeText] = useState(image.alternativeText)
  const [licence, setLicence] = useState(image.licence)
  const put = usePut(onSaved)
  return (
    <div className="mt-2 grid gap-2 border border-line bg-paper p-3">
      <Field
        label="What it shows (alternative text)"
        value={alternativeText}
        onChange={(event) => setAlternativeText(event.target.value)}
      />
      <Field label="Licence" value={licence} onChange={(event) => setLicence(event.target.value)} />
      <Problem error={put.error} />
      <Button
        className="justify-self-start"
        disabled={put.isPending || alternativeText.trim() === '' || licence.trim() === ''}
        onClick={() =>
          put.mutate({
            kind: 'image',
            was: entry.revision,
            document: { ...image, alternativeText, licence },
          })
        }
      >
        Save
      </Button>
    </div>
  )
}

const RubricEditor = ({ entry, onSaved }: { entry: LibraryEntry; onSaved: () => void }) => {
  const [rubric, setRubric] = useState(entry.document as Rubric)
  const put = usePut(onSaved)
  return (
    <div className="mt-2 border border-line bg-paper p-3">
      <RubricTable rubric={rubric} disabled={false} onChange={setRubric} />
      <Problem error={put.error} />
      <Button
        disabled={put.isPending}
        onClick={() => put.mutate({ kind: 'rubric', was: entry.revision, document: rubric })}
      >
        Save, {rubricPoints(rubric)} points
      </Button>
    </div>
  )
}

const BlockCorrection = ({ entry, onSaved }: { entry: LibraryEntry; onSaved: () => void }) => {
  const kept = entry.document as KeptBlock
  const [html, setHtml] = useState('html' in kept.block ? kept.block.html : '')
  const put = usePut(onSaved)
  if (!('html' in kept.block))
    return (
      <p className="mt-2 text-ink-2">
        A {blockTitle(kept.block.kind).toLowerCase()} is corrected on the page of a template that
        holds it.
      </p>
    )
  return (
    <div className="mt-2 grid gap-2 border border-line bg-paper p-3">
      <RichText
        label={kept.title}
        html={html}
        sources={{ parts: [], assets: [] }}
        onDone={setHtml}
      />
      <p className="text-ink-2">
        The correction reaches every draft that shows it as a kept block.
      </p>
      <Problem error={put.error} />
      <Button
        className="justify-self-start"
        disabled={put.isPending}
        onClick={() =>
          put.mutate({
            kind: 'block',
            was: entry.revision,
            document: { ...kept, block: { ...kept.block, html } as KeptBlock['block'] },
          })
        }
      >
        Save everywhere
      </Button>
    </div>
  )
}

/** Puts something new into the library. */
const NewEntry = ({
  kind,
  taken,
  today,
  onSaved,
}: {
  kind: LibraryKind
  taken: ReadonlySet<string>
  today: string
  onSaved: () => void
}) => {
  const [title, setTitle] = useState('')
  const [form, setForm] = useState<HouseText['form']>('text')
  const [licence, setLicence] = useState('')
  const [image, setImage] = useState<ImageContent | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  /** Another one with every entry put in, so that the chosen file is not shown any more. */
  const [round, setRound] = useState(0)
  const put = usePut(() => {
    setTitle('')
    setImage(null)
    setRound((before) => before + 1)
    onSaved()
  })
  if (kind === 'block')
    return (
      <p className="text-ink-2">
        Blocks come here from a template: keep one there with “keep for other places”, then put it
        into the library under Shared pieces.
      </p>
    )
  const choose = async (file: File) => {
    const read = await readImageFile(file)
    setWrong(typeof read === 'string' ? read : null)
    setImage(typeof read === 'string' ? null : read)
  }
  const key = freshKey(title || 'entry', taken)
  const make = (): LibraryPut | null => {
    if (kind === 'house-text')
      return {
        kind,
        was: null,
        document: {
          key,
          title,
          form,
          revisions: [{ number: 1, inForceFrom: today, html: '<p>What it says.</p>' }],
        },
      }
    if (kind === 'rubric')
      return {
        kind,
        was: null,
        document: {
          key,
          title,
          criteria: [
            {
              text: 'First criterion',
              levels: [
                { text: 'Met', points: 10 },
                { text: 'Not met', points: 0 },
              ],
            },
          ],
        },
      }
    return image
      ? { kind: 'image', was: null, document: { key, ...image, alternativeText: title, licence } }
      : null
  }
  const put1 =
    title.trim() === '' || (kind === 'image' && (image === null || licence.trim() === ''))
      ? null
      : make()
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (put1) put.mutate(put1)
      }}
    >
      <Field
        label={kind === 'image' ? 'What it shows (alternative text)' : 'Title'}
        value={title}
        onChange={(event) => setTitle(event.target.value)}
      />
      {kind === 'house-text' && (
        <Pick
          label="It is"
          value={form}
          onChange={(event) => setForm(event.target.value as HouseText['form'])}
          options={[
            { value: 'text', text: 'a passage' },
            { value: 'file', text: 'a file' },
            { value: 'page', text: 'a page' },
          ]}
        />
      )}
      {kind === 'image' && (
        <>
          <Field
            label="Licence"
            value={licence}
            onChange={(event) => setLicence(event.target.value)}
          />
          <label className="flex flex-col text-ink-2">
            Image file
            <input
              key={round}
              type="file"
              accept="image/svg+xml,image/png,image/jpeg,image/webp"
              onChange={(event) => {
                const [file] = event.target.files ?? []
                if (file) void choose(file)
              }}
            />
          </label>
        </>
      )}
      <Button type="submit" disabled={put1 === null || put.isPending}>
        Put it in
      </Button>
      {wrong && (
        <p role="alert" className="text-rust">
          {wrong}
        </p>
      )}
      <Problem error={put.error} />
    </form>
  )
}

/** House texts, images, rubrics and blocks of the college, and where each is used. */
export const LibraryScreen = ({ me }: { me: Me }) => {
  const library = useLibrary()
  const { search, set } = useAddress()
  const kind = (search.get('kind') ?? 'house-text') as LibraryKind
  const open = search.get('open')
  const mayEdit = may(me, 'keep library')
  const entries = (library.data ?? []).filter((entry) => entry.kind === kind)
  const saved = () => set({ open: null })
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
          <Choice key={id} pressed={kind === id} onClick={() => set({ kind: id, open: null })}>
            {text} ({(library.data ?? []).filter((entry) => entry.kind === id).length})
          </Choice>
        ))}
      </div>
      <p className="mt-2 text-ink-2">{kinds.find(([id]) => id === kind)?.[2]}</p>
      <Problem error={library.error ?? rollOut.error} />
      {library.isPending && <Waiting what="the library" />}
      <ul className="mt-3 divide-y divide-line border-y border-line">
        {entries.map((entry) => {
          const old = entry.templates.filter((template) => !template.current)
          return (
            <li key={entry.key} className="py-3">
              <div className="grid grid-cols-[minmax(0,1fr)_26rem] items-baseline gap-4">
                <div className="flex gap-3">
                  {entry.kind === 'image' && (
                    <img
                      src={imageData(entry.document as Asset)}
                      alt={(entry.document as Asset).alternativeText}
                      className="h-16 w-32 border border-line object-cover"
                    />
                  )}
                  <div>
                    <p className="font-serif text-[17px] font-semibold">
                      {entry.kind === 'image'
                        ? (entry.document as Asset).alternativeText
                        : entry.title}
                    </p>
                    <p className="text-ink-2">
                      {entry.kind === 'house-text'
                        ? `${(entry.document as HouseText).form}, revision ${(entry.document as HouseText).revisions.at(-1)?.number}, in force from ${(entry.document as HouseText).revisions.at(-1)?.inForceFrom}`
                        : entry.kind === 'rubric'
                          ? `${rubricPoints(entry.document as Rubric)} points, ${plural((entry.document as Rubric).criteria.length, 'criterion', 'criteria')}`
                          : entry.kind === 'image'
                            ? (entry.document as Asset).licence
                            : blockTitle((entry.document as KeptBlock).block.kind)}
                      {' · '}saved <Moment at={entry.savedAt} today={me.today} /> by {entry.by}
                    </p>
                    {mayEdit && entry.kind === 'house-text' && entry.courses > 0 && (
                      <Button
                        shape="word"
                        className="mr-4"
                        disabled={rollOut.isPending}
                        onClick={() => rollOut.mutate(entry.key)}
                      >
                        plan it for every course that shows it
                      </Button>
                    )}
                    {mayEdit && (
                      <Button
                        shape="word"
                        aria-expanded={open === entry.key}
                        onClick={() => set({ open: open === entry.key ? null : entry.key })}
                      >
                        {open === entry.key ? 'close' : 'correct it'}
                      </Button>
                    )}
                  </div>
                </div>
                <div className="text-ink-2">
                  <p>
                    in {plural(entry.templates.length, 'template')}
                    {old.length > 0 ? `, ${old.length} of them older` : ''}:{' '}
                    {entry.templates.length === 0
                      ? 'none'
                      : entry.templates.map((template, i) => (
                          <span key={template.key}>
                            {i > 0 && ', '}
                            <Link
                              className="underline"
                              to={`/templates/${template.key}?view=shared`}
                            >
                              {template.title}
                            </Link>
                          </span>
                        ))}
                  </p>
                  <p>
                    in {plural(entry.courses, 'course')}
                    {entry.coursesOutOfDate > 0 ? (
                      <>
                        , <span className="text-rust">{entry.coursesOutOfDate} out of date</span>
                        {entry.kind === 'house-text' ? ' as last checked' : ''}
                      </>
                    ) : (
                      ''
                    )}
                  </p>
                </div>
              </div>
              {open === entry.key &&
                mayEdit &&
                (entry.kind === 'house-text' ? (
                  <HouseTextEditor
                    key={entry.revision}
                    entry={entry}
                    today={me.today}
                    onSaved={saved}
                  />
                ) : entry.kind === 'image' ? (
                  <ImageEditor entry={entry} onSaved={saved} />
                ) : entry.kind === 'rubric' ? (
                  <RubricEditor entry={entry} onSaved={saved} />
                ) : (
                  <BlockCorrection entry={entry} onSaved={saved} />
                ))}
              {open === entry.key && entry.kind === 'house-text' && (
                <details className="mt-2">
                  <summary className="cursor-pointer text-ink-2">earlier revisions</summary>
                  <ul className="list-disc pl-6 text-ink-2">
                    {(entry.document as HouseText).revisions.map((revision) => (
                      <li key={revision.number}>
                        revision {revision.number}, in force from {revision.inForceFrom}
                      </li>
                    ))}
                  </ul>
                </details>
              )}
            </li>
          )
        })}
      </ul>
      {library.data && entries.length === 0 && (
        <p className="py-6 text-ink-2">Nothing of this kind yet.</p>
      )}
      {mayEdit && (
        <div className="mt-4">
          <h2 className="text-[18px]">Put something in</h2>
          <NewEntry
            kind={kind}
            taken={new Set(entries.map((entry) => entry.key))}
            today={me.today}
            onSaved={saved}
          />
        </div>
      )}
    </Page>
  )
}
