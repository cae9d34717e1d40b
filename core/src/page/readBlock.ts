import { datesMentioned } from '../calendar/index.ts'
import type { ExpectedBlock } from '../expand/index.ts'
import { fileEndings, readHandoutAddress } from '../files/index.ts'
import { isNote, leftAs, type AnswerType } from '../template/index.ts'
import type { PageLink, Paragraph } from './analysePage.ts'
import { askedOf, type Asked } from './asked.ts'
import { textIn, textOf } from './deployedText.ts'
import { blockHtmlOn } from './renderPage.ts'
import { isTextOf, sameText } from './sameText.ts'
import { fillings, promptsIn } from './spots.ts'
import { countWords, shareSurviving } from './wordDifference.ts'

/** How a block of the template stands in a page. */
export type BlockState =
  | 'unchanged'
  | 'altered'
  | 'missing'
  | 'unfilled'
  | 'filled'
  | 'prompt-beside-answer'

export interface BlockReading {
  block: ExpectedBlock
  state: BlockState
  /** The words found in its place; empty when missing. */
  text: string
  /** Share of the expected words that are still there, 0 to 1; told of guidance notes and of what is unchanged only. */
  surviving: number
  /** Whether a marker of the platform's copy named it; otherwise it was known by its content. */
  byMarker: boolean
  /** For a house text that matches a revision word for word: its number. */
  revision: number | null
  /** Of what is asked for piece by piece: the prompts that still stand. */
  stillAsks: readonly string[]
  /** For a fill-in that is filled: whether the answer is of the kind asked for (an image, a date, a list …). */
  ofType: boolean
  /** For a fill-in: its label is gone from beside the answer, or the answer stands outside its frame; null otherwise. */
  shapeLost: 'label' | 'outside' | null
  /** Places of its paragraphs in the page, ascending. */
  paragraphs: number[]
}

/** Whether a text is what HTML of deployment's says, wherever its paragraphs end. */
const saysIt = (text: string, html: string): boolean =>
  isTextOf(text, html) || sameText(text, textOf(html))
/** What stands in a block besides words. */
export interface Holding {
  images: number
  links: readonly PageLink[]
  media: number
  tables: number
  lists: number
}

const mailAddress = /[\w.+-]{1,64}@[\w-]{1,63}(?:\.[\w-]{1,63}){1,4}/
/** What files are called that pages lead to: those that may be put in, and others that people put there by hand. */
const fileAddress = new RegExp(
  `\\.(?:${[...fileEndings, 'doc', 'xls', 'ppt', 'zip', 'epub'].join('|')})(?:[?#]|$)`,
  'i',
)
/** Whether an address leads to a file, by how it is written. */
const isFileAddress = (href: string): boolean =>
  fileAddress.test(href) || /\/files\//.test(href) || readHandoutAddress(href) !== null

/** Whether an answer is of the kind that is asked for. */
const isOfType = (type: AnswerType, text: string, holding: Holding, lines: number): boolean => {
  switch (type) {
    case 'image':
      return holding.images > 0
    case 'video':
      return holding.media > 0 || holding.links.length > 0
    case 'file':
      return holding.links.some((link) => isFileAddress(link.href))
    case 'link':
      return holding.links.length > 0
    case 'e-mail':
      return mailAddress.test(text) || holding.links.some((link) => link.href.startsWith('mailto:'))
    case 'date':
      return datesMentioned(text).length > 0
    case 'list':
      return holding.lists > 0 || lines > 1
    case 'table':
      return holding.tables > 0
    case 'text':
    case 'rich-text':
      return true
  }
}

/** So many words tell a prompt also where it stands within a longer paragraph. */
const tellingWords = 4

