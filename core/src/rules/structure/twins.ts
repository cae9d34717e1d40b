import type { PlacedItem } from '../../course/index.ts'
import { namingFormatOf, type ExpectedPart } from '../../expand/index.ts'
import { readName } from '../../naming/index.ts'
import { copyMark, paragraphsOfBlock } from '../../pair/index.ts'
import { rememberOf } from '../../remember/index.ts'
import type { CheckContext, PairedItem } from '../context.ts'

/** A page that stands where another repetition of the same part should stand, which is there as well. */
export interface Twin {
  /** What should be there. */
  part: ExpectedPart
  original: PairedItem
  found: Pick<PlacedItem, 'item' | 'module'>
  /** `copy`: it was not taken for the part, which is missing; `text`: it was, and reads word for word as the original. */
  by: 'copy' | 'text'
}

/** So many words of the instructor's own are no coincidence; fewer (`See the list`) may be said in every week. */
const leastOwnWords = 8

/** The twins of a course, each part once. */
export const twinsIn = rememberOf((context: CheckContext): readonly Twin[] => {
  const found = [...copiesForMissing(context), ...namedCopies(context), ...sameTexts(context)]
  return found.filter(
    (twin, i) => found.findIndex(({ part }) => part.instance === twin.part.instance) === i,
  )
})

/** Copies of one repetition while another is missing: in the module of the missing one, or in that of the original. */
function* copiesForMissing(context: CheckContext): Generator<Twin> {
  const missing = context.parts.filter(
    (part) =>
      part.kind !== 'module' &&
      part.repetition !== null &&
      !part.inBreak &&
      part.strength !== 'may' &&
      !part.definition.may.remove &&
      !context.itemFor(part),
  )
  const copyOf = new Map(context.pairing.copies.map(({ found, of }) => [found, of]))
  for (const part of missing) {
    const home = context.partAt(part.parent)
    const module = home ? context.moduleFor(home) : null
    for (const placed of context.placedItems) {
      if (context.partOf(placed.item.id) !== null || placed.item.kind !== part.kind) continue
      const standsThere = placed.module !== null && placed.module === module
      const of =
        context.partAt(copyOf.get(placed.item.id) ?? null) ??
        (standsThere ? namedRepetition(context, part, placed.item.name) : null)
      const original = of?.key === part.key && of !== part ? context.itemFor(of) : null
      // What is named as a copy beside its original is one that was left over, and taken for nothing else.
      const isLeftOver = !standsThere && copyMark.test(placed.item.name)
      if (original && !isLeftOver && (standsThere || placed.module === original.module))
        yield { part, original, found: placed, by: 'copy' }
    }
  }
}

/** The repetition of a part whose number a name carries. */
const namedRepetition = (
  context: CheckContext,
  part: ExpectedPart,
  name: string,
): ExpectedPart | null =>
  context.partsOfKey(part.key).find((other) => other !== part && follows(other, name)) ?? null

/** Pages taken for one repetition that have the name of another and the marks that deployment left in its page. */
function* namedCopies(context: CheckContext): Generator<Twin> {
  for (const part of context.parts) {
    const there = part.repetition === null ? null : context.itemFor(part)
    const marked = there ? (context.pageOf(there.item)?.markedPart ?? null) : null
    const other = marked === null || marked === part.instance ? null : context.partAt(marked)
    const original = other?.key === part.key ? context.itemFor(other) : null
    if (there && other && original && isNamedFor(part, other, there.item.name))
      yield { part, original, found: there, by: 'copy' }
  }
}

/** A paragraph this long is somebody's, and no heading. */
const leastLine = 24

/** Pairs of repetitions of a part whose pages have a paragraph that no third one has. */
const pairsAlike = (context: CheckContext): [PairedItem, PairedItem][] => {
  /** By part, who holds a paragraph: one, two, or more than two. */
  const holding = new Map<string, Map<string, PairedItem | [PairedItem, PairedItem] | 'many'>>()
  for (const part of context.parts) {
    const there = part.repetition !== null && part.blocks.length > 0 ? context.itemFor(part) : null
    if (!there) continue
    let ofPart = holding.get(part.key)
    if (!ofPart) holding.set(part.key, (ofPart = new Map()))
    for (const { text } of context.pageOf(there.item)?.paragraphs ?? []) {
      if (text.length < leastLine) continue
      const held = ofPart.get(text)
      if (held === undefined) ofPart.set(text, there)
      else if (Array.isArray(held)) {
        if (held[1] !== there) ofPart.set(text, 'many')
      } else if (held !== 'many' && held !== there) ofPart.set(text, [held, there])
    }
  }
  const pairs = new Map<string, [PairedItem, PairedItem]>()
  for (const ofPart of holding.values())
    for (const held of ofPart.values())
      if (Array.isArray(held)) pairs.set(`${held[0].part.instance} ${held[1].part.instance}`, held)
  return [...pairs.values()]
}

/** Pages that were taken for two repetitions of a part and hold the same words of the instructor's own. */
function* sameTexts(context: CheckContext): Generator<Twin> {
  for (const pair of pairsAlike(context)) {
    const [one, other] = pair.map((there) => ({
      part: there.part,
      there,
      lines: linesOf(context, there),
      own: ownLines(context, there),
    }))
    if (!one || !other) continue
    const [copy, original] = speaksOf(other, one) ? [other, one] : [one, other]
    const shared = copy.own.filter((line) => original.own.includes(line))
    if (
      speaksOf(copy, original) &&
      wordsIn(shared) >= leastOwnWords &&
      original.own.every((line) => copy.lines.has(line)) &&
      copy.own.every((line) => original.lines.has(line))
    )
      yield { part: copy.part, original: original.there, found: copy.there, by: 'text' }
  }
}

interface OwnPage {
  part: ExpectedPart
  there: PairedItem
  lines: ReadonlySet<string>
  /** Paragraphs that the template did not write there. */
  own: readonly string[]
}

/**
 * Whether of two pages alike the first is a copy of the other: by its name, or by wording of the template's, it is still of
 * the other's week. Two that merely say the same are no copies: a question may be asked twice.
 */
const speaksOf = (page: OwnPage, other: OwnPage): boolean =>
  isNamedFor(page.part, other.part, page.there.item.name) || page.own.length > other.own.length

/** Whether a name is that of another repetition, and not of the one it stands for. */
const isNamedFor = (part: ExpectedPart, other: ExpectedPart, name: string): boolean =>
  !follows(part, name) && follows(other, name)

const follows = (part: ExpectedPart, name: string): boolean =>
  readName(namingFormatOf(part), name, part.values)?.readings.every(
    ({ state }) => state !== 'wrong',
  ) ?? false

const linesOf = (context: CheckContext, { item }: PairedItem): ReadonlySet<string> =>
  new Set(context.pageOf(item)?.paragraphs.map(({ text }) => text))

/** Paragraphs of a page that its template did not write. */
const ownLines = (context: CheckContext, there: PairedItem): string[] => {
  const written = new Set(there.part.blocks.flatMap(({ html }) => paragraphsOfBlock(html)))
  return [...linesOf(context, there)].filter((line) => !written.has(line))
}

const wordsIn = (lines: readonly string[]): number =>
  lines.reduce((sum, line) => sum + (line.match(/[\p{L}\p{N}]+/gu)?.length ?? 0), 0)
