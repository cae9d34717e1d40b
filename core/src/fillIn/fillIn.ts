import { grouped } from '../grouped/index.ts'
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
 * Whether a page reads as before but for the blocks that were answered, and these ask for less.
 * @param answered their keys
 */
const readsRight = (
  before: readonly BlockReading[],
  after: readonly BlockReading[],
  answered: ReadonlySet<string>,
): boolean =>
  before.every((was, i) => {
    const now = after[i]
    if (!now || now.block.key !== was.block.key) return false
    if (!answered.has(was.block.key)) return stands(was) === stands(now)
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

/** A page with those of some answers that are still asked for, and which they are; null where they cannot be written with certainty. */
const withAnswers = (
  html: string,
  blocks: readonly ExpectedBlock[],
  given: readonly Answer[],
  { asOf, pageOf = analysePage }: Pick<PagesOf, 'asOf' | 'pageOf'>,
): { html: string; answers: Answer[] } | null => {
  const before = readBlocks(blocks, pageOf(html), asOf)
  const readings = grouped(before, ({ block }) => block.key)
  const answers = given.filter(({ block, says, nth }) =>
    (readings.get(block) ?? [])
      .flatMap(piecesOf)
      .some((piece) => piece.says === says && piece.nth === nth),
  )
  if (answers.length === 0) return null
  const { regions } = blockRegions(
    html,
    blocks.map((block) => ({ key: block.key, html: blockHtmlOn(block, asOf) })),
  )
  // Where nothing stands, only a mark says where it would.
  if (answers.some(({ block, says }) => says === '' && !regions.get(block)?.marked)) return null
  const written = writePieces(
    html,
    answers.map((answer) => {
      const region = regions.get(answer.block)
      const block = blocks.find(({ key }) => key === answer.block)
      return {
        ...answer,
        html: htmlOf(answer),
        within: region?.sure ? region.inner : { from: 0, to: html.length },
        inSentences: (block && askedOf(block)?.within) ?? false,
      }
    }),
  )
  if (written === null) return null
  const after = readBlocks(blocks, pageOf(written), asOf)
  const answered = new Set(answers.map(({ block }) => block))
  return readsRight(before, after, answered) ? { html: written, answers } : null
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
    const write = (some: readonly Answer[]): boolean => {
      const next = withAnswers(html, part.blocks, some, check)
      if (next === null) return false
      html = next.html
      written.push(...next.answers)
      return true
    }
    // One that is in doubt holds up none of the others.
    const byBlock = [...grouped(ofItem, ({ block }) => block).values()]
    if (!write(ofItem) && byBlock.length > 1) byBlock.forEach(write)
    if (html !== item.html) changes.push({ change: 'set-item', id: item.id, fields: { html } })
  }
  return success({
    changes,
    written,
    left: answers.filter((answer) => !written.includes(answer)),
    pictures: written.flatMap(({ picture }) => picture ?? []),
  })
}
