import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import {
  type Block,
  type ExpectedPart,
  homePageKey,
  imageData,
  isModule,
  type Item,
  kindWords,
  type Module,
  storedImage,
  type Template,
} from '@wickerframe/core'
import { Button, Choice } from '../../controls/controls.tsx'
import { benchAddress } from './FormatField.tsx'
import { useDraftStore } from './draftStore.ts'
import { pageAddress } from './pageAddress.ts'
import { blocksOfPage } from './page/blockActs.ts'
import { byKey } from './page/fromAbove.ts'
import { PageEditor } from './page/PageEditor.tsx'
import { Reading, type Reader } from './page/Reading.tsx'
import type { PageSources } from './page/pageSources.ts'
import { ObjectiveLines } from './page/ObjectiveLines.tsx'
import { assessmentOf, questionsOfPart } from './questions/assessmentOf.ts'
import { QuestionsEditor } from './questions/QuestionsEditor.tsx'
import { QuestionsReading } from './questions/QuestionsReading.tsx'
import { FileEditor } from './files/FileEditor.tsx'
import { filePartOf } from './files/fileEdits.ts'
import { PartSettings } from './PartSettings.tsx'

export interface SlipPart {
  key: string
  definition: Item | Module | null
  blocks: readonly Block[]
}

type Face = 'page' | Reader | 'settings'
const faceWords: Readonly<Record<Face, string>> = {
  page: 'Page',
  instructor: 'As the instructor',
  student: 'As students',
  settings: 'Settings',
}

/** The part that is open: its page as blocks, or as instructor or students will read it in the chosen course. */
export const Slip = ({
  part,
  expected,
  template,
  upper,
  sources,
  today,
  timeZone,
  remarks,
  course,
  onClose,
  onOpen,
}: {
  part: SlipPart
  expected: ExpectedPart | null
  template: Template
  upper: Template | null
  sources: PageSources
  today: string
  timeZone: string | null
  remarks: readonly string[]
  /** Id of the course it is worked out for; empty: none. */
  course: string
  onClose: () => void
  onOpen: (key: string) => void
}) => {
  const { edit } = useDraftStore()
  const [chosenFace, setFace] = useState<Face>('page')
  const { definition } = part
  const isPage =
    part.key === homePageKey ||
    (definition !== null && !isModule(definition) && definition.kind !== 'heading')
  const faces: readonly Face[] = [
    ...(isPage ? (['page', 'instructor', 'student'] as const) : []),
    ...(definition ? (['settings'] as const) : []),
  ]
  const face = faces.includes(chosenFace) ? chosenFace : (faces[0] ?? 'page')
  const assets = useMemo(
    () => new Map(template.assets.map((asset) => [storedImage(asset).name, imageData(asset)])),
    [template.assets],
  )
  const assessment = assessmentOf(template, part.key)
  const filePart = filePartOf(template, part.key)
  const above = useMemo(() => byKey(upper ? blocksOfPage(upper, part.key) : []), [upper, part.key])
  return (
    <aside
      aria-label="Slip"
      className="h-[max(22rem,calc(100vh-16.5rem))] overflow-y-auto border-l border-line-strong bg-sheet p-4"
    >
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-[18px]">
          {expected?.name ??
            (part.key === homePageKey ? 'Home page' : (definition?.name ?? part.key))}
        </h2>
        <span className="flex items-center gap-4">
          {isPage && (
            <Link
              className="text-tide underline underline-offset-2"
              to={pageAddress(template.key, part.key, course || null)}
            >
              full width
            </Link>
          )}
          <Link
            className="text-tide underline underline-offset-2"
            to={`?view=comments&part=${part.key}`}
          >
            comment
          </Link>
          <Link
            className="text-tide underline underline-offset-2"
            to={benchAddress(template.key, part.key)}
          >
            its names on the bench
          </Link>
          <Button shape="word" onClick={onClose}>
            close
          </Button>
        </span>
      </div>
      <p className="text-ink-2">
        {definition
          ? `${kindWords(definition.kind)}, ${definition.strength}`
          : 'the course’s home page'}
        {definition?.basis ? ` · rests on ${definition.basis}` : ''}
        {expected?.week ? ` · shown in week ${expected.week.number}` : ''}
      </p>
      {remarks.length > 0 && (
        <ul className="mt-2 border-l-4 border-rust bg-rust-soft px-3 py-1">
          {remarks.map((remark) => (
            <li key={remark}>{remark}</li>
          ))}
        </ul>
      )}
      <div className="my-3 flex gap-2" role="group" aria-label="Show">
        {faces.map((face_) => (
          <Choice key={face_} pressed={face === face_} onClick={() => setFace(face_)}>
            {faceWords[face_]}
          </Choice>
        ))}
      </div>
      {face === 'settings' && definition && (
        <PartSettings
          part={definition}
          expected={expected}
          template={template}
          timeZone={timeZone}
          onOpen={onOpen}
        />
      )}
      {face === 'settings' && definition && isModule(definition) && (
        <section className="mt-3">
          <h3>Objectives of the module</h3>
          {definition.objectives.length === 0 ? (
            <Button
              shape="word"
              onClick={() =>
                edit({
                  edit: 'set-field',
                  part: definition.key,
                  field: ['objectives'],
                  was: [],
                  value: [
                    {
                      key: `${definition.key}-objective`,
                      text: 'objective, beginning with a verb you could test',
                      serves: [],
                    },
                  ],
                })
              }
            >
              add one
            </Button>
          ) : (
            <ObjectiveLines
              objectives={definition.objectives}
              prefix={`${definition.key}-objective`}
              wider={template.outcomes}
              onDone={(objectives) =>
                edit({
                  edit: 'set-field',
                  part: definition.key,
                  field: ['objectives'],
                  was: definition.objectives,
                  value: objectives,
                })
              }
            />
          )}
        </section>
      )}
      {face === 'page' && filePart && (
        <FileEditor
          part={filePart}
          template={template}
          above={upper ? filePartOf(upper, part.key)?.file : undefined}
          expected={expected}
        />
      )}
      {face === 'page' && (
        <PageEditor
          part={part.key}
          blocks={part.blocks}
          expected={expected}
          template={template}
          sources={sources}
          above={above}
        />
      )}
      {face === 'page' && assessment && (
        <QuestionsEditor
          part={assessment}
          template={template}
          above={questionsOfPart(upper, part.key)}
          sources={sources}
        />
      )}
      {(face === 'instructor' || face === 'student') &&
        (expected ? (
          <>
            <Reading part={expected} reader={face} onDate={today} assets={assets} />
            <QuestionsReading part={expected} reader={face} assets={assets} />
          </>
        ) : (
          <p className="text-ink-2">
            Choose a course to work it out for; the part does not apply to this one.
          </p>
        ))}
    </aside>
  )
}
