import type { ExpectedBlock } from '../expand/index.ts'
import { rememberOf } from '../remember/index.ts'
import { leftAs } from '../template/index.ts'
import type { PageFacts, Paragraph } from './analysePage.ts'
import { askedOf } from './asked.ts'
import { paragraphsOf } from './deployedText.ts'
import { blockHtmlOn } from './renderPage.ts'
import { fillings, promptsIn } from './spots.ts'
import { likeness } from './wordDifference.ts'

/*
 * Whose paragraph is whose, on a page that lost its marks. What stands word for word is known first. What is left lies in
 * gaps between known paragraphs, and each gap is shared out among the blocks that are expected there: in their order, by the
 * sharing that explains most. A paragraph is a block’s because it is like what the block says, or, where the words are left to
 * the instructor, because it stands in its place.
 */

/** From here on a paragraph that is like one of a block’s may be that one, worded otherwise. */
const leastLikeness = 0.5
/** What it explains that a block whose words are left has something in its place: less than any likeness, two more than one. */
const inItsPlace = 0.45
/** That it has still more there. */
const goingOn = 0.01
/** Among sharings that explain as much, the one with earlier blocks. */
const earlier = 1e-6

/**
 * Whether a page is to hold several blocks whose wording stays. Where none of them is there it is another page, and what
 * it says answers nothing.
 */
const isOfSeveral = (expected: readonly ExpectedBlock[]): boolean =>
  expected.filter((block) => block.kind !== 'guidance-note' && !isLeft(block)).length > 1

const isLeft = ({ definition }: ExpectedBlock): boolean => leftAs(definition) !== null

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

/** Whether what is asked for comes before what stays, so that its answer stands above what is known of it. */
const beginsWithAsking = rememberOf((block: ExpectedBlock): boolean => {
  const [first] = block.asks.length > 0 ? paragraphsOf(block.html) : []
  return first !== undefined && (askedOf(block)?.prompts.includes(first.text) ?? false)
})

/** Whether only what stays beside an answer is known of a block, so that the answer is still to be found. */
const isUnanswered = (block: ExpectedBlock, known: readonly string[]): boolean => {
  const asked = askedOf(block)
  return asked !== null && known.every((text) => asked.given.includes(text))
}

/** A block that may hold paragraphs of a gap. */
interface Heir {
  key: string
  /** How alike each paragraph of the gap is to what is missing of the block, 0 to 1; 0 where it is not alike. */
  alike: readonly number[]
  /** What the first paragraph in its place explains; null where only what is alike is its own. */
  takes: number | null
  /** Whether it may take what stands above a paragraph that is alike. */
  above: boolean
}

/** A sharing of the first paragraphs of a gap: what it explains, and how it came about. */
interface Sharing {
  explains: number
  /** The heir of the last of them; null where it has none. */
  heir: number | null
  before: Sharing | null
}
const impossible: Sharing = { explains: -Infinity, heir: null, before: null }
const better = (one: Sharing, other: Sharing): Sharing =>
  other.explains > one.explains ? other : one

/**
 * Shares the paragraphs of a gap out among its heirs, in their order, so that most is explained. In time that grows with the
 * paragraphs times the heirs.
 * @param begun whether the first heir has its own already, right above the gap
 * @returns for each paragraph the place of its heir, or null
 */
