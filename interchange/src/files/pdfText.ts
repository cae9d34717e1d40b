import { mostReadWords } from '@wickerframe/core'

/** How many pages are read; what has more is no form. */
const mostPages = 200

/** One piece of text on a page, as PDF.js gives it. */
interface Piece {
  str?: string
  hasEOL?: boolean
}
/** What stands in the fields of a form on a page. */
interface Widget {
  fieldValue?: unknown
}

/** The lines of a page: text as it stands there, then what was written into its fields. */
const linesOf = (pieces: readonly Piece[], widgets: readonly Widget[]): string[] => [
  ...pieces
    .map(({ str = '', hasEOL }) => (hasEOL ? `${str}\n` : str))
    .join('')
    .split('\n'),
  ...widgets.flatMap(({ fieldValue }) =>
    typeof fieldValue === 'string' ? fieldValue.split(/\r?\n/) : [],
  ),
]

/**
 * The text of a PDF (ISO 32000), a line for each of its lines, with what was written into the fields of a form; null where it has
 * none, as a picture of a page, or cannot be read: it is locked, broken or too long. Nothing in it is run.
 */
export const pdfText = async (bytes: Uint8Array): Promise<string | null> => {
  // Large, and seldom needed.
  const { getDocumentProxy } = await import('unpdf')
  try {
    // A copy, which is given away to the reader; a Buffer it does not take.
    const document = await getDocumentProxy(new Uint8Array(bytes), {
      isEvalSupported: false,
      verbosity: 0,
    })
    try {
      if (document.numPages > mostPages) return null
      let text = ''
      for (let number = 1; number <= document.numPages; number++) {
        const page = await document.getPage(number)
        const [content, widgets] = await Promise.all([page.getTextContent(), page.getAnnotations()])
        const lines = linesOf(content.items as Piece[], widgets as Widget[])
          .map((line) => line.replace(/\s+/g, ' ').trim())
          .filter((line) => line !== '')
        if (lines.length > 0) text += (text === '' ? '' : '\n') + lines.join('\n')
        if (text.length > mostReadWords) return null
      }
      return text === '' ? null : text
    } finally {
      await document.destroy()
    }
  } catch {
    return null
  }
}
