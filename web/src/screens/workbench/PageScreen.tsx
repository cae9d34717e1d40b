import { useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import {
  everyPart,
  homePageKey,
  imageData,
  isModule,
  partsWithin,
  storedImage,
  type Template,
} from '@wickerframe/core'
import { useDraft, useMe } from '../../api/queries.ts'
import { Choice, Page, Problem, Waiting } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { CoursePick } from './CoursePick.tsx'
import { Saved, UndoRedo } from './DraftHead.tsx'
import { useDraftStore } from './draftStore.ts'
import { Notices } from './Notices.tsx'
import { expectedPartOf } from './outlineRows.ts'
import { blocksOfPage } from './page/blockActs.ts'
import { byKey } from './page/fromAbove.ts'
import { pageAddress } from './pageAddress.ts'
import { Reading, type Reader } from './page/Reading.tsx'
import { WrittenPage } from './page/WrittenPage.tsx'
import { assessmentOf, questionsOfPart } from './questions/assessmentOf.ts'
import { FileEditor } from './files/FileEditor.tsx'
import { filePartOf } from './files/fileEdits.ts'
import { QuestionsEditor } from './questions/QuestionsEditor.tsx'
import { QuestionsReading } from './questions/QuestionsReading.tsx'
import { useLiveDraft } from './useLiveDraft.ts'
import { usePageSources } from './usePageSources.ts'
import { useProofreading } from './useProofreading.ts'
import { useWorkedOut } from './useWorkedOut.ts'

/** Every page of a template in the order of the outline. */
const pagesOf = (template: Template): { key: string; name: string }[] => [
  { key: homePageKey, name: 'Home page' },
  ...everyPart(template).flatMap((part) =>
    isModule(part) || part.kind === 'heading' ? [] : [{ key: part.key, name: part.name }],
  ),
]

const faces: readonly (readonly ['write' | Reader, string])[] = [
  ['write', 'Write'],
  ['instructor', 'As the instructor'],
  ['student', 'As students'],
]

const OpenPage = ({
  template: key,
  part,
  draft,
}: {
  template: string
  part: string
  draft: Template
}) => {
  const { search, set } = useAddress()
  const { upper } = useDraftStore()
  const me = useMe()
  const [face, setFace] = useState<'write' | Reader>('write')
  const sources = usePageSources(draft)
  const remarks = useProofreading(draft)
  const course = search.get('course')
  const workedOut = useWorkedOut(draft, course)
  const pages = useMemo(() => pagesOf(draft), [draft])
  const at = pages.findIndex((page) => page.key === part)
  const page = pages[at]
  const expected = expectedPartOf(workedOut.expected, part)
  const above = useMemo(() => byKey(upper ? blocksOfPage(upper, part) : []), [upper, part])
  const assets = useMemo(
    () => new Map(draft.assets.map((asset) => [storedImage(asset).name, imageData(asset)])),
    [draft.assets],
  )
  const module = partsWithin(draft.parts).find(
    (other) => isModule(other) && other.items.some((item) => item.key === part),
  )
  const inCourse = workedOut.fitting.find(({ id }) => String(id) === workedOut.course)
  const backTo = `/templates/${key}?part=${part}${course ? `&course=${course}` : ''}`
  const today = me.data?.today ?? ''
  const assessment = assessmentOf(draft, part)
  const filePart = filePartOf(draft, part)
  const own = (remarks ?? []).filter((remark) => remark.part === part)
  const neighbour = (index: number, words: string) => {
    const other = pages[index]
    return (
      other && (
        <Link
          className="max-w-60 truncate text-tide underline underline-offset-2"
          to={pageAddress(key, other.key, course)}
          title={other.name}
        >
          {words} {other.name}
        </Link>
      )
    )
  }
  if (!page)
    return (
      <Page title={draft.title}>
        <p className="py-4">
          This template has no such page.{' '}
          <Link className="text-tide underline" to={`/templates/${key}`}>
            Back to the outline
          </Link>
        </p>
      </Page>
    )
  return (
    <Page
      title={page.name}
      above={
        <>
          <Link className="underline" to="/templates">
            Templates
          </Link>{' '}
          ›{' '}
          <Link className="underline" to={backTo}>
            {draft.title}
          </Link>
          {module ? ` › ${module.name}` : ''}
        </>
      }
      beside={
        <>
          <span className="text-ink-2" role="status">
            <Saved />
          </span>
          <UndoRedo />
          <Link
            className="rounded-sm border border-line-strong bg-sheet px-3 py-1.5 font-semibold leading-tight"
            to={backTo}
          >
            Back to the outline
          </Link>
        </>
      }
    >
      <Notices />
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <div className="flex gap-2" role="group" aria-label="Show">
          {faces.map(([id, words]) => (
            <Choice key={id} pressed={face === id} onClick={() => setFace(id)}>
              {words}
            </Choice>
          ))}
        </div>
        <CoursePick
          fitting={workedOut.fitting}
          course={workedOut.course}
          onChoose={(id) => set({ course: id })}
        />
        <nav aria-label="Pages beside this one" className="ml-auto flex gap-x-4">
          {neighbour(at - 1, '←')}
          {neighbour(at + 1, '→')}
        </nav>
      </div>
      {own
        .filter((remark) => remark.block === null)
        .map((remark) => (
          <p key={remark.check + remark.message} className="page-remark mt-2">
            {remark.message}
          </p>
        ))}
      {face === 'write' && assessment && (
        <p className="mt-2 text-ink-2">
          What students read before they begin; the questions stand below it.
        </p>
      )}
      {face === 'write' && filePart && (
        <FileEditor
          part={filePart}
          template={draft}
          above={upper ? filePartOf(upper, part)?.file : undefined}
          expected={expected}
        />
      )}
      {face === 'write' && filePart && (
        <p className="mt-4 text-ink-2">What students read beside the file, if anything:</p>
      )}
      {face === 'write' ? (
        <WrittenPage
          key={part}
          part={part}
          blocks={blocksOfPage(draft, part)}
          expected={expected}
          course={inCourse && expected ? inCourse.code : null}
          template={draft}
          sources={sources}
          above={above}
          remarks={own}
          today={today}
        />
      ) : expected ? (
        <div className="mt-3">
          <Reading part={expected} reader={face} onDate={today} assets={assets} isWhole />
          <QuestionsReading part={expected} reader={face} assets={assets} />
        </div>
      ) : (
        <p className="py-4 text-ink-2">
          Choose a course to work it out for; the page does not apply to this one.
        </p>
      )}
      {face === 'write' && assessment && (
        <QuestionsEditor
          part={assessment}
          template={draft}
          above={questionsOfPart(upper, part)}
          sources={sources}
        />
      )}
    </Page>
  )
}

/** A page of a template at full width, from page to page without going back to the outline. */
export const PageScreen = () => {
  const { key = '', part = '' } = useParams()
  const loaded = useDraft(key)
  useLiveDraft(loaded.data)
  const draft = useDraftStore((store) => (store.key === key ? store.draft : null))
  if (loaded.data && draft) return <OpenPage template={key} part={part} draft={draft} />
  return (
    <Page title="Page">
      {loaded.error ? <Problem error={loaded.error} /> : <Waiting what="the page" />}
    </Page>
  )
}
