import { useState } from 'react'
import { isKeptCurrent, type TemplateFile } from '@wickerframe/core'
import type { KeptFile, LibraryEntry } from '@wickerframe/contract'
import { Button, Field, Problem } from '../../controls/controls.tsx'
import { DropFiles } from '../../controls/DropFiles.tsx'
import { acceptedFiles } from '../../controls/handouts.ts'
import { Tick } from '../../controls/typed.tsx'
import { useHandouts } from '../../controls/useHandouts.ts'
import { withContentOf } from '../workbench/files/fileEdits.ts'
import { usePut } from './usePut.ts'

/** Replaces a file, for every template that hands it out, or calls it otherwise. */
export const FileEntryEditor = ({
  entry,
  onSaved,
}: {
  entry: LibraryEntry
  onSaved: () => void
}) => {
  const file = entry.document as TemplateFile
  const [title, setTitle] = useState(file.title)
  const [licence, setLicence] = useState(file.licence)
  const [other, setOther] = useState<KeptFile | null>(null)
  const { take, sending, wrong, remarks } = useHandouts(([kept]) => setOther(kept ?? null))
  const { fields } = other ?? file
  const [isCurrent, setIsCurrent] = useState(isKeptCurrent(file))
  const put = usePut(onSaved)
  return (
    <div className="mt-2 grid gap-2 border border-line bg-paper p-3">
      <DropFiles
        words={
          other
            ? `${other.fileName} takes its place when you save.`
            : 'Drop the file that takes its place, or choose it:'
        }
        label="The file that takes its place"
        accept={acceptedFiles}
        sending={sending}
        wrong={wrong}
        remarks={remarks}
        onFiles={(files) => void take(files)}
      />
      <Field label="Called" value={title} onChange={(event) => setTitle(event.target.value)} />
      <Field label="Licence" value={licence} onChange={(event) => setLicence(event.target.value)} />
      <Tick
        label="kept current: pages lead to the newest, at an address that anybody may open"
        checked={isCurrent}
        disabled={isKeptCurrent(file) || fields.length > 0}
        onChange={setIsCurrent}
      />
      <p className="max-w-[68ch] text-ink-2">
        {fields.length > 0
          ? 'It has fields, which are filled for each course: it is brought there by rollouts.'
          : isKeptCurrent(file)
            ? 'Pages of courses lead to it: it stays so. What you put in its place is current in all of them at once; parts that hand it out get it by their next rollout.'
            : 'Without it, every course has a copy, which is brought there by rollouts.'}
      </p>
      <Problem error={put.error} />
      <Button
        className="justify-self-start"
        disabled={put.isPending || sending !== null || title.trim() === ''}
        onClick={() =>
          put.mutate({
            kind: 'file',
            was: entry.revision,
            document: {
              ...(other ? withContentOf(file, other) : file),
              title: title.trim(),
              licence: licence.trim(),
              ...(isCurrent && fields.length === 0 ? { current: true as const } : {}),
            },
          })
        }
      >
        Save
      </Button>
    </div>
  )
}
