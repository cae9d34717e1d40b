import { z } from 'zod'
import { pairedPages, type PagesOf } from '../check/index.ts'
import type { Change } from '../course/index.ts'
import { success, type Result } from '../document/index.ts'
import type { ExpectedBlock } from '../expand/index.ts'
import { sentHandout, ShownFile } from '../files/index.ts'
import {
  analysePage,
  askedOf,
  blockHtmlOn,
  blockRegions,
  readBlocks,
  type BlockReading,
} from '../page/index.ts'
import { Asset, escapeHtml, storedImage } from '../template/index.ts'
import { piecesOf } from './askedInCourse.ts'
import { ownWords } from './ownWords.ts'
import { writePieces } from './writePieces.ts'

/** What somebody wrote for one piece of a page that asks. */
export const Answer = z.strictObject({
  item: z.string().min(1).max(200).describe('Id of the item on the platform'),
  block: z.string().min(1).max(200).describe('Key of the block'),
  says: z
    .string()
    .max(20_000)
    .describe('What the piece says, as plain text; empty where nothing stands any more'),
  nth: z.number().int().min(0).max(500).describe('Which of those that say the same, from 0'),
  html: z.string().max(100_000).describe('The answer; empty: the piece goes'),
  picture: Asset.optional().describe('A picture that is the answer, in place of the HTML'),
  file: ShownFile.optional().describe(
    'A file that is the answer: a link to it, in place of the HTML',
  ),
})
export type Answer = z.output<typeof Answer>

/** What became of answers. */
export interface FilledIn {
  changes: Change[]
  written: Answer[]
  /** Of which nothing was written: answered meanwhile, gone, or not told from what stands around it. */
  left: Answer[]
  /** Pictures that the changes show, and the platform has to have before. */
  pictures: Asset[]
}

/** How a block stands. Whose words are whose is not told from neighbours that are answered in own words, on a page without marks. */
const stands = ({ state, revision, stillAsks }: BlockReading): string =>
  JSON.stringify([state, revision, stillAsks])

/**
 * Whether a page reads as before but for the block that was answered, and this one asks for less.
 * @param answered its key
 */
const readsRight = (
  before: readonly BlockReading[],
  after: readonly BlockReading[],
  answered: string,
): boolean =>
  before.every((was, i) => {
    const now = after[i]
    if (!now || now.block.key !== was.block.key) return false
    if (was.block.key !== answered) return stands(was) === stands(now)
    if (now.state === 'missing' || now.state === 'prompt-beside-answer') return false
    if (was.block.definition.kind === 'fill-in') return now.state === 'filled'
    return now.state === 'filled' || now.stillAsks.length < was.stillAsks.length
  })

/** What is written for an answer: its picture, a link to its file, or its words as they may come in. */
const htmlOf = ({ html, picture, file }: Answer): string => {
  if (picture)
    return `<p><img src="asset:${escapeHtml(storedImage(picture).name)}" alt="${escapeHtml(picture.alternativeText)}"></p>`
  return file
    ? `<p><a href="${sentHandout(file)}">${escapeHtml(file.name)}</a></p>`
    : ownWords(html).html
}

/** A page with those answers of one block that are still asked for, and which they are; null where they cannot be written with certainty. */
const withBlock = (
  html: string,
  blocks: readonly ExpectedBlock[],
  key: string,
  given: readonly Answer[],
  { asOf, pageOf = analysePage }: Pick<PagesOf, 'asOf' | 'pageOf'>,
): { html: string; answers: Answer[] } | null => {
  const block = blocks.find((block) => block.key === key)
  const asked = block && askedOf(block)
  if (!asked) return null
  const before = readBlocks(blocks, pageOf(html), asOf)
  const standing = before.filter((reading) => reading.block.key === key).flatMap(piecesOf)
  const answers = given.filter(({ says, nth }) =>
    standing.some((piece) => piece.says === says && piece.nth === nth),
  )
  if (answers.length === 0) return null
  const { regions } = blockRegions(
    html,
    blocks.map((block) => ({ key: block.key, html: blockHtmlOn(block, asOf) })),
  )
  const region = regions.get(key)
  // Where nothing stands, only a mark says where it would.
  if (answers.some(({ says }) => says === '') && !region?.marked) return null
  const within = region?.sure ? region.inner : { from: 0, to: html.length }
  const pieces = answers.map((answer) => ({ ...answer, html: htmlOf(answer) }))
  const written = writePieces(html, within, pieces, asked.within)
  if (written === null) return null
  const after = readBlocks(blocks, pageOf(written), asOf)
  return readsRight(before, after, key) ? { html: written, answers } : null
}

const grouped = <T>(list: readonly T[], by: (one: T) => string): Map<string, T[]> => {
  const groups = new Map<string, T[]>()
  for (const one of list) groups.set(by(one), [...(groups.get(by(one)) ?? []), one])
  return groups
}

/**
 * Writes answers into the pages of a course: each in place of what asks for it, and nothing else of a page is touched. What is
 * written is let in like any HTML, and read again: where it does not read as it should, it is not written.
 */
export const fillIn = (check: PagesOf, answers: readonly Answer[]): Result<FilledIn> => {
  const read = pairedPages(check)
  if (!read.ok) return read
  const changes: Change[] = []
  const written: Answer[] = []
  for (const [itemId, ofItem] of grouped(answers, ({ item }) => item)) {
    const page = read.value.pages.find(({ item }) => item.id === itemId)
    if (!page || read.value.pageOf(page.item).notRead !== null) continue
    const { part, item } = page
    let { html } = item
    for (const [block, ofBlock] of grouped(ofItem, ({ block }) => block)) {
      const next = withBlock(html, part.blocks, block, ofBlock, check)
      if (next === null) continue
      html = next.html
      written.push(...next.answers)
    }
    if (html !== item.html) changes.push({ change: 'set-item', id: item.id, fields: { html } })
  }
  return success({
    changes,
    written,
    left: answers.filter((answer) => !written.includes(answer)),
    pictures: written.flatMap(({ picture }) => picture ?? []),
  })
}
