import { z } from 'zod'
import { sizeInWords } from '../../../files/index.ts'
import { isKeptCurrent, type TemplateFile } from '../../file.ts'
import { Key } from '../../words.ts'
import { escapeHtml, heading } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { leavable } from '../left.ts'
import { fresh, label, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

/** What stands for the title until there is a file. */
export const untitledDocument = 'Title of the document'
/** In how many formats one document is offered side by side. */
export const mostFormats = 4

/** What a format is, for those who choose, in whatever language. How large it is, is not said where that is not settled: filled for a course, or kept current. */
const formatWords = (file: TemplateFile): string => {
  const format = file.fileName.slice(file.fileName.lastIndexOf('.') + 1).toUpperCase()
  return file.fields.length > 0 || isKeptCurrent(file)
    ? format
    : `${format}, ${sizeInWords(Math.max(1024, file.bytes))}`
}

export const document = defineBlock(
  'document',
  z.strictObject({
    ...shared,
    ...leavable,
    kind: z.literal('document'),
    label: label.default(''),
    title: line,
    about: line.optional().describe('What it is for, and what one does with it'),
    files: z
      .array(Key)
      .max(mostFormats)
      .describe('Keys of files in files: the same document in each of its formats'),
  }),
  {
    title: 'Document',
    group: 'written',
    isFixed: true,
    answer: 'file',
    htmlFields: [],
    wordFields: ['title', 'about'],
    files: ({ files }) => files.map((file, i) => ({ file, at: ['files', i] })),
    empty: (key) => ({ ...fresh('document', key), label: '', title: untitledDocument, files: [] }),
    html: (block, writing) => {
      const name = writing.line(block.title)
      const about = block.about ? `<p>${writing.line(block.about)}</p>` : ''
      // As long as it is asked for, there is none to lead to.
      if (block.left?.as === 'asked')
        return asWritten(`${heading(writing.label(block.label))}${about}<p>${name}</p>`, [
          `<p>${name}</p>`,
        ])
      const formats = block.files.flatMap((key) => {
        const found = writing.file(key)
        return found
          ? [
              `<a href="${escapeHtml(found.href)}">${name} (${escapeHtml(formatWords(found.file))})</a>`,
            ]
          : []
      })
      return asWritten(
        `${heading(writing.label(block.label))}${about}<p>${formats.length > 0 ? formats.join(' · ') : name}</p>`,
      )
    },
    words: ({ title, about }) => [{ text: title }, ...(about ? [{ text: about }] : [])],
  },
)
