import { z } from 'zod'
import { pairedPages, type PagesOf } from '../check/index.ts'
import { success, type Result } from '../document/index.ts'
import { neededBy, type ExpectedBlock } from '../expand/index.ts'
import { analysePage, askedOf, readBlocks, sameText, type BlockReading } from '../page/index.ts'
import { blockKindWords, helpWith, isNote, answerTypes, Strength } from '../template/index.ts'

/** A piece of a page that asks the instructor. */
export const AskedPiece = z.strictObject({
  says: z.string().describe('As plain text; empty where nothing stands any more'),
  nth: z.number().int().describe('Which of those of its block that say the same, from 0'),
  mayGo: z
    .boolean()
    .describe('Whether it may just go: a note, or what stands beside an answer already'),
})
export type AskedPiece = z.output<typeof AskedPiece>

/** What a block of a page still asks. */
export const AskedThing = z.strictObject({
  block: z.string().describe('Key of the block'),
  title: z.string().describe('What stands above it, or what kind of block it is'),
  type: z.enum(answerTypes),
  strength: Strength,
  within: z
    .string()
    .nullable()
    .describe('The sentences it is asked in, as plain text; null where it has its own place'),
  hint: z.string().nullable(),
  example: z.string().nullable().describe('An answer as it could be, as HTML'),
  forCourse: z
    .boolean()
    .describe('Whether the same is asked at other places, and one answer holds for all'),
  pieces: z.array(AskedPiece),
})
export type AskedThing = z.output<typeof AskedThing>

/** A page of a course that still asks for something. */
export const AskingPage = z.strictObject({
  item: z.string().describe('Id of the item on the platform'),
  name: z.string(),
  url: z.string().nullable(),
  week: z.number().nullable(),
  neededBy: z.string().describe('The day by which students need it, YYYY-MM-DD'),
  things: z.array(AskedThing),
})
export type AskingPage = z.output<typeof AskingPage>

/** The prompts of a block that still stand, each told from those that say the same. */
export const piecesOf = ({
  block,
  state,
  text,
  stillAsks,
  byMarker,
}: BlockReading): AskedPiece[] => {
  const asked = askedOf(block)
  const isBeside = state === 'prompt-beside-answer'
  if (!asked || !(state === 'unfilled' || isBeside || (state === 'altered' && asked.within)))
    return []
  // Of what is asked piece by piece it is told which are left; a fill-in has one prompt, this one or an earlier one.
  const standing =
    block.definition.kind === 'fill-in'
      ? asked.prompts
          .filter((prompt) => sameText(text, prompt) || text.includes(prompt))
          .slice(0, 1)
      : stillAsks
  // Its place is known by its mark though nothing stands there any more.
  if (standing.length === 0 && text === '' && byMarker && !asked.within)
    return [{ says: '', nth: 0, mayGo: false }]
  return standing.map((says, i) => ({
    says,
    nth: standing.slice(0, i).filter((other) => other === says).length,
    mayGo: isBeside || (asked.within && isNote(says)),
  }))
}

const wordsOf = (html: string): string =>
  analysePage(html)
    .paragraphs.map(({ text }) => text)
    .join(' ')

const thingOf = (block: ExpectedBlock, pieces: AskedPiece[]): AskedThing => {
  const { definition } = block
  const asked = askedOf(block)
  const { hint = null, example = null } = helpWith(definition)
  return {
    block: block.key,
    title: ('label' in definition && definition.label) || blockKindWords(definition.kind),
    type: asked?.type ?? 'text',
    strength: block.strength,
    within: asked?.within ? wordsOf(block.html) : null,
    hint,
    example,
    forCourse: definition.kind === 'fill-in' && definition.scope === 'course',
    pieces,
  }
}

/** What the pages of a course still ask of its instructor, as far as they can be read. */
export interface AskedInCourse {
  /** In the order of the template; weeks of a break are left out. */
  pages: AskingPage[]
  /** Names of pages that were given something to ask, and cannot be read: whether they still ask it is not known. */
  unread: string[]
}

export const askedInCourse = (check: PagesOf): Result<AskedInCourse> => {
  const read = pairedPages(check)
  if (!read.ok) return read
  const { expected, untold, pageOf } = read.value
  const pages = read.value.pages.filter(({ part }) => !part.inBreak)
  const unread = [...untold, ...pages.filter(({ item }) => pageOf(item).notRead !== null)]
  return success({
    pages: pages.flatMap(({ part, item }): AskingPage[] => {
      const facts = pageOf(item)
      if (facts.notRead !== null) return []
      const things = readBlocks(part.blocks, facts, check.asOf).flatMap((reading) => {
        const pieces = piecesOf(reading)
        return pieces.length > 0 ? [thingOf(reading.block, pieces)] : []
      })
      return things.length > 0
        ? [
            {
              item: item.id,
              name: item.name,
              url: item.url,
              week: part.week?.number ?? null,
              neededBy: neededBy(expected, part),
              things,
            },
          ]
        : []
    }),
    unread: unread
      .filter(({ part }) => !part.inBreak && part.blocks.some((block) => askedOf(block) !== null))
      .map(({ item }) => item.name),
  })
}
