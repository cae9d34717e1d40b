import {
  blockInPlace,
  escapeHtml,
  everyItem,
  everyObjective,
  freshKey,
  leftAs,
  mostFormats,
  newBlock,
  titleOfFileName,
  untitledDocument,
  waysToLeave,
  type Block,
  type KeptBlockBody,
  type Left,
  type Template,
  type TemplateEdit,
  type TemplateFile,
} from '@wickerframe/core'
import { blockTitle } from './blockWords.ts'
import type { FromAbove } from './fromAbove.ts'
import type { DescribedPicture } from './PictureForm.tsx'

/** A page and the blocks on it, which edits are made for. */
export interface BlocksOfPage {
  part: string
  blocks: readonly Block[]
}
/** Edits that are one step, and the block that is looked at after them. */
export interface BlockEdits {
  edits: TemplateEdit[]
  block: string
}

const takenOn = (keyed: readonly { key: string }[]): Set<string> =>
  new Set(keyed.map(({ key }) => key))
const placeOf = (blocks: readonly Block[], block: Block): number =>
  blocks.findIndex(({ key }) => key === block.key)
/** What a home page must show is shown once: a second one is no such element. */
const another = <Any extends Block>(block: Any, key: string): Any => {
  const copy = { ...structuredClone(block), key }
  delete copy.element
  return copy
}

/** A new block of a kind at a place; null where the template has nothing it could show. */
export const addBlock = (
  { part, blocks }: BlocksOfPage,
  at: number,
  kind: Block['kind'],
  template: Template,
): (BlockEdits & { added: Block }) | null => {
  const block = newBlock(kind, freshKey(kind, takenOn(blocks)), template)
  return (
    block && { edits: [{ edit: 'add-block', part, at, block }], block: block.key, added: block }
  )
}
/** A new text that shows a picture. */
export const addPicture = (
  { part, blocks }: BlocksOfPage,
  at: number,
  { asset, alternativeText }: DescribedPicture,
): BlockEdits => {
  const key = freshKey('picture', takenOn(blocks))
  const html = `<img src="asset:${asset.fileName}" alt="${escapeHtml(alternativeText)}">`
  const block: Block = { kind: 'fixed-text', key, strength: 'must', html }
  return { edits: [{ edit: 'add-block', part, at, block }], block: key }
}

/**
 * New documents that files are offered in: files of one name are one document in each of its formats.
 * @param after key of the block that they come below; null: the last
 */
export const addDocuments = (
  { part, blocks }: BlocksOfPage,
  after: string | null,
  files: readonly TemplateFile[],
): BlockEdits | null => {
  const taken = takenOn(blocks)
  const at = blocks.findIndex(({ key }) => key === after) + 1 || blocks.length
  const documents = new Map<string, TemplateFile[]>()
  for (const file of files) {
    const name = titleOfFileName(file.fileName).toLowerCase()
    const same = documents.get(name)
    if (same && same.length < mostFormats) same.push(file)
    else documents.set(same ? `${name} ${file.key}` : name, [file])
  }
  const edits = [...documents.values()].map((formats, i): TemplateEdit & { block: Block } => {
    const key = freshKey('document', taken)
    taken.add(key)
    const title = formats[0]?.title ?? untitledDocument
    const block: Block = {
      kind: 'document',
      key,
      strength: 'must',
      label: '',
      title,
      files: formats.map((file) => file.key),
    }
    return { edit: 'add-block', part, at: at + i, block }
  })
  const last = edits.at(-1)
  return last ? { edits, block: last.block.key } : null
}

/** A block whose objectives are no others’: each under a key that none has. */
const withOwnObjectives = <Any extends Block>(block: Any, takenKeys: ReadonlySet<string>): Any => {
  if (block.kind !== 'objectives') return block
  const taken = new Set(takenKeys)
  return {
    ...block,
    objectives: block.objectives.map((objective) => {
      const key = freshKey(objective.key.replace(/-\d+$/, ''), taken)
      taken.add(key)
      return { ...objective, key }
    }),
  }
}

/** The same once more below it, under keys of its own. */
export const duplicateBlock = (
  { part, blocks }: BlocksOfPage,
  block: Block,
  takenObjectives: ReadonlySet<string>,
): BlockEdits => {
  const key = freshKey(block.key.replace(/-\d+$/, ''), takenOn(blocks))
  const copy = withOwnObjectives(another(block, key), takenObjectives)
  const at = placeOf(blocks, block) + 1
  return { edits: [{ edit: 'add-block', part, at, block: copy }], block: key }
}

/** Kinds of block that are one text and nothing else. */
export type TextBlock = Extract<
  Block,
  { kind: 'fixed-text' | 'guidance-note' | 'take-care' | 'in-short' }
>
const textKinds: ReadonlySet<string> = new Set<TextBlock['kind']>([
  'fixed-text',
  'guidance-note',
  'take-care',
  'in-short',
])
export const isTextBlock = (block: Block): block is TextBlock => textKinds.has(block.kind)

const setHtml = (part: string, block: TextBlock, html: string): TemplateEdit => ({
  edit: 'set-block',
  part,
  block: block.key,
  field: 'html',
  was: block.html,
  value: html,
})

