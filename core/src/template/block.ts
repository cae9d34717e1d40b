import { z } from 'zod'
import { Line, schemasOf } from '../document/index.ts'
import { handoutsIn } from '../files/index.ts'
import { firstWords } from './block/firstWords.ts'
import type { Left } from './block/left.ts'
import type { BlockGroup, BlockKind, BlockWords, FileShown, ImageShown } from './block/kind.ts'
import { definedKinds } from './block/kinds.ts'
import { fresh, shared } from './block/shared.ts'
import type { Asset } from './image.ts'
import { Key } from './words.ts'

export { firstWords } from './block/firstWords.ts'
export { escapeHtml } from './block/html.ts'
export type { BlockGroup, BlockHost, BlockKind, BlockWords } from './block/kind.ts'
export { mostFormats, untitledDocument } from './block/kinds/document.ts'
export { whatWeDo } from './block/kinds/schedule.ts'
export { newPrompt } from './block/kinds/fill-in.ts'
export { Objective } from './block/kinds/objectives.ts'
export type { Left } from './block/left.ts'
export { newReader, readersIn, withReader } from './block/reader.ts'
export { isNote, newNote, newSpot, spotsIn, withSpots } from './block/spots.ts'
export { answerTypes, HomeElement, homeElements, type AnswerType } from './block/shared.ts'
export type {
  DateLine,
  OutcomeLine,
  PartLink,
  ScheduleLine,
  Writing,
  WrittenBlock,
} from './block/writing.ts'

/** The kinds of block that can be kept and used in several places. */
export const KeptBlockBody = z.discriminatedUnion('kind', schemasOf(definedKinds))
export type KeptBlockBody = z.output<typeof KeptBlockBody>

/** A place where a kept block is shown: a correction of the kept one reaches all of them. */
export const KeptBlockPlace = z.strictObject({
  ...shared,
  kind: z.literal('kept-block'),
  kept: Key.describe('Key of the kept block'),
})

export const Block = z.discriminatedUnion('kind', [...KeptBlockBody.options, KeptBlockPlace])
export type Block = z.output<typeof Block>

/** A block kept under a name, to be put in elsewhere. */
export const KeptBlock = z.strictObject({ key: Key, title: Line(200), block: KeptBlockBody })
export type KeptBlock = z.output<typeof KeptBlock>

type AnyKind = BlockKind<KeptBlockBody>
const kinds: ReadonlyMap<string, AnyKind> = new Map(
  definedKinds.map((defined): [string, AnyKind] => [defined.kind, defined]),
)

/** All that is known of a kind of block. @throws for a name that is none: a schema lets no other through */
export const blockKind = (kind: KeptBlockBody['kind']): AnyKind => {
  const found = kinds.get(kind)
  if (!found) throw new Error(`there is no kind of block named ${String(kind)}`)
  return found
}

/** A block as it stands on its page: a place that shows a kept block becomes that block, under the place's key. */
export const blockInPlace = (block: Block, kept: readonly KeptBlock[]): KeptBlockBody | null => {
  if (block.kind !== 'kept-block') return block
  const shown = kept.find((candidate) => candidate.key === block.kept)
  return shown
    ? {
        ...shown.block,
        key: block.key,
        strength: block.strength,
        ...(block.element ? { element: block.element } : {}),
        ...(block.basis ? { basis: block.basis } : {}),
        ...(block.beside ? { beside: block.beside } : {}),
        ...(block.card ? { card: block.card } : {}),
      }
    : null
}

/** What the kinds are called, and where they are offered, in the order in which they are. */
export const offeredBlocks: readonly { kind: Block['kind']; title: string; group: BlockGroup }[] = [
  ...definedKinds.map(({ kind, title, group }) => ({ kind, title, group })),
  { kind: 'kept-block', title: 'Kept block', group: 'kept' },
]

/** A block of a kind as it is first put in; null where the template has nothing it could show. */
export const newBlock = (
  kind: Block['kind'],
  key: string,
  template: {
    parts: readonly { key: string }[]
    houseTexts: readonly { key: string }[]
    assets: readonly Asset[]
    keptBlocks: readonly { key: string }[]
  },
): Block | null => {
  if (kind !== 'kept-block') return blockKind(kind).empty(key, template)
  const [first] = template.keptBlocks
  return first ? { ...fresh('kept-block', key), kept: first.key } : null
}

