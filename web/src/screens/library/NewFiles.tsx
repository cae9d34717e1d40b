import { useState } from 'react'
import { fileAmong, type TemplateFile } from '@wickerframe/core'
import type { KeptFile } from '@wickerframe/contract'
import { Problem } from '../../controls/controls.tsx'
import { DropFiles } from '../../controls/DropFiles.tsx'
import { acceptedFiles } from '../../controls/handouts.ts'
import { useHandouts } from '../../controls/useHandouts.ts'
import { usePut } from './usePut.ts'
import { WaitingLines } from './WaitingLines.tsx'

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
        sending={sending}
        wrong={[...wrong, ...there]}
        remarks={remarks}
        onFiles={(files) => void take(files)}
      />
      <WaitingLines
        lines={waiting.map(({ file, title }) => ({
          key: file.content,
          label: `What ${file.fileName} is called`,
          value: title,
        }))}
        licence={licence}
        licenceOfOne="Licence, if it has one"
        isReady={isReady && !put.isPending}
        onType={(i, title) =>
          setWaiting((before) => before.map((other, j) => (j === i ? { ...other, title } : other)))
        }
        onLeaveOut={(i) => setWaiting((before) => before.filter((_, j) => j !== i))}
        onLicence={setLicence}
      />
      <Problem error={put.error} />
    </form>
  )
}