/** A text becomes two, the second under a key of its own. */
export const splitText = (
  { part, blocks }: BlocksOfPage,
  block: TextBlock,
  [first, second]: readonly [first: string, second: string],
): BlockEdits => {
  const key = freshKey(block.key.replace(/-\d+$/, ''), takenOn(blocks))
  const at = placeOf(blocks, block) + 1
  return {
    edits: [
      setHtml(part, block, first),
      { edit: 'add-block', part, at, block: { ...another(block, key), html: second } },
    ],
    block: key,
  }
}

/** Whether a block and the one above it are texts of the same kind, left to the instructor alike, and of this page. */
export const mayJoin = (blocks: readonly Block[], index: number, fromAbove: FromAbove): boolean => {
  const [upper, block] = [blocks[index - 1], blocks[index]]
  return (
    upper !== undefined &&
    block !== undefined &&
    upper.kind === block.kind &&
    isTextBlock(block) &&
    leftAs(upper) === leftAs(block) &&
    !fromAbove.has(upper.key) &&
    !fromAbove.has(block.key)
  )
}

/** What a card of people asks for when it first asks. */
const firstAsked = ['When and where students find you', 'How soon you answer']

/** A block is left to the instructor, or stands as it is written. */
export const leaveBlock = (
  { part }: BlocksOfPage,
  block: Block,
  way: Left['as'] | null,
): BlockEdits | null => {
  if (way !== null && !waysToLeave(block.kind).includes(way)) return null
  const was = 'left' in block ? (block.left ?? null) : null
  const set = (field: string, before: unknown, value: unknown): TemplateEdit => ({
    edit: 'set-block',
    part,
    block: block.key,
    field,
    was: before,
    value,
  })
  const needsLines = block.kind === 'contact-card' && way === 'asked' && !block.lines?.length
  return {
    edits: [
      set('left', was, way === null ? null : { as: way }),
      ...(needsLines ? [set('lines', block.lines ?? null, firstAsked)] : []),
    ],
    block: block.key,
  }
}

/** A text and the one above it become one; null where they cannot. */
export const joinTexts = (
  { part, blocks }: BlocksOfPage,
  block: TextBlock,
  fromAbove: FromAbove,
): BlockEdits | null => {
  const at = placeOf(blocks, block)
  const upper = blocks[at - 1]
  if (!upper || !isTextBlock(upper) || !mayJoin(blocks, at, fromAbove)) return null
  return {
    edits: [
      { edit: 'remove-block', part, block: block.key },
      setHtml(part, upper, upper.html + block.html),
    ],
    block: upper.key,
  }
}

/** A block is kept for other places under a name, and this place shows the kept one. */
export const keepBlock = (
  { part, blocks }: BlocksOfPage,
  block: Exclude<Block, { kind: 'kept-block' }>,
  pageName: string,
  template: Template,
): BlockEdits => {
  const key = freshKey(`${part}-${block.key}`, takenOn(template.keptBlocks))
  const { element, basis, ...bare } = block
  const place: Block = {
    kind: 'kept-block',
    key: block.key,
    strength: block.strength,
    kept: key,
    ...(element ? { element } : {}),
    ...(basis ? { basis } : {}),
  }
  return {
    edits: [
      {
        edit: 'set-field',
        part: null,
        field: ['keptBlocks', key],
        was: null,
        value: {
          key,
          title: `${blockTitle(block.kind)} of ${pageName}`,
          block: bare satisfies KeptBlockBody,
        },
      },
      { edit: 'remove-block', part, block: block.key },
      { edit: 'add-block', part, at: placeOf(blocks, block), block: place },
    ],
    block: block.key,
  }
}

/** What a place shows of a kept block becomes the page's own; null where there is no such kept block. */
export const loosenBlock = (
  { part, blocks }: BlocksOfPage,
  block: Extract<Block, { kind: 'kept-block' }>,
  template: Template,
): BlockEdits | null => {
  const shown = blockInPlace(block, template.keptBlocks)
  if (!shown) return null
  const places = [...template.home.blocks, ...everyItem(template).flatMap(({ blocks }) => blocks)]
  const isShownElsewhere =
    places.filter((other) => other.kind === 'kept-block' && other.kept === block.kept).length > 1
  // What still stands at another place keeps its objectives to itself.
  const own = isShownElsewhere
    ? withOwnObjectives(shown, new Set(everyObjective(template).map(({ key }) => key)))
    : shown
  return {
    edits: [
      { edit: 'remove-block', part, block: block.key },
      { edit: 'add-block', part, at: placeOf(blocks, block), block: own },
    ],
    block: block.key,
  }
}

/** A block stands at another place of its page, counted without it; null: it stands there already. */
export const moveBlock = (
  { part, blocks }: BlocksOfPage,
  block: Block,
  at: number,
): BlockEdits | null => {
  const to = Math.max(0, Math.min(blocks.length - 1, at))
  return placeOf(blocks, block) === to
    ? null
    : { edits: [{ edit: 'move-block', part, block: block.key, at: to }], block: block.key }
}

/** A block is taken out; after it the one is looked at that stood below it, or else above; null: none is left. */
export const removeBlock = (
  { part, blocks }: BlocksOfPage,
  block: Block,
): { edits: TemplateEdit[]; block: string | null } => {
  const at = placeOf(blocks, block)
  return {
    edits: [{ edit: 'remove-block', part, block: block.key }],
    block: (blocks[at + 1] ?? blocks[at - 1])?.key ?? null,
  }
}
