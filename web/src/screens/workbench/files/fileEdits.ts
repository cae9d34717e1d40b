import {
  escapedFormat,
  everyItem,
  filesLedToBy,
  filesOfItem,
  fileAmong,
  freshKey,
  newItem,
  takenKeys,
  type ItemFile,
  type Item,
  type Template,
  type TemplateEdit,
  type TemplateFile,
} from '@wickerframe/core'
import type { KeptFile } from '@wickerframe/contract'
import type { OutlineRow } from '../outlineRows.ts'
import { placeAfter } from '../sheetEdits.ts'

const known = ({ fileName, content, bytes, fields, words }: KeptFile) => ({
  fileName,
  content,
  bytes,
  fields,
  words,
})

const holdIt = (file: TemplateFile): TemplateEdit => ({
  edit: 'set-field',
  part: null,
  field: ['files', file.key],
  was: null,
  value: file,
})

/** The edit that has a part hand out a file in a way; null: none. */
export const handOut = (part: Item, file: ItemFile | null): TemplateEdit => ({
  edit: 'set-field',
  part: part.key,
  field: ['file'],
  was: part.file ?? null,
  value: file,
})

/** The edits that have a part hand out a file of the library, which the template holds then. */
export const handOutHeld = (template: Template, part: Item, file: TemplateFile): TemplateEdit[] => [
  ...holdHeld(template, file),
  handOut(part, { ...part.file, key: file.key }),
]

/** The edits that put a file into the template, unless it holds the same already, and have a part hand it out. */
export const putIntoPart = (template: Template, part: Item, kept: KeptFile): TemplateEdit[] => {
  const { edits, files } = holdFiles(template, [kept])
  const { left } = part.file ?? {}
  return [...edits, ...files.map(({ key }) => handOut(part, { key, ...(left ? { left } : {}) }))]
}

/** The edits that make a part of each of several files, in their order, at a row. */
export const partsOfFiles = (
  template: Template,
  kept: readonly KeptFile[],
  row: OutlineRow | undefined,
): { edits: TemplateEdit[]; keys: string[] } => {
  const { parent, at } = placeAfter(row, template, false)
  const taken = takenKeys(template)
  const { edits, files } = holdFiles(template, kept)
  const keys: string[] = []
  for (const [i, file] of files.entries()) {
    const key = freshKey(file.title, taken)
    taken.add(key)
    keys.push(key)
    const part: Item = {
      ...newItem('file', key, escapedFormat(file.title)),
      file: { key: file.key },
    }
    edits.push({ edit: 'add-part', parent, at: at + i, part })
  }
  return { edits, keys }
}

/** A file with what another holds, under its own key and title. */
export const withContentOf = (file: TemplateFile, kept: KeptFile): TemplateFile => {
  const { words: _, ...others } = file
  const { words, ...taken } = known(kept)
  return { ...others, ...taken, ...(words === undefined ? {} : { words }) }
}

/** The edit that puts another file in the place of one, wherever it is handed out. */
export const replaceFile = (file: TemplateFile, kept: KeptFile): TemplateEdit => ({
  edit: 'set-field',
  part: null,
  field: ['files', file.key],
  was: file,
  value: withContentOf(file, kept),
})

/** The part of the kind file that is open; null where it is another kind. */
export const filePartOf = (template: Template, key: string): Item | null =>
  everyItem(template).find((item) => item.key === key && item.kind === 'file') ?? null

/** In how many places of a template a file is handed out: parts, blocks of its home page, and blocks kept for several. */
export const placesOfFile = (template: Template, key: string): number =>
  everyItem(template).filter((item) => filesOfItem(item).has(key)).length +
  [...template.home.blocks, ...template.keptBlocks.map(({ block }) => block)].filter((block) =>
    filesLedToBy(block).has(key),
  ).length

/** The edits by which a template holds files, those that it does not hold already, and how it holds each. */
export const holdFiles = (
  template: Template,
  kept: readonly KeptFile[],
): { edits: TemplateEdit[]; files: TemplateFile[] } => {
  let held: readonly TemplateFile[] = template.files
  const edits: TemplateEdit[] = []
  const files = kept.map((one) => {
    const file = fileAmong(known(one), held)
    if (!held.includes(file)) {
      edits.push(holdIt(file))
      held = [...held, file]
    }
    return file
  })
  return { edits, files }
}

/** The edits by which a template holds a file of the library. */
export const holdHeld = (template: Template, file: TemplateFile): TemplateEdit[] =>
  template.files.some(({ key }) => key === file.key) ? [] : [holdIt(file)]
