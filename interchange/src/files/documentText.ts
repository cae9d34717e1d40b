import { decodeXML } from 'entities'
import type { Zipped } from './zipped.ts'

/** How the text of a kind of document is marked up: local names of elements. */
interface Markup {
  paragraph: ReadonlySet<string>
  /** What text stands in; null: any text of a paragraph counts. */
  run: string | null
  space: ReadonlySet<string>
  /** What is no text of the document: what was struck out, remarks, a second form of the same. */
  skipped: ReadonlySet<string>
}
/** WordprocessingML (ECMA-376, part 1, 17.3): paragraphs, runs of text, tabs and breaks. */
const wordprocessing: Markup = {
  paragraph: new Set(['p']),
  run: 't',
  space: new Set(['tab', 'br', 'cr']),
  skipped: new Set(['Fallback', 'del', 'moveFrom']),
}
/** OpenDocument (ISO/IEC 26300): paragraphs and headings. */
const openDocument: Markup = {
  paragraph: new Set(['p', 'h']),
  run: null,
  space: new Set(['s', 'tab', 'line-break']),
  skipped: new Set(['annotation', 'tracked-changes', 'forms']),
}

/** The paragraphs of a part, as they read, without empty ones. */
const paragraphsOf = (xml: string, markup: Markup): string[] => {
  const lines: string[] = []
  let line = ''
  let skipping = 0
  let inParagraph = 0
  let inRun = false
  const end = () => {
    const words = line.replace(/\s+/g, ' ').trim()
    if (words !== '') lines.push(words)
    line = ''
  }
  for (const [, closing, name = '', empty, text] of xml.matchAll(
    /<(\/?)(?:[\w.-]+:)?([\w.-]+)(?:\s[^<>]*?)?(\/?)>|([^<]+)/g,
  )) {
    if (text !== undefined) {
      if (skipping === 0 && inParagraph > 0 && (markup.run === null || inRun))
        line += decodeXML(text)
      continue
    }
    const opens = closing === '' && empty === ''
    if (markup.skipped.has(name)) skipping += opens ? 1 : closing ? -1 : 0
    else if (skipping > 0) continue
    else if (markup.space.has(name)) line += ' '
    else if (name === markup.run) inRun = opens
    else if (markup.paragraph.has(name)) {
      // One in another, as in a box of text, ends what was said before it.
      end()
      inParagraph += opens ? 1 : closing ? -1 : 0
    }
  }
  end()
  return lines
}

/** Whether a part declares a document type: none of these documents may (ECMA-376, part 2, 8.1), and nobody unfolds what it names. */
const isDeclared = (xml: string): boolean => /<!DOCTYPE/i.test(xml)

const paragraphsIn = (zip: Zipped, part: string, markup: Markup): string[] | null => {
  const xml = zip.text(part)
  return xml === null || isDeclared(xml) ? null : paragraphsOf(xml, markup)
}

/** The paragraphs of a word-processor document, without heads and feet of pages; null where they cannot be read. */
export const documentParagraphs = (zip: Zipped, kind: 'docx' | 'odt'): string[] | null =>
  kind === 'docx'
    ? paragraphsIn(zip, 'word/document.xml', wordprocessing)
    : paragraphsIn(zip, 'content.xml', openDocument)

/** Those of the heads and feet of pages. */
export const marginParagraphs = (zip: Zipped): string[] =>
  [...zip.names]
    .filter((name) => /^word\/(?:header|footer)\d*\.xml$/.test(name))
    .sort()
    .flatMap((name) => paragraphsIn(zip, name, wordprocessing) ?? [])
