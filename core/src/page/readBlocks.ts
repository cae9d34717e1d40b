import type { ExpectedBlock } from '../expand/index.ts'
import { datesMentioned } from '../calendar/index.ts'
import { remember, rememberOf } from '../remember/index.ts'
import { isNote, leftAs, type AnswerType } from '../template/index.ts'
import { analysePage, type PageFacts, type PageLink, type Paragraph } from './analysePage.ts'
import { askedOf, type Asked } from './asked.ts'
import { blockHtmlOn } from './renderPage.ts'
import { isTextOf, sameText } from './sameText.ts'
import { fillings } from './spots.ts'
import { countWords, likeness, shareSurviving } from './wordDifference.ts'

/** How a block of the template stands in a page. */
export type BlockState =
  'unchanged' | 'altered' | 'missing' | 'unfilled' | 'filled' | 'prompt-beside-answer'

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

/** The paragraphs of what deployment writes, kept by the HTML: blocks are the same in many courses and in every check. */
const paragraphsOf = remember(4000, (html: string): Paragraph[] => analysePage(html).paragraphs)

const join = (paragraphs: readonly Paragraph[]): string =>
  paragraphs.map((paragraph) => paragraph.text).join(' ')
/** Whether a text is what HTML of deployment's says, wherever its paragraphs end. */
const saysIt = (text: string, html: string): boolean =>
  isTextOf(text, html) || sameText(text, textOf(html))
/** What deployment writes, as text. */
const textOf = remember(4000, (html: string): string => join(paragraphsOf(html)))

/** What stands in a block besides words. */
interface Holding {
  images: number
  links: readonly PageLink[]
  media: number
  tables: number
  lists: number
}

