import { type Template, type TemplateFile } from '@wickerframe/core'
import { Button, plural } from '../../../controls/controls.tsx'
import { DropFiles } from '../../../controls/DropFiles.tsx'
import { fileFacts, FileLink } from '../../../controls/FileFacts.tsx'
import { acceptedFiles } from '../../../controls/handouts.ts'
import { TextLine } from '../../../controls/typed.tsx'
import { useHandouts } from '../../../controls/useHandouts.ts'
import { useDraftStore } from '../draftStore.ts'
import { placesOfFile, replaceFile } from '../files/fileEdits.ts'
import { PutIntoLibrary, TakeFromLibrary } from '../LibraryMenu.tsx'

const FileLine = ({ file, template }: { file: TemplateFile; template: Template }) => {
  const { edit, mayEdit } = useDraftStore()
  const { take, sending, wrong, remarks } = useHandouts(([kept]) => {
    const now = useDraftStore.getState().draft?.files.find(({ key }) => key === file.key)
    if (kept && now) edit(replaceFile(now, kept))
  })
  const uses = placesOfFile(template, file.key)
  const set = (value: TemplateFile | null) =>
    edit({ edit: 'set-field', part: null, field: ['files', file.key], was: file, value })
  return (
    <li className="grid gap-2 border-t border-line py-2">
      <span className="flex flex-wrap items-end gap-3">
        <TextLine
          label="Called"
          className="min-w-64"
          value={file.title}
          onDone={(title) => title.trim() !== '' && set({ ...file, title })}
        />
        <span className="pb-1">
          <FileLink file={file} />{' '}
          <span className="text-ink-2">
            {fileFacts(file)};{' '}
            {uses === 0 ? 'handed out nowhere' : `handed out in ${plural(uses, 'place')}`}
          </span>
        </span>
      </span>
      {mayEdit && (
        <DropFiles
          words="Put another in its place, everywhere:"
          label={`A file in place of ${file.title}`}
          accept={acceptedFiles}
          sending={sending}
          wrong={wrong}
          remarks={remarks}
          onFiles={(files) => void take(files)}
        />
      )}
      <span className="flex gap-4">
        <PutIntoLibrary put={{ kind: 'file', was: null, document: file }} />
        {mayEdit && uses === 0 && (
          <Button shape="word" onClick={() => set(null)}>
            take out of the template
          </Button>
        )}
      </span>
    </li>
  )
}

/** Files that the parts of a template hand out, and its pages lead to. */
export const SharedFiles = ({ template }: { template: Template }) => {
  const { mayEdit } = useDraftStore()
  return (
    <section aria-labelledby="shared-files" className="bg-sheet p-4 lg:col-span-2">
      <h2 id="shared-files" className="text-[18px]">
        Files
      </h2>
      {template.files.length === 0 && (
        <p className="max-w-[68ch] text-ink-2">
          None yet. Drop files on the outline, and each becomes a part that hands it out; put one
          into a part of the kind file; or drop it on a page, which then leads to it.
        </p>
      )}
      <fieldset disabled={!mayEdit}>
        <ul>
          {template.files.map((file) => (
            <FileLine key={file.key} file={file} template={template} />
          ))}
        </ul>
      </fieldset>
      <TakeFromLibrary template={template} kind="file" />
    </section>
  )
}
