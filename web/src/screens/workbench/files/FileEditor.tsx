import {
  type ExpectedPart,
  fileOfPart,
  type Item,
  type ItemFile,
  type Template,
} from '@wickerframe/core'
import { useLibrary } from '../../../api/queries.ts'
import { Button, Pick } from '../../../controls/controls.tsx'
import { DropFiles } from '../../../controls/DropFiles.tsx'
import { fileFacts, FileLink, FileWords } from '../../../controls/FileFacts.tsx'
import { acceptedFiles } from '../../../controls/handouts.ts'
import { useHandouts } from '../../../controls/useHandouts.ts'
import { useDraftStore } from '../draftStore.ts'
import { filePartOf, handOut, handOutHeld, putIntoPart } from './fileEdits.ts'
import { offeredTo } from '../page/fromLibrary.ts'
import { PickFile } from './PickFile.tsx'

type Left = 'fixed' | NonNullable<ItemFile['left']>
const leftWords: Readonly<Record<Left, string>> = {
  fixed: 'the same for everybody',
  proposed: 'a proposal: the instructor may put another in its place',
  theirs: 'a form: the instructor fills it in and puts it back',
}

/** Which file a part hands out, and how it is left to the instructor. */
export const FileEditor = ({
  part,
  template,
  above,
  expected,
}: {
  part: Item
  template: Template
  /** What the layer above hands out here. */
  above: ItemFile | undefined
  expected: ExpectedPart | null
}) => {
  const { edit, mayEdit } = useDraftStore()
  const library = useLibrary()
  /** As they stand now: what was dropped may have been on its way for a while. */
  const now = () => useDraftStore.getState().draft ?? template
  const { take, sending, wrong, remarks } = useHandouts(([kept]) => {
    const [draft, there] = [now(), partNow(now(), part)]
    if (kept) edit(...putIntoPart(draft, there, kept))
  })
  const isFromAbove = above !== undefined && above.left === undefined
  const disabled = !mayEdit || isFromAbove
  const file = fileOfPart(part, template)
  const left: Left = part.file?.left ?? 'fixed'
  return (
    <section aria-label="File" className="mt-3 mb-4 max-w-[920px] border-b border-line-strong pb-3">
      <h2 className="text-[18px]">File</h2>
      {file ? (
        <p className="py-1">
          <FileLink file={file} /> <span className="text-ink-2">{fileFacts(file)}</span>
        </p>
      ) : (
        <p className="max-w-[68ch] py-1 text-ink-2">
          {left === 'theirs'
            ? 'The instructor is asked for a file of their own; the check tells until one is there.'
            : 'None yet: students would press this and find nothing. Drop one here, choose one, or ask the instructor for theirs.'}
        </p>
      )}
      {isFromAbove && (
        <p className="text-ink-2">The layer above gives it out; it stands as it is there.</p>
      )}
      <fieldset disabled={disabled} className="grid gap-3">
        <DropFiles
          words={file ? 'Drop another here, or choose one:' : 'Drop a file here, or choose one:'}
          label="A file for this part"
          accept={acceptedFiles}
          disabled={disabled}
          sending={sending}
          wrong={wrong}
          remarks={remarks}
          onFiles={(files) => void take(files)}
        />
        <div className="flex flex-wrap items-end gap-4">
          <PickFile
            label="Or one that is there"
            none="none"
            template={template}
            offered={offeredTo(template, library.data).files}
            value={file?.key ?? null}
            onChoose={(chosen) =>
              edit(
                ...(chosen
                  ? handOutHeld(template, part, chosen)
                  : [handOut(part, left === 'theirs' ? { left } : null)]),
              )
            }
          />
          {file ? (
            <Pick
              label="It is"
              value={left}
              onChange={(event) => {
                const value = event.target.value as Left
                edit(
                  handOut(part, { key: file.key, ...(value === 'fixed' ? {} : { left: value }) }),
                )
              }}
              options={(Object.keys(leftWords) as Left[]).map((value) => ({
                value,
                text: leftWords[value],
              }))}
            />
          ) : left === 'theirs' ? (
            <Button onClick={() => edit(handOut(part, null))}>Ask for none</Button>
          ) : (
            <Button onClick={() => edit(handOut(part, { left: 'theirs' }))}>
              Ask the instructor for a file
            </Button>
          )}
        </div>
      </fieldset>
      <FileWords
        words={expected?.file ? expected.file.words : file?.words}
        label={expected?.file?.fields ? 'What it says in the chosen course' : 'What it says'}
      />
    </section>
  )
}

const partNow = (template: Template, part: Item): Item => filePartOf(template, part.key) ?? part
