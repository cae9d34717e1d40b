import {
  rubricPoints,
  type Asset,
  type HouseText,
  type ImageSet,
  type KeptBlock,
  type Rubric,
  type TemplateFile,
} from '@wickerframe/core'
import type { LibraryEntry, LibraryKind } from '@wickerframe/contract'
import { plural } from '../../controls/controls.tsx'
import { fileFacts } from '../../controls/FileFacts.tsx'
import { blockTitle } from '../workbench/page/blockWords.ts'

/** Kinds that have a list of their own; sets stand beside their images. */
export type ShownKind = Exclude<LibraryKind, 'image-set'>
/** What the library keeps: its kinds, what people call them, and what they are. */
export const kinds: readonly (readonly [ShownKind, string, string])[] = [
  [
    'house-text',
    'House texts',
    'A passage, file or page kept centrally and shown in many courses: a policy, support contacts.',
  ],
  [
    'image',
    'Images',
    'Drawings and photographs with what they show and under which licence they may be used.',
  ],
  [
    'file',
    'Files',
    'Documents, tables, slides and recordings that parts hand out and pages lead to; a document with fields is filled for each course.',
  ],
  ['rubric', 'Rubrics', 'By what work is judged, for any template to take.'],
  ['block', 'Blocks', 'Blocks kept for other pages and templates.'],
]

/** What an entry holds, by its kind. */
export type Held =
  | { kind: 'house-text'; held: HouseText }
  | { kind: 'image'; held: Asset }
  | { kind: 'file'; held: TemplateFile }
  | { kind: 'rubric'; held: Rubric }
  | { kind: 'block'; held: KeptBlock }
  | { kind: 'image-set'; held: ImageSet }
export const heldBy = ({ kind, document }: LibraryEntry): Held =>
  // The server reads a document by the schema of its kind.
  ({ kind, held: document }) as Held

/** What people call an entry: of an image, what it shows. */
export const entryName = (entry: LibraryEntry): string => {
  const of = heldBy(entry)
  return of.kind === 'image' ? of.held.alternativeText : entry.title
}

/** What is said of an entry in a line. */
export const entryFacts = (entry: LibraryEntry): string => {
  const of = heldBy(entry)
  switch (of.kind) {
    case 'house-text': {
      const last = of.held.revisions.at(-1)
      return `${of.held.form}, revision ${last?.number}, in force from ${last?.inForceFrom}`
    }
    case 'image':
      return of.held.fileName
    case 'file':
      return fileFacts(of.held)
    case 'rubric':
      return `${rubricPoints(of.held)} points, ${plural(of.held.criteria.length, 'criterion', 'criteria')}`
    case 'block':
      return blockTitle(of.held.block.kind)
    case 'image-set':
      return plural(of.held.images.length, 'image')
  }
}

/** In how many places an entry is used. */
export const usesOf = ({ templates, courses }: LibraryEntry): string =>
  templates.length + courses === 0
    ? 'used nowhere yet'
    : `${plural(templates.length, 'template')}, ${plural(courses, 'course')}`

/** All the words of an entry that a search looks through, in lower case. */
const wordsOf = (entry: LibraryEntry): string => {
  const of = heldBy(entry)
  const own =
    of.kind === 'house-text'
      ? of.held.revisions.map(({ html }) => html.replace(/<[^>]*>/g, ' '))
      : of.kind === 'image'
        ? [of.held.fileName, of.held.licence]
        : of.kind === 'file'
          ? [of.held.fileName, of.held.licence, of.held.words ?? '']
          : of.kind === 'rubric'
            ? of.held.criteria.map(({ text }) => text)
            : []
  return [entryName(entry), ...own, ...entry.templates.map(({ title }) => title)]
    .join(' ')
    .toLowerCase()
}

/** The entries that hold every word of what is looked for. */
export const foundAmong = (entries: readonly LibraryEntry[], sought: string): LibraryEntry[] => {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean)
  return entries.filter((entry) => {
    const held = wordsOf(entry)
    return words.every((word) => held.includes(word))
  })
}
