import { type CourseItem, type CourseModule, itemsIn } from '../course/index.ts'
import { namingFormatOf, type ExpectedPart } from '../expand/index.ts'
import {
  foldedName,
  isDaySpan,
  rangesAgree,
  rangeSaid,
  readName,
  type FieldName,
  type FieldReading,
  type FieldValue,
  type NameReading,
} from '../naming/index.ts'
import type { PageFacts } from '../page/index.ts'
import { remember, rememberOf } from '../remember/index.ts'
import { linesOfBlock, paragraphsOfBlock } from './blockLines.ts'
import { escapeHtml, isModule, type ItemKind } from '../template/index.ts'

/** One observation for or against a pair: its log-odds (natural logarithm) and what it says in words. */
export interface Evidence {
  weight: number
  says: string
}

/** What evidence is read from: a found module or item with what is known of its place. */
export interface FoundPart {
  id: string
  name: string
  folded: string
  kind: ItemKind | 'module'
  /** Id of the module it stands in, or null. */
  module: string | null
  /** Place among its siblings as a share of them, 0 to 1. */
  place: number
  /** Instance its page's markers name, or null. */
  markedAs: string | null
  /** Folded names, due instants and marks of what it holds; for a module. */
  holds: ReadonlySet<string>
  /** Paragraphs of its page. */
  lines: ReadonlySet<string>
  dueAt: string | null
  points: number | null
  target: string | null
}

const noLines: ReadonlySet<string> = new Set()
const linesOf = new WeakMap<PageFacts, ReadonlySet<string>>()
const pageLines = (page: PageFacts | null): ReadonlySet<string> => {
  if (!page) return noLines
  let lines = linesOf.get(page)
  if (!lines)
    linesOf.set(page, (lines = new Set(page.paragraphs.map((paragraph) => paragraph.text))))
  return lines
}

export const foundModule = (
  module: CourseModule,
  place: number,
  pageOf: (item: CourseItem) => PageFacts | null,
): FoundPart => ({
  id: module.id,
  name: module.name,
  folded: foldedName(module.name),
  kind: 'module',
  module: null,
  place,
  markedAs: null,
  lines: noLines,
  dueAt: null,
  points: null,
  target: null,
  holds: new Set(
    itemsIn(module).flatMap((item) =>
      [
        foldedName(item.name),
        item.dueAt ?? '',
        (item.html === null ? null : pageOf(item)?.markedPart) ?? '',
      ].filter((text) => text !== ''),
    ),
  ),
})

export const foundItem = (
  item: CourseItem,
  module: CourseModule | null,
  index: number,
  pageOf: (item: CourseItem) => PageFacts | null,
): FoundPart => {
  const page = item.html === null ? null : pageOf(item)
  return {
    id: item.id,
    name: item.name,
    folded: foldedName(item.name),
    kind: item.kind,
    module: module?.id ?? null,
    place: index / Math.max(1, (module?.children.length ?? 1) - 1),
    markedAs: page?.markedPart ?? null,
    holds: noLines,
    lines: pageLines(page),
    dueAt: item.dueAt,
    points: item.points,
    target: item.target,
  }
}

const tokens = remember(
  20_000,
  (name: string): string[] => foldedName(name).match(/[\p{L}]+|\p{N}+/gu) ?? [],
)

/** How much a word tells a part from its siblings, 0 to 1. */
export type Telling = (word: string) => number
const allAlike: Telling = () => 1

/** Words that stand in the names of many siblings tell little: one over the number of names they stand in. */
export const tellingAmong = (names: readonly string[]): Telling => {
  const counts = new Map<string, number>()
  for (const name of names)
    for (const word of new Set(tokens(name))) counts.set(word, (counts.get(word) ?? 0) + 1)
  return (word) => 1 / (counts.get(word) ?? 1)
}

/** Dice coefficient of two names' words, 0 to 1, each as telling as it is; an abbreviation counts half for the word it begins. */
export const nameLikeness = (a: string, b: string, telling: Telling = allAlike): number => {
  const left = tokens(a)
  const right = [...tokens(b)]
  const size = [...left, ...right].reduce((sum, word) => sum + telling(word), 0)
  if (size === 0) return 0
  let shared = 0
  for (const word of left) {
    const exact = right.indexOf(word)
    const near =
      exact >= 0
        ? exact
        : right.findIndex((other) => abbreviates(word, other) || abbreviates(other, word))
    const other = right[near]
    if (other === undefined) continue
    shared += ((telling(word) + telling(other)) / 2) * (exact >= 0 ? 1 : 0.5)
    right.splice(near, 1)
  }
  return (2 * shared) / size
}
/** `wk` for week, `mod` for module: begins alike, and every letter stands in the word in order. */
const abbreviates = (short: string, long: string): boolean => {
  if (short.length < 2 || short.length >= long.length || short[0] !== long[0] || /\d/.test(short))
    return false
  let at = 0
  for (const letter of long) if (letter === short[at]) at += 1
  return at === short.length
}

