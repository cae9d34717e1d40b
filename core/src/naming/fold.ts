import { remember } from '../remember/index.ts'

/** A text with the differences that do not change a name's meaning folded away, and where each character came from. */
export interface Folded {
  text: string
  /** For each character of `text`, its offset in the original, and one more for the end; what follows has no meaning. */
  origin: readonly number[]
}

const dash = '-'.charCodeAt(0)
const space = ' '.charCodeAt(0)
/** Unicode's dashes and minus; then its quotation marks in pairs with the plain ones. */
const dashes = '‐‑‒–—―−'
const quotes = '‘\'’\'“"”"'

const unset = 0xffff
/** Folding of UTF-16 units that stay one unit, filled as they come; 0 where it takes more than a look at the unit itself. */
const table = new Uint16Array(0x10000).fill(unset)
table[0] = 0
for (const character of dashes) table[character.charCodeAt(0)] = dash
for (let i = 0; i < quotes.length; i += 2) table[quotes.charCodeAt(i)] = quotes.charCodeAt(i + 1)

const foldUnit = (unit: number): number => {
  const kept = table[unit]
  return kept === undefined || kept === unset ? (table[unit] = foldUnitAnew(unit)) : kept
}
const foldUnitAnew = (unit: number): number => {
  const character = String.fromCharCode(unit)
  const folded = character.normalize('NFKC').toLowerCase()
  if ((unit >= 0xd800 && unit <= 0xdfff) || (unit >= 0x300 && /\p{M}/u.test(character))) return 0
  if (/^\s*$/.test(folded)) return space
  return folded.length === 1 ? folded.charCodeAt(0) : 0
}

/**
 * Folds compatibility forms (NFKC: full-width characters, no-break spaces, joined accents), dashes, quotation marks, case
 * and runs of white space. Offsets are kept, so that a reading of the folded text can quote the original exactly. Linear.
 */
export const foldName = (name: string): Folded => {
  let before = space
  let onlyDashes = true
  let hasDash = false
  for (let at = 0; at < name.length; at++) {
    const unit = name.charCodeAt(at)
    const folded = foldUnit(unit)
    if (folded === 0) return foldSlowly(name)
    if (folded === space) {
      if (before === space || unit !== space) onlyDashes = false
    } else if (folded === dash && unit !== dash) hasDash = true
    else if (unit > 0x7e && folded !== unit) onlyDashes = false
    before = folded
  }
  // Most names differ from their folded form in case and dashes only, and every character stays in its place.
  if (!onlyDashes || before === space || name.length >= inPlace.length) return foldByUnit(name)
  const lower = name.toLowerCase()
  return { text: hasDash ? lower.replace(everyDash, '-') : lower, origin: inPlace }
}
const everyDash = /[‐‑‒–—―−]/g
const inPlace: readonly number[] = Array.from({ length: 2100 }, (_, i) => i)

/** A name folded, remembered: a check folds the names of a course many times over. */
export const foldedName = remember(20_000, (name: string): string => foldName(name).text)

/** The same for names with runs of spaces or wide characters, unit by unit. */
const foldByUnit = (name: string): Folded => {
  const origin: number[] = []
  const units: number[] = []
  let before = space
  for (let at = 0; at < name.length; at++) {
    const unit = foldUnit(name.charCodeAt(at))
    if (unit === space && before === space) continue
    origin.push(at)
    units.push(unit)
    before = unit
  }
  return ended(
    name,
    units.length < 10_000
      ? String.fromCharCode(...units)
      : units.map((unit) => String.fromCharCode(unit)).join(''),
    origin,
  )
}

/** The same for names with marks that join the letter before them, ligatures, or characters of two units. */
const foldSlowly = (name: string): Folded => {
  const origin: number[] = []
  let text = ''
  // Asked of the text itself, its end would have it copied anew each time.
  let before = space
  let at = 0
  for (const cluster of name.match(/\P{M}\p{M}*|\p{M}/gsu) ?? []) {
    for (const folded of cluster.normalize('NFKC').toLowerCase()) {
      const unit = folded.length === 1 ? foldUnit(folded.charCodeAt(0)) || folded.charCodeAt(0) : 0
      if (unit === space && before === space) continue
      before = unit
      for (let i = 0; i < folded.length; i++) origin.push(at)
      text += unit === 0 ? folded : String.fromCharCode(unit)
    }
    at += cluster.length
  }
  return ended(name, text, origin)
}

const ended = (name: string, text: string, origin: number[]): Folded => {
  let end = name.length
  if (text.endsWith(' ')) {
    origin.pop()
    text = text.slice(0, -1)
    end = name.trimEnd().length
  }
  origin.push(end)
  return { text, origin }
}

/** Like `foldName`, but keeps a space at either end: inside a format it separates fields. */
export const foldLiteral = (text: string): string => foldName(`x${text}x`).text.slice(1, -1)

/** Ways in which two names may differ without a difference in meaning. */
export const smallDifferences = [
  'compatibility',
  'dashes',
  'quotes',
  'spaces',
  'case',
  'zeros',
] as const
export type SmallDifference = (typeof smallDifferences)[number]

const folds: Readonly<Record<SmallDifference, (text: string) => string>> = {
  compatibility: (text) =>
    text
      .replace(/[^\x20-\x7e]/gu, (character) =>
        dashes.includes(character) || quotes.includes(character)
          ? character
          : character.normalize('NFKC'),
      )
      .normalize('NFC')
      .replace(/[\u00a0\u2007\u202f]/g, ' '),
  dashes: (text) => text.replace(/[‐‑‒–—―−]/g, '-'),
  quotes: (text) => text.replace(/[‘’]/g, "'").replace(/[“”]/g, '"'),
  spaces: (text) => text.replace(/\s+/g, ' ').trim(),
  case: (text) => text.toLowerCase(),
  zeros: (text) => text.replace(/(?<!\d)0+(?=\d)/g, ''),
}

/** In which of these ways a name differs from the one it stands for: those without whose folding the two stay apart. */
export const differencesBetween = (name: string, wanted: string): SmallDifference[] => {
  const needed = smallDifferences.filter((left) => {
    const fold = (text: string) =>
      smallDifferences.reduce(
        (folded, kind) => (kind === left ? folded : folds[kind](folded)),
        text,
      )
    return fold(name) !== fold(wanted)
  })
  return name === wanted ? [] : needed.length > 0 ? needed : ['compatibility']
}
