import { useState } from 'react'
import { Link } from 'react-router'
import { imageData, imageSizeOf, isKeptCurrent, type HouseText } from '@wickerframe/core'
import type { LibraryEntry } from '@wickerframe/contract'
import { Button, Moment, plural } from '../../controls/controls.tsx'
import { FileLink, FileWords } from '../../controls/FileFacts.tsx'
import { PageHtml } from '../workbench/page/PageHtml.tsx'
import { RubricTable } from '../workbench/views/GradingView.tsx'
import { BlockEditor } from './BlockEditor.tsx'
import { FileEntryEditor } from './FileEntryEditor.tsx'
import { HouseTextEditor } from './HouseTextEditor.tsx'
import { ImageEditor } from './ImageEditor.tsx'
import { entryFacts, entryName, heldBy } from './libraryKinds.ts'
import { RubricEditor } from './RubricEditor.tsx'
import { SetsOfImage } from './sets/SetsOfImage.tsx'
import { sizeInWords, type HeldSet } from './sets/setsOf.ts'

const noImages = () => null

const Words = ({ html }: { html: string }) => (
  <div className="page-text">
    <PageHtml html={html} sourceOf={noImages} />
  </div>
)

/** Revisions before the last, each with its words. */
const Earlier = ({ revisions }: Pick<HouseText, 'revisions'>) => {
  const earlier = revisions.slice(0, -1).reverse()
  if (earlier.length === 0) return null
  return (
    <section className="mt-4">
      <h3 className="font-semibold">Earlier revisions</h3>
      {earlier.map(({ number, inForceFrom, html }) => (
        <details key={number} className="border-t border-line py-1">
          <summary className="cursor-pointer text-ink-2">
            revision {number}, in force from {inForceFrom}
          </summary>
          <Words html={html} />
        </details>
      ))}
    </section>
  )
}

/** What an entry says or shows. */
const Reading = ({ entry }: { entry: LibraryEntry }) => {
  const of = heldBy(entry)
  switch (of.kind) {
    case 'house-text':
      return (
        <>
          <Words html={of.held.revisions.at(-1)?.html ?? ''} />
          <Earlier revisions={of.held.revisions} />
        </>
      )
    case 'image':
      return (
        <figure>
          <img
            src={imageData(of.held)}
            alt={of.held.alternativeText}
            className="max-h-80 max-w-full border border-line bg-sheet object-contain"
          />
          <figcaption className="mt-1 text-ink-2">{of.held.licence}</figcaption>
        </figure>
      )
    case 'file':
      return (
        <>
          <p>
            <FileLink file={of.held} />
            {of.held.licence === '' ? '' : ` · ${of.held.licence}`}
          </p>
          {isKeptCurrent(of.held) && (
            <p className="text-ink-2">
              Kept current: pages lead to{' '}
              <a className="text-tide underline" href={`/house-files/${entry.key}`}>
                the newest
              </a>
              , which anybody may open.
            </p>
          )}
          <FileWords words={of.held.words} label="What it says" />
        </>
      )
    case 'rubric':
      return <RubricTable rubric={of.held} disabled onChange={() => {}} />
    case 'image-set':
      return null
    case 'block':
      return 'html' in of.held.block ? <Words html={of.held.block.html} /> : null
  }
}

const Editor = ({
  entry,
  today,
  onSaved,
}: {
  entry: LibraryEntry
  today: string
  onSaved: () => void
}) => {
  switch (entry.kind) {
    case 'house-text':
      return <HouseTextEditor entry={entry} today={today} onSaved={onSaved} />
    case 'image':
      return <ImageEditor entry={entry} onSaved={onSaved} />
    case 'file':
      return <FileEntryEditor entry={entry} onSaved={onSaved} />
    case 'rubric':
      return <RubricEditor entry={entry} onSaved={onSaved} />
    case 'image-set':
      return null
    case 'block':
      return <BlockEditor entry={entry} onSaved={onSaved} />
  }
}

/** Where an entry is used, folded until somebody wants to know. */
const WhereUsed = ({
  entry: { templates, courses, coursesOutOfDate, kind },
}: {
  entry: LibraryEntry
}) => {
  if (templates.length + courses === 0) return <p className="mt-4 text-ink-2">Used nowhere yet.</p>
  const old = templates.filter(({ current }) => !current).length
  return (
    <details className="mt-4">
      <summary className="cursor-pointer font-semibold">
        Used in {plural(templates.length, 'template')} and {plural(courses, 'course')}
        {coursesOutOfDate > 0 && (
          <span className="text-rust">
            , {coursesOutOfDate} out of date{kind === 'house-text' ? ' as last checked' : ''}
          </span>
        )}
      </summary>
      <ul className="list-disc pl-6">
        {templates.map((template) => (
          <li key={template.key}>
            <Link className="underline" to={`/templates/${template.key}?view=shared`}>
              {template.title}
            </Link>
            {template.current ? '' : ', in an older form'}
          </li>
        ))}
      </ul>
      {old > 0 && (
        <p className="text-ink-2">An older form stays in a released version until the next one.</p>
      )}
    </details>
  )
}

/** One entry of the library: what it says, its revisions, where it is used, and what can be done with it. */
export const EntryPane = ({
  entry,
  sets,
  today,
  mayEdit,
  isPlanning,
  onRollOut,
}: {
  entry: LibraryEntry
  /** Of images. */
  sets: readonly HeldSet[]
  today: string
  mayEdit: boolean
  isPlanning: boolean
  /** Plans a house text for every course that shows it. */
  onRollOut: () => void
}) => {
  const [isCorrecting, setCorrecting] = useState(false)
  const of = heldBy(entry)
  const size = of.kind === 'image' ? imageSizeOf(of.held) : null
  return (
    <article aria-labelledby="entry" className="min-w-0 bg-sheet p-5">
      <h2 id="entry" className="text-[22px]">
        {entryName(entry)}
      </h2>
      <p className="text-ink-2">
        {entryFacts(entry)}
        {size && ` · ${sizeInWords(size)}`} · saved <Moment at={entry.savedAt} today={today} /> by{' '}
        {entry.by}
      </p>
      {mayEdit && (
        <p className="my-2 flex flex-wrap gap-3">
          <Button aria-expanded={isCorrecting} onClick={() => setCorrecting((before) => !before)}>
            {isCorrecting ? 'Leave it as it is' : 'Correct it'}
          </Button>
          {entry.kind === 'house-text' && entry.courses > 0 && (
            <Button disabled={isPlanning} onClick={onRollOut}>
              Plan it for every course that shows it
            </Button>
          )}
        </p>
      )}
      <div className="mt-3">
        {isCorrecting && mayEdit ? (
          <Editor
            key={entry.revision}
            entry={entry}
            today={today}
            onSaved={() => setCorrecting(false)}
          />
        ) : (
          <Reading entry={entry} />
        )}
      </div>
      {of.kind === 'image' && (
        <SetsOfImage image={of.held} revision={entry.revision} sets={sets} mayEdit={mayEdit} />
      )}
      <WhereUsed entry={entry} />
    </article>
  )
}