/** Fields of blocks that hold HTML, whatever the kind. */
export const htmlFields: ReadonlySet<string> = new Set(
  definedKinds.flatMap((defined) => defined.htmlFields),
)
/** Fields of blocks whose change is told word by word, whatever the kind. */
export const wordFields: ReadonlySet<string> = new Set(
  definedKinds.flatMap((defined) => defined.wordFields),
)
/** What a block says, or null where it has no words of its own. */
export const wordsOfBlock = (block: Block): BlockWords[] | null =>
  block.kind === 'kept-block' ? null : blockKind(block.kind).words(block)

const fixedKinds: ReadonlySet<string> = new Set(
  definedKinds.flatMap(({ kind, isFixed }) => (isFixed ? [kind] : [])),
)
/** How a block is left to the instructor: asked for, or proposed and theirs to change; null where it is not. */
export const leftAs = (block: Block): Left['as'] | null =>
  block.kind === 'fill-in' ? 'asked' : 'left' in block ? (block.left?.as ?? null) : null
/** The hint and the example that go with what is asked for, where there are any. */
export const helpWith = (block: Block): { hint?: string; example?: string } => {
  const { hint, example } =
    block.kind === 'fill-in'
      ? block
      : 'left' in block && block.left?.as === 'asked'
        ? block.left
        : {}
  return { ...(hint ? { hint } : {}), ...(example ? { example } : {}) }
}
/** The ways in which a kind may be left to the instructor, besides standing as it is written. */
export const waysToLeave = (kind: Block['kind']): readonly Left['as'][] => {
  if (kind === 'fill-in' || kind === 'kept-block') return []
  const { isFixed, answer } = blockKind(kind)
  return [...(isFixed ? (['proposed'] as const) : []), ...(answer ? (['asked'] as const) : [])]
}
/** Whether a block's wording is the template's own and must stand as written; what is made from the course changes with it. */
export const isFixedText = (block: Block): boolean =>
  fixedKinds.has(block.kind) && leftAs(block) === null

/** Images that a block shows besides those in its HTML, each with where in the block it stands. */
export const imagesOfBlock = (block: Block): readonly ImageShown[] =>
  block.kind === 'kept-block' ? [] : (blockKind(block.kind).images?.(block) ?? [])
/** Whether a block shows an image, in a field of its own or in its HTML. */
export const showsImage = (
  block: Block,
  { key, fileName }: { key: string; fileName: string },
): boolean =>
  imagesOfBlock(block).some(({ image }) => image === key) ||
  Object.entries(block).some(
    ([field, value]) =>
      htmlFields.has(field) &&
      typeof value === 'string' &&
      value.includes(`src="asset:${fileName}"`),
  )

/** Files that a block hands out besides those in its HTML, each with where in the block it stands. */
export const filesOfBlock = (block: Block): readonly FileShown[] =>
  block.kind === 'kept-block' ? [] : (blockKind(block.kind).files?.(block) ?? [])
/** Keys of the files that a block leads to, in a field of its own or in its HTML. */
export const filesLedToBy = (block: Block): ReadonlySet<string> =>
  new Set([
    ...filesOfBlock(block).map(({ file }) => file),
    ...Object.entries(block).flatMap(([field, value]) =>
      htmlFields.has(field) && typeof value === 'string' ? handoutsIn(value) : [],
    ),
  ])

/** What people call a kind of block within a sentence, e.g. `work list`. */
export const blockKindWords = (kind: string): string =>
  (kinds.get(kind)?.title ?? kind.replaceAll('-', ' ')).toLowerCase()

/** A block by what people know it by: its label, else its kind and its first words. */
export const blockName = (block: Block): string => {
  if ('label' in block && block.label) return `“${block.label}”`
  const [words] = wordsOfBlock(block) ?? []
  const first = words ? firstWords('html' in words ? words.html : words.text) : ''
  return first === '' ? blockKindWords(block.kind) : `${blockKindWords(block.kind)} “${first}”`
}
