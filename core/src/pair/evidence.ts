import { namingFormatOf, type ExpectedPart } from '../expand/index.ts'
import { foldName, isDaySpan, rangesAgree, rangeSaid, readName } from '../naming/index.ts'
import { isModule, type ItemKind } from '../template/index.ts'

/** One observation for or against a pair: its log-odds (natural logarithm) and what it says in words. */
export interface Evidence {
  weight: number
  says: string
}

/** What evidence is read from: a found module or item with what is known of its place. */
export interface FoundPart {
  id: string
  name: string
  kind: ItemKind | 'module'
  /** Id of the module it stands in, or null. */
  module: string | null
  /** Place among its siblings as a share of them, 0 to 1. */
  place: number
  /** Instance its page's markers name, or null. */
  markedAs: string | null
  /** Names of what it holds, folded; for a module. */
  holds: readonly string[]
  /** Text of its page, lower case; empty without one. */
  text: string
}

const tokensOf = (name: string): string[] => foldName(name).text.match(/[\p{L}]+|\p{N}+/gu) ?? []
const tokenCache = new Map<string, string[]>()
const tokens = (name: string): string[] => {
  let kept = tokenCache.get(name)
  if (!kept) {
    if (tokenCache.size > 20_000) tokenCache.clear()
    tokenCache.set(name, (kept = tokensOf(name)))
  }
  return kept
}

/** Dice coefficient of two names' words, 0 to 1; an abbreviation counts half for the word it begins. */
export const nameLikeness = (a: string, b: string): number => {
  const left = tokens(a)
  const right = [...tokens(b)]
  if (left.length + right.length === 0) return 0
  let shared = 0
  const size = left.length + right.length
  for (const word of left) {
    const exact = right.indexOf(word)
    const near = exact >= 0 ? exact : right.findIndex((other) => abbreviates(word, other) || abbreviates(other, word))
    if (near < 0) continue
    shared += exact >= 0 ? 1 : 0.5
    right.splice(near, 1)
  }
  return (2 * shared) / size
}
/** `wk` for week, `mod` for module: begins alike, and every letter stands in the word in order. */
const abbreviates = (short: string, long: string): boolean => {
  if (short.length < 2 || short.length >= long.length || short[0] !== long[0] || /\d/.test(short)) return false
  let at = 0
  for (const letter of long) if (letter === short[at]) at += 1
  return at === short.length
}

const firstNumber = (name: string): number | null => {
  const number = /(?<![\d/.-])\d{1,3}(?![\d/.]|-\d)/.exec(foldName(name).text)
  return number ? Number(number[0]) : null
}

const nameEvidence = (expected: ExpectedPart, found: FoundPart, near: string): Evidence[] => {
  if (foldName(found.name).text === foldName(expected.name).text) return [{ weight: 7, says: 'same name' }]
  const reading = readName(namingFormatOf(expected), found.name, expected.values)
  const number = expected.values.week ?? expected.values.unit ?? (expected.repetition ? expected.values.number : undefined)
  if (reading && reading.readings.length > 0) {
    const wrongNumber = reading.readings.some((one) => ['week', 'unit', 'number'].includes(one.field) && one.state === 'wrong')
    return wrongNumber ? [{ weight: -3, says: 'its name says another number' }] : [{ weight: 5.5, says: 'its name follows the format' }]
  }
  const evidence: Evidence[] = []
  const likeness = nameLikeness(expected.name.replace(/\[[^\]]*\]/g, ''), found.name)
  evidence.push({ weight: (likeness - 0.35) * 7, says: likeness >= 0.5 ? 'a similar name' : 'another name' })
  const said = firstNumber(found.name)
  if (number !== undefined && said !== null)
    evidence.push(said === Number(number) ? { weight: 2.5, says: `the number ${said}` } : { weight: -3, says: `the number ${said} where ${number} is expected` })
  const range = expected.values.dates
  if (isDaySpan(range)) {
    const written = rangeSaid(found.name, near)
    if (written) evidence.push(rangesAgree(written, range, 2) ? { weight: 2.5, says: 'the same dates' } : { weight: -0.5, says: 'other dates' })
  }
  return evidence
}

const kindEvidence = (expected: ExpectedPart, found: FoundPart): Evidence[] => {
  if (expected.kind === 'module' || found.kind === 'module') return expected.kind === found.kind ? [] : [{ weight: -100, says: 'a module is not an item' }]
  if (expected.kind === found.kind) return [{ weight: 0.8, says: 'the same kind' }]
  const definition = expected.definition
  return !isModule(definition) && definition.acceptsInstead.includes(found.kind)
    ? [{ weight: 0.3, says: `a ${found.kind}, which is accepted instead` }]
    : [{ weight: -2.2, says: `a ${found.kind} where a ${expected.kind} is expected` }]
}

const contentEvidence = (expected: ExpectedPart, found: FoundPart): Evidence[] => {
  if (expected.kind === 'module') {
    if (found.holds.length === 0 || expected.items.length === 0) return []
    const held = expected.items.filter((item) => found.holds.includes(foldName(item.name).text)).length
    return [{ weight: (held / expected.items.length - 0.15) * 5, says: `${held} of its ${expected.items.length} items` }]
  }
  if (found.text === '') return []
  const sentences = wantedSentences(expected)
  if (sentences.length === 0) return []
  const kept = sentences.filter((sentence) => found.text.includes(sentence)).length
  return [{ weight: (kept / sentences.length - 0.2) * 3.5, says: `${Math.round((100 * kept) / sentences.length)} % of its wording` }]
}

const sentenceCache = new WeakMap<ExpectedPart, string[]>()
/** Stretches of a part's own wording, long enough to tell it from others. */
const wantedSentences = (part: ExpectedPart): string[] => {
  let kept = sentenceCache.get(part)
  if (!kept) {
    kept = part.blocks
      .flatMap((block) => block.html.replace(/<[^>]+>/g, '\n').replace(/&\w+;|&#\d+;/g, ' ').split('\n'))
      .map((line) => line.replace(/\s+/g, ' ').trim().toLowerCase())
      .filter((line) => line.length >= 12)
    sentenceCache.set(part, kept)
  }
  return kept
}

/**
 * All evidence for and against a found part being an expected one. Weights are log-odds in the manner of Fellegi and
 * Sunter (1969), set by hand.
 * @param near a date of the term, for dates written without a year
 * @param sameModule whether the modules the two stand in are paired; null when the question does not arise
 */
export const evidenceFor = (expected: ExpectedPart, found: FoundPart, place: number, sameModule: boolean | null, near: string): Evidence[] => {
  const kind = kindEvidence(expected, found)
  if (kind.some((one) => one.weight <= -100)) return kind
  const evidence = [...kind, ...nameEvidence(expected, found, near), ...contentEvidence(expected, found)]
  if (found.markedAs !== null) {
    if (found.markedAs === expected.instance) evidence.push({ weight: 4, says: 'the marks that deployment left in its page' })
    else if (found.markedAs.split('@')[0] === expected.key) evidence.push({ weight: 1, says: 'the marks of the same part in another week' })
    else evidence.push({ weight: -2, says: 'the marks of another part' })
  }
  if (sameModule !== null) evidence.push(sameModule ? { weight: 1.2, says: 'in the right module' } : { weight: -1.5, says: 'in another module' })
  const away = Math.abs(place - found.place)
  evidence.push(away <= 0.15 ? { weight: 0.6, says: 'in the same place' } : { weight: -0.6 * away, says: 'in another place' })
  return evidence
}

export const totalWeight = (evidence: readonly Evidence[]): number => evidence.reduce((sum, one) => sum + one.weight, 0)
