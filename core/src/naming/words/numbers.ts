/** Numbers in words, ordinals and roman numerals, in English, French and Spanish. Common practice, no source. */
import { withoutAccents } from '../../calendar/index.ts'

const cardinals = [
  'one un une uno una',
  'two deux dos',
  'three trois tres',
  'four quatre cuatro',
  'five cinq cinco',
  'six seis',
  'seven sept siete',
  'eight huit ocho',
  'nine neuf nueve',
  'ten dix diez',
  'eleven onze once',
  'twelve douze doce',
  'thirteen treize trece',
  'fourteen quatorze catorce',
  'fifteen quinze quince',
  'sixteen seize dieciseis',
  'seventeen',
  'eighteen',
  'nineteen',
  'twenty vingt veinte',
]
const ordinals = [
  'first premier premiere primer primero primera',
  'second seconde deuxieme segundo segunda',
  'third troisieme tercer tercero tercera',
  'fourth quatrieme cuarto cuarta',
  'fifth cinquieme quinto quinta',
  'sixth sixieme sexto sexta',
  'seventh septieme septimo septima',
  'eighth huitieme octavo octava',
  'ninth neuvieme noveno novena',
  'tenth dixieme decimo decima',
  'eleventh onzieme',
  'twelfth douzieme',
  'thirteenth treizieme',
  'fourteenth quatorzieme',
  'fifteenth quinzieme',
  'sixteenth seizieme',
]
const numbered = (lists: readonly string[]): ReadonlyMap<string, number> =>
  new Map(lists.flatMap((words, i) => words.split(' ').map((word) => [word, i + 1] as const)))
const cardinalWords = numbered(cardinals)
const ordinalWords = numbered(ordinals)
const suffixes = new Set(['st', 'nd', 'rd', 'th', 'er', 're', 'e', 'eme', 'ieme', 'nde', 'a', 'o'])

/** The number a folded word says (`three`, `trois`, `tres`), or null. */
export const cardinalOf = (word: string): number | null =>
  cardinalWords.get(withoutAccents(word)) ?? null

/** The place a folded word says (`third`, `troisième`, `tercera`), or null. */
export const ordinalOf = (word: string): number | null =>
  ordinalWords.get(withoutAccents(word)) ?? null

/** Whether a folded word after a number makes it an ordinal: 3rd, 2e, 6ème. */
export const isOrdinalSuffix = (word: string): boolean => suffixes.has(withoutAccents(word))

const romanDigits: Readonly<Record<string, number>> = { i: 1, v: 5, x: 10 }

/** The value of a folded roman numeral from I to XXXIX in its one right form, or null. */
export const romanOf = (word: string): number | null => {
  if (!/^(?=.)x{0,3}(?:ix|iv|v?i{0,3})$/.test(word)) return null
  let sum = 0
  for (let i = 0; i < word.length; i++) {
    const here = romanDigits[word[i] ?? ''] ?? 0
    sum += here < (romanDigits[word[i + 1] ?? ''] ?? 0) ? -here : here
  }
  return sum
}
