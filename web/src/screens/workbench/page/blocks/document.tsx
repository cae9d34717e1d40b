import { mostFormats, untitledDocument, type TemplateEdit } from '@wickerframe/core'
import { Button } from '../../../../controls/controls.tsx'
import { DropFiles } from '../../../../controls/DropFiles.tsx'
import { fileFacts, FileLink } from '../../../../controls/FileFacts.tsx'
import { acceptedFiles } from '../../../../controls/handouts.ts'
import { TextLine } from '../../../../controls/typed.tsx'
import { useHandouts } from '../../../../controls/useHandouts.ts'
import { useDraftStore } from '../../draftStore.ts'
import { holdFiles } from '../../files/fileEdits.ts'
import { PickFile } from '../../files/PickFile.tsx'
import { HeadingField, LineField, type BlockEditing } from './editing.tsx'

export const DocumentEditor = ({ block, template, disabled, set }: BlockEditing<'document'>) => {
  const { edit } = useDraftStore()
  const isAsked = block.left?.as === 'asked'
  /** The files, and with them the title, as long as it has none of its own. */
  const offer = (files: readonly { key: string; title: string }[], edits: TemplateEdit[]) => {
    const keys = [...new Set([...block.files, ...files.map(({ key }) => key)])]
    if (edits.length > 0) edit(...edits)
    set('files', block.files, keys.slice(0, mostFormats))
    const [first] = files
    if (first && block.title === untitledDocument) set('title', block.title, first.title)
  }
  const { take, sending, wrong, remarks } = useHandouts((kept) => {
    const { edits, files } = holdFiles(useDraftStore.getState().draft ?? template, kept)
    offer(files, edits)
  })
  const held = block.files.flatMap((key) => template.files.find((file) => file.key === key) ?? [])
  return (
    <div className="grid gap-2">
      <TextLine
        label={isAsked ? 'What is asked for' : 'Title'}
        value={block.title}
        onDone={(now) => now.trim() !== '' && set('title', block.title, now)}
      />
      <LineField field="about" label="What it is for" value={block.about} set={set} />
      <HeadingField label={block.label} set={set} />
      {!isAsked && (
        <>
          <ul aria-label="Formats">
            {held.map((file) => (
              <li key={file.key} className="flex flex-wrap items-baseline gap-3 py-0.5">
                <FileLink file={file} />
                <span className="text-ink-2">{fileFacts(file)}</span>
                <Button
                  shape="word"
                  onClick={() =>
                    set(
                      'files',
                      block.files,
                      block.files.filter((key) => key !== file.key),
                    )
                  }
                >
                  take out
                </Button>
              </li>
            ))}
          </ul>
          {held.length === 0 && (
            <p className="text-ink-2">
              No file yet: the page would name a document that nobody can open.
            </p>
          )}
          {held.length < mostFormats && (
            <>
              <DropFiles
                words={
                  held.length === 0
                    ? 'Drop the document here, in each of its formats, or choose it:'
                    : 'Drop it in another format here, or choose it:'
                }
                label="The document, in each of its formats"
                accept={acceptedFiles}
                several
                disabled={disabled}
                sending={sending}
                wrong={wrong}
                remarks={remarks}
                onFiles={(files) => void take(files)}
              />
              <PickFile
                label="Or one that is there"
                none="choose …"
                template={template}
                offered={[]}
                value={null}
                without={block.files}
                onChoose={(file) => file && offer([file], [])}
              />
            </>
          )}
        </>
      )}
    </div>
  )
}
