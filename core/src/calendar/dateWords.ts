/**
 * Words for months and weekdays as people write them in English, French and Spanish; folded to lower case, without
 * accents. Common practice, no source.
 */
const monthWords: readonly string[] = [
  'jan january janv janvier ene enero',
  'feb february febr fev fevr fevrier febrero',
  'mar march mars marzo',
  'apr april avr avril abr abril',
  'may mai mayo',
  'jun june juin junio',
  'jul july juil juill juillet julio',
  'aug august aout ago agosto',
  'sep sept september septembre septiembre setiembre',
  'oct october octobre octubre',
  'nov november novembre noviembre',
  'dec december decembre dic diciembre',
]
const weekdayWords: readonly string[] = [
  'mon monday lun lundi lunes',
  'tue tues tuesday mardi martes',
  'wed weds wednesday mer mercredi mie miercoles',
  'thu thur thurs thursday jeu jeudi jue jueves',
  'fri friday ven vendredi vie viernes',
  'sat saturday sam samedi sab sabado',
  'sun sunday dim dimanche dom domingo',
]

const numbered = (lists: readonly string[]): ReadonlyMap<string, number> =>
  new Map(lists.flatMap((words, i) => words.split(' ').map((word) => [word, i + 1] as const)))
const months = numbered(monthWords)
const days = numbered(weekdayWords)

/** A word without its accents. */
export const withoutAccents = (word: string): string =>
  /^[\x20-\x7f]*$/.test(word) ? word : word.normalize('NFD').replace(/\p{M}/gu, '')

/** Month of a folded word, 1 to 12, or null. */
export const monthOfWord = (word: string): number | null =>
  months.get(word) ?? months.get(withoutAccents(word)) ?? null

/** Weekday of a folded word, Monday 1 to Sunday 7, or null. */
export const weekdayOfWord = (word: string): number | null =>
  days.get(word) ?? days.get(withoutAccents(word)) ?? null

/** Every month word, longest first, for patterns. */
export const everyMonthWord: readonly string[] = [...months.keys()].sort(
  (a, b) => b.length - a.length,
)