/** Reads a block that asks for something piece by piece: which pieces still ask, and whether anything was written beside them. */
const readAsked = (
  { type, prompts, given }: Asked,
  found: readonly Paragraph[],
  holding: Holding,
  reading: (state: BlockState, extra: Partial<BlockReading>) => BlockReading,
): BlockReading => {
  const left = [...given]
  const own = found.filter(({ text }) => {
    const at = left.findIndex((words) => sameText(words, text))
    if (at >= 0) left.splice(at, 1)
    return at < 0
  })
  const isPrompt = (text: string) => prompts.some((prompt) => sameText(prompt, text))
  const written = own.filter(({ text }) => !isPrompt(text))
  const stillAsks = prompts.filter(
    (prompt) =>
      own.some(({ text }) => sameText(text, prompt)) ||
      (countWords(prompt) >= tellingWords && written.some(({ text }) => text.includes(prompt))),
  )
  const told = { text: textIn(own), stillAsks }
  const holds = holding.images + holding.media > 0
  if (stillAsks.length > 0)
    return reading(
      prompts.length === 1 && (written.length > 0 || holds) ? 'prompt-beside-answer' : 'unfilled',
      told,
    )
  return own.length === 0 && !holds
    ? reading('unfilled', told)
    : reading('filled', { ...told, ofType: isOfType(type, told.text, holding, own.length) })
}

/** Reads a text with spots in its sentences: whether the sentences stand, and which spots still say what they ask. */
const readSpots = (
  { prompts }: Asked,
  text: string,
  wanted: string,
  mayDiffer: boolean,
  reading: (state: BlockState, extra: Partial<BlockReading>) => BlockReading,
): BlockReading => {
  const stillAsks = promptsIn(text, prompts)
  const filled = fillings(wanted, prompts, text)
  // A note is to go.
  const empty = prompts.filter((prompt, i) => filled?.[i] === '' && !isNote(prompt))
  if (!filled && !mayDiffer) return reading('altered', { stillAsks })
  const asks = [...stillAsks, ...empty]
  return reading(asks.length > 0 ? 'unfilled' : 'filled', { stillAsks: asks })
}

/** Reads one block from the paragraphs that belong to it. */
export const readBlock = (
  block: ExpectedBlock,
  found: readonly Paragraph[],
  places: number[],
  byMarker: boolean,
  holding: Holding,
  imageBeside: boolean,
  onDate: string,
): BlockReading => {
  const text = textIn(found)
  const hasImage = holding.images > 0
  const wanted = () => textOf(blockHtmlOn(block, onDate))
  const reading = (state: BlockState, extra: Partial<BlockReading> = {}): BlockReading => ({
    block,
    state,
    text,
    surviving:
      state === 'unchanged'
        ? 1
        : block.kind === 'guidance-note'
          ? shareSurviving(wanted(), text)
          : 0,
    byMarker,
    revision: null,
    stillAsks: [],
    ofType: true,
    shapeLost: null,
    paragraphs: places,
    ...extra,
  })
  const definition = block.definition
  const asked = askedOf(block)
  if (asked?.within && found.length > 0)
    return readSpots(asked, text, wanted(), leftAs(definition) === 'proposed', reading)
  if (asked && !asked.within && definition.kind !== 'fill-in')
    return readAsked(asked, found, holding, reading)
  if (asked && definition.kind === 'fill-in') {
    const { type, prompts, given } = asked
    const label = given[0] ?? ''
    const labelled = label === '' || text.startsWith(label)
    const answer = (labelled ? text.slice(label.length) : text).trim()
    const outside = type === 'image' && !hasImage && imageBeside ? ('outside' as const) : null
    if (answer === '')
      return reading(hasImage ? 'filled' : 'unfilled', { text: answer, shapeLost: outside })
    if (prompts.some((prompt) => sameText(answer, prompt)))
      return reading(hasImage && type === 'image' ? 'prompt-beside-answer' : 'unfilled', {
        text: answer,
        shapeLost: outside,
      })
    if (prompts.some((prompt) => answer.includes(prompt)))
      return reading('prompt-beside-answer', { text: answer })
    return reading('filled', {
      text: answer,
      ofType: isOfType(type, answer, holding, found.length),
      shapeLost: labelled ? null : 'label',
    })
  }
  if (block.houseText) {
    const revision = block.houseText.revisions.findLast((revision) => saysIt(text, revision.html))
    if (revision) return reading('unchanged', { revision: revision.number })
  }
  if (definition.kind === 'banner' && !hasImage)
    return reading(found.length === 0 ? 'missing' : 'altered')
  if (found.length === 0 && !hasImage) return reading(wanted() !== '' ? 'missing' : 'unchanged')
  return reading(saysIt(text, blockHtmlOn(block, onDate)) ? 'unchanged' : 'altered')
}
