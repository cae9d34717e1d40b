import type { z } from 'zod'
import type { Asset } from '../image.ts'
import type { AnswerType, HomeElement } from './shared.ts'
import type { WrittenBlock, Writing } from './writing.ts'

/** Where a kind is offered: what the template writes, what the instructor does, what the library keeps, what the course gives. */
export type BlockGroup = 'written' | 'left' | 'kept' | 'made'

/** Words of a block, in HTML or in plain text. */
export type BlockWords = { html: string } | { text: string }

/** The key of an image, and the way to the field that holds it. */
export interface ImageShown {
  image: string
  at: readonly PropertyKey[]
}
/** An image in a field that may be empty. */
export const imageIn = (image: string | undefined, at: readonly PropertyKey[]): ImageShown[] =>
  image === undefined ? [] : [{ image, at }]

/** The key of a file, and the way to the field that holds it. */
export interface FileShown {
  file: string
  at: readonly PropertyKey[]
}

/** What of a template a block may be made of when it is first put in. */
export interface BlockHost {
  parts: readonly { key: string }[]
  houseTexts: readonly { key: string }[]
  assets: readonly Asset[]
}

/**
 * What is known of a kind of block apart from its schema and its editor. Methods, not properties, so that a kind may be asked
 * about whatever block it is of.
 */
export interface BlockTraits<Body = unknown> {
  /** What people call it. */
  title: string
  group: BlockGroup
  /** Whether its wording is the template's own and must stand as written; what is made from the course changes with it. */
  isFixed: boolean
  /** Of what kind the answer is where it is asked of the instructor; without it, it is never asked for. */
  answer?: AnswerType
  /** The elements of a home page that a block is, where nothing else is said of it. */
  shows?(block: Body): readonly HomeElement[]
  /** Images it shows besides those in its HTML: the key of each, and where in the block it stands. */
  images?(block: Body): readonly ImageShown[]
  /** Files it hands out besides those in its HTML. */
  files?(block: Body): readonly FileShown[]
  /** Fields that hold HTML: they are held against what is let into a course, and proofread. */
  htmlFields: readonly string[]
  /** Fields whose change is told word by word. */
  wordFields: readonly string[]
  /** As it is first put in; null where the template has nothing it could show. */
  empty(key: string, host: BlockHost): Body | null
  /** What deployment writes for it. */
  html(block: Body, writing: Writing): WrittenBlock
  /** What it says, for showing what changed in it; null where it has no words of its own. */
  words(block: Body): BlockWords[] | null
}
export interface BlockKind<Body = unknown> extends BlockTraits<Body> {
  kind: string
}

export const defineBlock = <const Kind extends string, Schema extends z.ZodType>(
  kind: Kind,
  schema: Schema,
  traits: BlockTraits<z.output<Schema>>,
) => ({ kind, schema, ...traits })