const shareOut = (count: number, heirs: readonly Heir[], begun: boolean): (number | null)[] => {
  // The best sharing that ends with nobody, and with each heir: where only its place tells that it is its own, and where it is known.
  let withNobody: Sharing = begun ? impossible : { explains: 0, heir: null, before: null }
  const inPlace = heirs.map(() => impossible)
  const known = heirs.map((_, j) =>
    begun && j === 0 ? { explains: 0, heir: null, before: null } : impossible,
  )
  for (let p = 0; p < count; p++) {
    const skip = (before: Sharing): Sharing =>
      before === impossible ? before : { explains: before.explains, heir: null, before }
    let soFar = withNobody
    withNobody = skip(withNobody)
    heirs.forEach(({ alike, takes, above }, j) => {
      const take = (before: Sharing, more: number): Sharing => ({
        explains: before.explains + more - earlier * j,
        heir: j,
        before,
      })
      const [placedBefore = impossible, knownBefore = impossible] = [inPlace[j], known[j]]
      const share = alike[p] ?? 0
      let nowKnown = skip(knownBefore)
      let nowPlaced = skip(placedBefore)
      if (share > 0) {
        nowKnown = better(nowKnown, take(better(knownBefore, soFar), share))
        if (above) nowKnown = better(nowKnown, take(placedBefore, share))
      }
      if (takes !== null) {
        nowKnown = better(nowKnown, take(knownBefore, goingOn))
        nowPlaced = better(nowPlaced, take(placedBefore, goingOn))
        nowPlaced = better(nowPlaced, take(soFar, takes))
      }
      soFar = better(soFar, better(knownBefore, placedBefore))
      known[j] = nowKnown
      inPlace[j] = nowPlaced
    })
  }
  let last: Sharing | null = [...known, ...inPlace].reduce(better, withNobody)
  const shares: (number | null)[] = []
  for (; last?.before; last = last.before) shares.push(last.heir)
  return shares.reverse()
}

/** Which unmarked paragraphs belong to which unmarked block: their places, ascending. A block that is not found has no entry. */
export const placeByContent = (
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
  const order = new Map(expected.map((block, i) => [block.key, i]))
  const free = new Set(unmarked.map(({ key }) => key))
  const textAt = (i: number): string => page.paragraphs[i]?.text ?? ''
  const keyAt = (i: number): string | null => owner.get(i) ?? page.paragraphs[i]?.block ?? null
  const orderAt = (i: number): number | null => order.get(keyAt(i) ?? '') ?? null

  let i = 0
  while (i < page.paragraphs.length) {
    if (keyAt(i) !== null) {
      i += 1
      continue
    }
    let end = i
    while (end < page.paragraphs.length && keyAt(end) === null) end += 1
    const above = i > 0 ? orderAt(i - 1) : null
    const below = end < page.paragraphs.length ? orderAt(end) : null
    const open = expected.filter(
      ({ key }, at) => free.has(key) && at >= (above ?? 0) && at <= (below ?? expected.length),
    )
    const knownAbove = above === null ? undefined : expected[above]
    const knownBelow = below === null ? undefined : expected[below]
    const answers = knownAbove && lackingOf.has(knownAbove.key)
    const unanswered =
      answers &&
      isUnanswered(
        knownAbove,
        [...owner].flatMap(([at, key]) => (key === knownAbove.key ? [textAt(at)] : [])),
      )
    const heirs = open.map((block): Heir => {
      const texts = lackingOf.get(block.key) ?? wantedOf(block)
      const begins = beginsWithAsking(block)
      const mayTake =
        isLeft(block) &&
        (block === knownAbove || block === knownBelow
          ? block === knownAbove || (begins && !askedOf(block)?.prompts.includes(textAt(end)))
          : !lackingOf.has(block.key))
      return {
        key: block.key,
        alike: Array.from({ length: end - i }, (_, p) => {
          const share = Math.max(
            0,
            ...texts.map(({ text }) =>
              isFilling(block, text, textAt(i + p)) ? 1 : likeness(text, textAt(i + p)),
            ),
          )
          return share >= leastLikeness ? share : 0
        }),
        takes: !mayTake ? null : isTheirs ? -Infinity : inItsPlace,
        above: begins || block === knownAbove,
      }
    })
    const shares = shareOut(end - i, heirs, open[0] === knownAbove && !unanswered)
    shares.forEach((heir, p) => {
      const key = heir === null ? undefined : heirs[heir]?.key
      if (key !== undefined) owner.set(i + p, key)
    })
    // What was moved is out of order, and alike to what nobody has so far.
    const held = new Set(owner.values())
    shares.forEach((heir, p) => {
      if (heir !== null) return
      const alike = heirs
        .filter(({ key }) => !held.has(key))
        .sort((a, b) => (b.alike[p] ?? 0) - (a.alike[p] ?? 0))[0]
      if (alike && (alike.alike[p] ?? 0) > 0) owner.set(i + p, alike.key)
    })
    i = end
  }
  const placed = new Map<string, number[]>()
  for (const [index, key] of [...owner].sort(([a], [b]) => a - b))
    placed.set(key, [...(placed.get(key) ?? []), index])
  return placed
}
