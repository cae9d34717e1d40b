import { useState } from 'react'
import { sizeInWords } from '@wickerframe/core'
import type { AnswerFile } from '@wickerframe/contract'
import { ApiError, send } from '../../../api/client.ts'
import { Button } from '../../../controls/controls.tsx'
import { DropFiles } from '../../../controls/DropFiles.tsx'
import { acceptedFiles, unsendable } from '../../../controls/handouts.ts'
import type { Typed } from './keptAnswers.ts'

/** A file for an answer. Its bytes are brought in as it is chosen, and held against what it is called. */
export const FileAnswer = ({
  label,
  course,
  file,
  onType,
}: {
  label: string
  course: number
  file: AnswerFile | null
  onType: (typed: Typed | null) => void
}) => {
  const [wrong, setWrong] = useState<readonly string[]>([])
  const [sending, setSending] = useState<string | null>(null)
  const take = async ([chosen]: readonly File[]) => {
    if (!chosen) return
    const why = unsendable(chosen)
    setWrong(why === null ? [] : [why])
    if (why !== null) return
    setSending(chosen.name)
    try {
      const kept = await send('putAnswerFile', chosen, 'application/octet-stream', {
        at: { course },
        query: { name: chosen.name },
      })
      onType({ as: 'file', file: kept })
    } catch (cause) {
      if (!(cause instanceof ApiError)) throw cause
      setWrong([cause.message])
    } finally {
      setSending(null)
    }
  }
  return (
    <div role="group" aria-label={label}>
      <p className="font-semibold">{label}</p>
      {file ? (
        <p className="flex flex-wrap items-baseline gap-3">
          <span>
            {file.fileName}, {sizeInWords(file.bytes)}
          </span>
          <Button shape="word" onClick={() => onType(null)}>
            take another
          </Button>
        </p>
      ) : (
        <DropFiles
          words="Drop a file here, or choose one:"
          label={`File for “${label}”`}
          accept={acceptedFiles}
          sending={sending}
          wrong={wrong}
          onFiles={(files) => void take(files)}
        />
      )}
    </div>
  )
}