const firstNumber = (folded: string): number | null => {
  const number = /(?<![\d/.-])\d{1,3}(?![\d/.]|-\d)/.exec(folded)
  return number ? Number(number[0]) : null
}

const withoutPrompts = (name: string): string =>
  name.includes('[') ? name.replace(/\[[^\]]*\]/g, '') : name

/** The range of days a name speaks of: asked for each part it may be. */
const rangesNear = remember(50, (near: string) =>
  remember(5000, (name: string) => rangeSaid(name, near)),
)

/** The topic that a module is known to have, in its name. */
const topicEvidence = ({ kind, values: { topic } }: ExpectedPart, found: FoundPart): Evidence[] =>
  kind === 'module' &&
  typeof topic === 'string' &&
  topic.length > 3 &&
  found.folded.includes(foldedName(topic))
    ? [{ weight: 3, says: 'its topic' }]
    : []

/** The number by which a part is told from its repetitions; undefined where it has none. */
const numberOf = ({ repetition, values }: ExpectedPart): FieldValue | undefined =>
  values.week ?? values.unit ?? (repetition ? values.number : undefined)

/**
 * What a name that follows the format says of its place: its number, its days and its topic; any of them may be another’s.
 * @param isSlip whether a wrong number may be a slip of the hand, as all else speaks for the place
 */
const formatEvidence = (
  { readings }: NameReading,
  expected: ExpectedPart,
  found: FoundPart,
  isSlip: boolean,
): Evidence[] => {
  const stateOf = (...fields: FieldName[]): FieldReading['state'] | null =>
    readings.find(({ field }) => fields.includes(field))?.state ?? null
  const [number, days] = [stateOf('week', 'unit', 'number'), stateOf('dates', 'start')]
  // A number of which nobody knows what it should be tells a part from none of its siblings.
  const isOfAny = number !== null && numberOf(expected) === undefined
  if (number !== 'wrong' && days !== 'wrong')
    return [{ weight: isOfAny ? 2 : 5.5, says: 'its name follows the format' }]
  return [
    number === 'wrong'
      ? { weight: isSlip ? -1.5 : -3, says: 'its name says another number' }
      : { weight: 4, says: 'its name follows the format' },
    ...(days === 'right' ? [{ weight: 2.5, says: 'the same dates' }] : []),
    ...(days === 'wrong' ? [{ weight: -0.5, says: 'other dates' }] : []),
    ...topicEvidence(expected, found),
  ]
}

const nameEvidence = (
  expected: ExpectedPart,
  found: FoundPart,
  sameModule: boolean | null,
  near: string,
  telling: Telling,
): Evidence[] => {
  if (found.folded === foldedName(expected.name)) return [{ weight: 7, says: 'same name' }]
  const reading = readName(namingFormatOf(expected), found.name, expected.values)
  if (reading && reading.readings.length > 0)
    return formatEvidence(reading, expected, found, sameModule === true)
  const number = numberOf(expected)
  const evidence: Evidence[] = []
  const likeness = nameLikeness(withoutPrompts(expected.name), found.name, telling)
  evidence.push({
    weight: (likeness - 0.35) * 7,
    says: likeness >= 0.5 ? 'a similar name' : 'another name',
  })
  const said = firstNumber(found.folded)
  // In the right module everything bears its number; beside another name it says nothing.
  const saysNothing = sameModule === true && likeness < 0.5
  if (number !== undefined && said !== null && !(saysNothing && said === Number(number)))
    evidence.push(
      said === Number(number)
        ? { weight: 2.5, says: `the number ${said}` }
        : { weight: -3, says: `the number ${said} where ${number} is expected` },
    )
  const range = expected.values.dates
  if (isDaySpan(range)) {
    const written = rangesNear(near)(found.name)
    if (written)
      evidence.push(
        rangesAgree(written, range, 2)
          ? { weight: 2.5, says: 'the same dates' }
          : { weight: -0.5, says: 'other dates' },
      )
  }
  evidence.push(...topicEvidence(expected, found))
  return evidence
}

const kindEvidence = (expected: ExpectedPart, found: FoundPart): Evidence[] => {
  if (expected.kind === 'module' || found.kind === 'module')
    return expected.kind === found.kind ? [] : [{ weight: -100, says: 'a module is not an item' }]
  if (expected.kind === found.kind) return [{ weight: 0.8, says: 'the same kind' }]
  const definition = expected.definition
  return !isModule(definition) && definition.acceptsInstead.includes(found.kind)
    ? [{ weight: 0.3, says: `a ${found.kind}, which is accepted instead` }]
    : [{ weight: -2.2, says: `a ${found.kind} where a ${expected.kind} is expected` }]
}

