import { useState } from 'react'
import { fileAmong, type TemplateFile } from '@wickerframe/core'
import type { KeptFile } from '@wickerframe/contract'
import { Button, Field, Problem } from '../../controls/controls.tsx'
import { DropFiles, FileRemarks } from '../../controls/DropFiles.tsx'
import { acceptedFiles } from '../../controls/handouts.ts'
import { useHandouts } from '../../controls/useHandouts.ts'
import { usePut } from './usePut.ts'

/** A file that was brought in and waits for its title. */
interface Waiting {
  file: KeptFile
  title: string
}

/**
 * Several files put in at once: chosen or dropped, each with a title, the licence asked once for all. What could not be taken is told by
 * name; what could not be put in stays, with what was typed.
 */
export const NewFiles = ({
  held,
  onSaved,
}: {
  /** The files that are there already. */
  held: readonly TemplateFile[]
  /** Told the key of each that was put in. */
  onSaved: (key: string) => void
}) => {
  const [waiting, setWaiting] = useState<readonly Waiting[]>([])
  const [licence, setLicence] = useState('')
  const [there, setThere] = useState<readonly string[]>([])
  const put = usePut(() => {})
  const { take, sending, wrong, remarks, forget } = useHandouts((kept) => {
    const known = new Map(held.map((file) => [file.content, file]))
    setThere(
      kept.flatMap(({ content, fileName }) => {
        const same = known.get(content)
        return same ? [`“${fileName}” is in the library already, as “${same.title}”.`] : []
      }),
    )
    setWaiting((before) => [
      ...before,
      ...kept
        .filter(
          ({ content }) =>
            !known.has(content) && !before.some(({ file }) => file.content === content),
        )
        .map((file) => ({ file, title: fileAmong(file, []).title })),
    ])
  })
  const isReady = waiting.length > 0 && waiting.every(({ title }) => title.trim() !== '')
  const putAll = async () => {
    let among = held
    for (const one of waiting) {
      const { fileName, content, bytes, fields, words } = one.file
      const file = fileAmong(
        {
          fileName,
          content,
          bytes,
          fields,
          words,
          title: one.title.trim(),
          licence: licence.trim(),
        },
        among,
      )
      try {
        await put.mutateAsync({ kind: 'file', was: null, document: file })
      } catch {
        // It says itself what is wrong; this one and those after it wait.
        return
      }
      onSaved(file.key)
      among = [...among, file]
      setWaiting((before) => before.filter((other) => other !== one))
    }
    forget()
  }
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (isReady) void putAll()
      }}
    >
      <DropFiles
        several
        words="Drop files here, or choose some:"
        label="Files"
        accept={acceptedFiles}
        disabled={sending !== null}
        onFiles={(files) => void take(files)}
      >
        {sending !== null && (
          <p role="status" className="mt-1 text-ink-2">
            {sending} is being brought in …
          </p>
        )}
        <FileRemarks wrong={[...wrong, ...there]} remarks={remarks} />
      </DropFiles>
      {waiting.map((one, i) => (
        <div key={one.file.content} className="flex items-end gap-3">
          <Field
            label={`What ${one.file.fileName} is called`}
            className="grow"
            value={one.title}
            onChange={(event) => {
              const title = event.target.value
              setWaiting((before) =>
                before.map((other, j) => (j === i ? { ...other, title } : other)),
              )
            }}
          />
          <Button
            shape="word"
            onClick={() => setWaiting((before) => before.filter((_, j) => j !== i))}
          >
            leave out
          </Button>
        </div>
      ))}
      {waiting.length > 0 && (
        <div className="flex flex-wrap items-end gap-3">
          <Field
            label={waiting.length === 1 ? 'Licence, if it has one' : 'Licence of all of them'}
            value={licence}
            onChange={(event) => setLicence(event.target.value)}
          />
          <Button type="submit" disabled={!isReady || put.isPending}>
            {waiting.length === 1 ? 'Put it in' : `Put ${waiting.length} in`}
          </Button>
        </div>
      )}
      <Problem error={put.error} />
    </form>
  )
}