const mailAddress = /[\w.+-]{1,64}@[\w-]{1,63}(?:\.[\w-]{1,63}){1,4}/
const fileAddress = /\.(?:pdf|docx?|odt|rtf|xlsx?|ods|pptx?|odp|zip|txt|csv|epub)(?:[?#]|$)/i

/** Whether an answer is of the kind that is asked for. */
const isOfType = (type: AnswerType, text: string, holding: Holding, lines: number): boolean => {
  switch (type) {
    case 'image':
      return holding.images > 0
    case 'video':
      return holding.media > 0 || holding.links.length > 0
    case 'file':
      return holding.links.some(
        (link) => fileAddress.test(link.href) || /\/files\//.test(link.href),
      )
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
  const told = { text: join(own), stillAsks }
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

/** The prompts that stand in a text, in their order there; none of them over another. */
const promptsIn = (text: string, prompts: readonly string[]): string[] => {
  const standing = [...new Set(prompts)].flatMap((prompt) => {
    const places: { prompt: string; at: number }[] = []
    for (let at = text.indexOf(prompt); at >= 0; at = text.indexOf(prompt, at + prompt.length))
      places.push({ prompt, at })
    return places
  })
  let from = 0
  return standing
    .sort((one, other) => one.at - other.at)
    .flatMap(({ prompt, at }) => {
      if (at < from) return []
      from = at + prompt.length
      return [prompt]
    })
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
const readOne = (
  block: ExpectedBlock,
  found: readonly Paragraph[],
  places: number[],
  byMarker: boolean,
  holding: Holding,
  imageBeside: boolean,
  onDate: string,
): BlockReading => {
  const text = join(found)
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
  if (found.length === 0 && !hasImage)
    return reading(definition.kind === 'banner' || wanted() !== '' ? 'missing' : 'unchanged')
  return reading(saysIt(text, blockHtmlOn(block, onDate)) ? 'unchanged' : 'altered')
}

/** What stands in a page besides its paragraphs, by the marked block it stands in; null for what stands in none. */
const standing = <T extends { block: string | null }>(
  list: readonly T[],
): ((block: string | null) => readonly T[]) => {
  if (list.length === 0) return () => list
  const groups = new Map<string | null, T[]>()
  for (const region of list) {
    const group = groups.get(region.block)
    if (group) group.push(region)
    else groups.set(region.block, [region])
  }
  return (block) => groups.get(block) ?? []
}

const leastShareToKnow = 0.5

/** How blocks stand in a page on a day, as long as both are kept: most pages are the same at the next check. */
const readings = rememberOf(
  (_page: PageFacts) =>
    new WeakMap<readonly ExpectedBlock[], { onDate: string; read: readonly BlockReading[] }>(),
)

/**
 * Tells how each expected block stands in a page: by its marker where the platform kept it, otherwise by its content
 * (paragraphs that are word for word the same first, then the most alike between those already known).
 * @param onDate decides which revision of a house text is expected, `YYYY-MM-DD`
 */
export const readBlocks = (
  expected: readonly ExpectedBlock[],
  page: PageFacts,
  onDate: string,
): readonly BlockReading[] => {
  const known = readings(page)
  const before = known.get(expected)
  if (before?.onDate === onDate) return before.read
  const read = readAnew(expected, page, onDate)
  known.set(expected, { onDate, read })
  return read
}

const readAnew = (
  expected: readonly ExpectedBlock[],
  page: PageFacts,
  onDate: string,
): BlockReading[] => {
  const marked = new Set(page.markers)
  const unmarked = expected.filter((block) => !marked.has(block.key))
  const byContent =
    unmarked.length > 0
      ? placeByContent(expected, unmarked, page, onDate)
      : new Map<string, number[]>()
  const indexesByMarker = new Map<string, number[]>()
  page.paragraphs.forEach((paragraph, i) => {
    if (paragraph.block === null) return
    const indexes = indexesByMarker.get(paragraph.block)
    if (indexes) indexes.push(i)
    else indexesByMarker.set(paragraph.block, [i])
  })
  const images = standing(page.images)
  const links = standing(page.links)
  const media = standing(page.media)
  const tables = standing(page.tables)
  const lists = standing(page.lists)
  return expected.map((block) => {
    const byMarker = marked.has(block.key)
    const places = byMarker
      ? (indexesByMarker.get(block.key) ?? [])
      : (byContent.get(block.key) ?? [])
    const first = places[0] ?? Infinity
    const last = (places.at(-1) ?? -Infinity) + 1
    const held = <T extends { paragraph: number }>(
      of: (block: string | null) => readonly T[],
    ): readonly T[] =>
      byMarker
        ? of(block.key)
        : of(null).filter(
            ({ paragraph }) => block.kind === 'banner' || (paragraph >= first && paragraph <= last),
          )
    const holding: Holding = {
      images: held(images).length,
      links: held(links),
      media: held(media).length,
      tables: held(tables).length,
      lists: held(lists).length,
    }
    const known = byMarker || places.length > 0 || (block.kind === 'banner' && holding.images > 0)
    if (!known)
      return {
        block,
        state: 'missing',
        text: '',
        surviving: 0,
        byMarker,
        revision: null,
        stillAsks: [],
        ofType: true,
        shapeLost: null,
        paragraphs: [],
      }
    const imageBeside = images(null).some((image) => Math.abs(image.paragraph - last) <= 1)
    return readOne(
      block,
      places.flatMap((i) => page.paragraphs[i] ?? []),
      places,
      byMarker,
      holding,
      imageBeside,
      onDate,
    )
  })
}

/**
 * Whether a page is to hold several blocks whose wording stays. Where none of them is there it is another page, and what
 * it says answers nothing.
 */
const isOfSeveral = (expected: readonly ExpectedBlock[]): boolean =>
  expected.filter((block) => block.kind !== 'guidance-note' && !isLeft(block)).length > 1

/** So much of a sentence tells it, whatever stands in its spots. */
const tellingLetters = 12

/** Whether a paragraph is one of a block’s with something else in its spots. */
const isFilling = (block: ExpectedBlock, wanted: string, text: string): boolean => {
  const asked = block.asks.length > 0 ? askedOf(block) : null
  if (!asked?.within) return false
  const prompts = promptsIn(wanted, asked.prompts)
  const around = wanted.length - prompts.join('').length
  return prompts.length > 0 && around >= tellingLetters && fillings(wanted, prompts, text) !== null
}

const isLeft = ({ definition }: ExpectedBlock): boolean => leftAs(definition) !== null

/** Whether what is asked for comes before what stays, so that its answer stands above what is known of it. */
const beginsWithAsking = rememberOf((block: ExpectedBlock): boolean => {
  const [first] = block.asks.length > 0 ? paragraphsOf(block.html) : []
  return first !== undefined && (askedOf(block)?.prompts.includes(first.text) ?? false)
})

/** Which unmarked paragraphs belong to which unmarked block. A block that is not found has no entry. */
const placeByContent = (
  expected: readonly ExpectedBlock[],
  unmarked: readonly ExpectedBlock[],
  page: PageFacts,
  onDate: string,
): Map<string, number[]> => {
  const owner = new Map<number, string>()
  const candidates = new Map<string, number[]>()
  page.paragraphs.forEach((paragraph, i) => {
    if (paragraph.block === null)
      candidates.set(paragraph.text, [...(candidates.get(paragraph.text) ?? []), i])
  })
  const claim = (text: string, key: string): boolean => {
    const next = candidates.get(text)?.find((i) => !owner.has(i))
    if (next === undefined) return false
    owner.set(next, key)
    return true
  }
  const wantedOf = (block: ExpectedBlock) => paragraphsOf(blockHtmlOn(block, onDate))
  /** What of a block does not stand word for word: only that may stand there reworded. */
  const lackingOf = new Map<string, readonly Paragraph[]>()
  for (const block of unmarked) {
    const texts = [
      wantedOf(block),
      ...(block.houseText?.revisions.map((revision) => paragraphsOf(revision.html)) ?? []),
    ]
    for (const paragraphs of texts) {
      const lacking = paragraphs.filter((paragraph) => !claim(paragraph.text, block.key))
      if (lacking.length === paragraphs.length) continue
      lackingOf.set(block.key, lacking)
      break
    }
  }
  const isTheirs = owner.size === 0 && page.markers.length === 0 && isOfSeveral(expected)
  // What is left lies in gaps between known paragraphs; each gap belongs to the blocks expected between its neighbours.
  const order = new Map(expected.map((block, i) => [block.key, i]))
  const placeOf = (i: number): number | null => {
    const key = owner.get(i) ?? page.paragraphs[i]?.block
    return key === undefined || key === null ? null : (order.get(key) ?? null)
  }
  let i = 0
  while (i < page.paragraphs.length) {
    if (placeOf(i) !== null || page.paragraphs[i]?.block) {
      i += 1
      continue
    }
    let end = i
    while (end < page.paragraphs.length && placeOf(end) === null && !page.paragraphs[end]?.block)
      end += 1
    const before = i > 0 ? (placeOf(i - 1) ?? -1) : -1
    const after = end < page.paragraphs.length ? (placeOf(end) ?? expected.length) : expected.length
    // The block just before may have gone on: its own label or first lines are known, the rest was rewritten.
    const open = expected.filter((block, at) => at >= before && at <= after && !marked(page, block))
    for (let p = i; p < end; p++) {
      const text = page.paragraphs[p]?.text ?? ''
      const near = open
        .map((block) => ({
          block,
          share: Math.max(
            0,
            ...(lackingOf.get(block.key) ?? wantedOf(block)).map((wanted) =>
              isFilling(block, wanted.text, text) ? 1 : likeness(wanted.text, text),
            ),
          ),
        }))
        .filter(({ share }) => share >= leastShareToKnow)
        .sort((a, b) => b.share - a.share)[0]
      if (near) owner.set(p, near.block.key)
    }
    // What is left to the instructor takes what stands in its place, whatever the words: below what is known of it, or above.
    let first = i
    for (let p = i; p < end; p++) {
      if (owner.has(p)) {
        first = p + 1
        continue
      }
      let stop = p + 1
      while (stop < end && !owner.has(stop)) stop += 1
      const goesOn = open.find((block) => block.key === owner.get(p - 1) && isLeft(block))
      const following = owner.get(stop) ?? page.paragraphs[stop]?.block ?? undefined
      // What stands above a prompt is somebody's own; above what stays beside an answer, it is the answer.
      const next = page.paragraphs[stop]?.text ?? ''
      const leadsInto = open.find(
        (block) =>
          block.key === following &&
          beginsWithAsking(block) &&
          !askedOf(block)?.prompts.includes(next),
      )
      const after = Math.max(before, goesOn ? (order.get(goesOn.key) ?? 0) : before)
      const upTo = following === undefined ? Infinity : (order.get(following) ?? Infinity)
      const placed = new Set(owner.values())
      const waiting = isTheirs
        ? []
        : open.filter((block) => {
            const at = order.get(block.key) ?? 0
            return isLeft(block) && !placed.has(block.key) && at > after && at < upTo
          })
      const inPlace =
        leadsInto && ((p === stop - 1 && p > first) || (!goesOn && waiting.length === 0))
          ? leadsInto
          : // Each that waits has something.
            goesOn && waiting.length < stop - p
            ? goesOn
            : (waiting[0] ?? goesOn)
      if (inPlace) owner.set(p, inPlace.key)
      if (p === stop - 1) first = stop
    }
    i = end
  }
  const placed = new Map<string, number[]>()
  for (const [index, key] of [...owner].sort(([a], [b]) => a - b))
    placed.set(key, [...(placed.get(key) ?? []), index])
  return placed
}

const marked = (page: PageFacts, block: ExpectedBlock): boolean => page.markers.includes(block.key)