/** What the template writes on the page of a part, as paragraphs. */
interface Wording {
  /** Wording that is there to stay, long enough to be told from others. */
  lines: readonly string[]
  /** All of it, headings and prompts that are to make room as well. */
  all: ReadonlySet<string>
}
const wordingOf = rememberOf((part: ExpectedPart): Wording => {
  const prompts = new Set(
    part.blocks.flatMap((block) =>
      block.definition.kind === 'fill-in'
        ? linesOfBlock(`<p>${escapeHtml(block.definition.prompt)}</p>`)
        : block.asks.flatMap(linesOfBlock),
    ),
  )
  return {
    lines: part.blocks
      .filter(({ kind }) => kind !== 'guidance-note')
      .flatMap(({ html }) => linesOfBlock(html))
      .filter((line) => !prompts.has(line)),
    all: new Set(part.blocks.flatMap(({ html }) => paragraphsOfBlock(html))),
  }
})

/** Several items of its own say more than the digit in a module's name; a few may be anybody's. */
const weightOfMany = (held: number): number => Math.min(2.5, Math.max(1, held / 2))

const contentEvidence = (expected: ExpectedPart, found: FoundPart): Evidence[] => {
  if (expected.kind === 'module') {
    if (found.holds.size === 0 || expected.items.length === 0) return []
    const held = expected.items.filter(
      (item) =>
        found.holds.has(foldedName(item.name)) ||
        found.holds.has(item.instance) ||
        (item.dueAt !== null && found.holds.has(item.dueAt)),
    ).length
    return [
      {
        weight: (held / expected.items.length - 0.15) * 5 * weightOfMany(held),
        says: `${held} of its ${expected.items.length} items`,
      },
    ]
  }
  const { lines, all } = wordingOf(expected)
  if (all.size === 0 || found.lines.size === 0) return []
  const none = [...all].every((line) => !found.lines.has(line))
  // A page of some length with not one line of the template’s is somebody’s own.
  if (none && found.lines.size > 1) return [{ weight: -2.5, says: 'none of its wording' }]
  if (lines.length === 0) return []
  const kept = lines.filter((line) => found.lines.has(line)).length
  return [
    {
      weight: kept === 0 ? -1.6 : (kept / lines.length - 0.2) * 3.5,
      says: `${Math.round((100 * kept) / lines.length)} % of its wording`,
    },
  ]
}

const settingEvidence = (expected: ExpectedPart, found: FoundPart): Evidence[] => [
  ...(expected.dueAt !== null && found.dueAt !== null
    ? [
        expected.dueAt === found.dueAt
          ? { weight: 2, says: 'due at the same time' }
          : { weight: -0.8, says: 'due at another time' },
      ]
    : []),
  ...(expected.definition.settings.points !== undefined &&
  found.points !== null &&
  expected.definition.settings.points === found.points
    ? [{ weight: 0.6, says: 'the same points' }]
    : []),
  ...(!isModule(expected.definition) &&
  expected.definition.url &&
  found.target === expected.definition.url
    ? [{ weight: 2, says: 'the same address' }]
    : []),
]

/**
 * All evidence for and against a found part being an expected one. Weights are log-odds in the manner of Fellegi and
 * Sunter (1969), set by hand and checked on a generated corpus.
 * @param near a date of the term, for dates written without a year
 * @param telling how much the words of names tell it from its siblings
 * @param sameModule whether the modules the two stand in are paired; null when the question does not arise
 */
export const evidenceFor = (
  expected: ExpectedPart,
  found: FoundPart,
  place: number,
  sameModule: boolean | null,
  near: string,
  telling: Telling,
): Evidence[] => {
  const kind = kindEvidence(expected, found)
  if (kind.some(({ weight }) => weight <= -100)) return kind
  const evidence = [
    ...kind,
    ...nameEvidence(expected, found, sameModule, near, telling),
    ...contentEvidence(expected, found),
    ...settingEvidence(expected, found),
  ]
  if (found.markedAs !== null) {
    if (found.markedAs === expected.instance)
      evidence.push({ weight: 4, says: 'the marks that deployment left in its page' })
    else if (found.markedAs.split('@')[0] === expected.key)
      evidence.push({ weight: 1, says: 'the marks of the same part in another week' })
    else evidence.push({ weight: -2, says: 'the marks of another part' })
  }
  if (sameModule !== null)
    evidence.push(
      sameModule
        ? { weight: 1.2, says: 'in the right module' }
        : { weight: -1.5, says: 'in another module' },
    )
  const away = Math.abs(place - found.place)
  evidence.push(
    away <= 0.15
      ? { weight: 0.6, says: 'in the same place' }
      : { weight: -0.6 * away, says: 'in another place' },
  )
  return evidence
}

export const totalWeight = (evidence: readonly Evidence[]): number =>
  evidence.reduce((sum, { weight }) => sum + weight, 0)
