import {
  fileKinds,
  isKeptCurrent,
  kindOfFileName,
  sizeInWords,
  type TemplateFile,
} from '@wickerframe/core'
import { addressOf } from '../api/client.ts'

/** What is known of a file, in a line. */
export const fileFacts = (file: TemplateFile): string => {
  const { fileName, bytes, fields } = file
  const kind = kindOfFileName(fileName)
  const filled = fields.length > 0 ? `, filled with ${fields.join(' ')}` : ''
  return `${kind ? fileKinds[kind].words : 'File'}, ${sizeInWords(bytes)}${filled}${isKeptCurrent(file) ? ', kept current by the library' : ''}`
}

/** A file by its name, to be saved and looked at. */
export const FileLink = ({ file }: { file: Pick<TemplateFile, 'content' | 'fileName'> }) => (
  <a
    className="text-tide underline underline-offset-2"
    download={file.fileName}
    href={addressOf('getFile', { at: { content: file.content }, query: { name: file.fileName } })}
  >
    {file.fileName}
  </a>
)

/** What a file says, folded; nothing where it cannot be read as text. */
export const FileWords = ({ words, label }: { words: string | null | undefined; label: string }) =>
  words ? (
    <details className="mt-2">
      <summary className="cursor-pointer text-ink-2">{label}</summary>
      <div className="mt-1 max-h-80 overflow-y-auto border border-line bg-paper p-3 whitespace-pre-line">
        {words}
      </div>
    </details>
  ) : null
