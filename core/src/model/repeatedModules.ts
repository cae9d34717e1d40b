import { type CourseModule, itemsIn } from '../course/index.ts'
import { formatOf, inferFormats, readName, romanOf } from '../naming/index.ts'
import { structureShared } from './alignModules.ts'
import { seenItems, type Seen } from './similarity.ts'

/** A module as one repetition of a group: its number, and what its name says besides. */
export interface Repetition {
  module: CourseModule
  number: number
  topic: string
  seen: readonly Seen[]
}
export interface ModuleGroup {
  per: 'week' | 'unit' | 'day'
  repetitions: Repetition[]
  /** Modules that belong by what they hold although their names do not follow. */
  byStructure: number
}

/** Two repetitions prove little. */
const fewest = 3
const leastShared = 0.5

const perOf = (format: string): ModuleGroup['per'] | null =>
  /\{week\b|\{weeks\b/.test(format)
    ? 'week'
    : /\{unit\b/.test(format)
      ? 'unit'
      : /\{day\b/.test(format)
        ? 'day'
        : /\{number\b/.test(format)
          ? 'unit'
          : null

/** A roman numeral after a word or at the beginning of a name, read as the number it is: `Unit III: Tides`, `III. Tides`. */
const romanNumber = /^(\p{L}{3,20}\s+)?([IVX]{1,5})(?=[\s.:·–—|/-])/u
/** A name by which modules are compared; the name itself, unless a roman numeral counts it. */
export const comparedName = (name: string): string =>
  name.replace(romanNumber, (all: string, word: string | undefined, roman: string) => {
    const value = romanOf(roman.toLowerCase())
    return value === null ? all : `${word ?? ''}${value}`
  })

/** So many modules of one shape are no accident, whatever they are called. */
const fewestOfOneShape = 5
const leastOneShape = 0.75

/** Modules that hold the same under names that no number runs through, in their order; null where too few do. */
const ofOneShape = (modules: readonly CourseModule[], weeks: number): ModuleGroup | null => {
  const seen = modules.map((module) => seenItems(itemsIn(module), module.name))
  const alike = (a: number, b: number): boolean =>
    structureShared(seen[a] ?? [], seen[b] ?? []) >= leastOneShape
  const groups = modules.map((_, i) =>
    modules.flatMap((_, j) => (i === j || alike(i, j) ? [j] : [])),
  )
  const largest = groups.reduce((best, group) => (group.length > best.length ? group : best), [])
  if (largest.length < fewestOfOneShape) return null
  return {
    per: largest.length >= weeks * 0.6 ? 'week' : 'unit',
    repetitions: largest.flatMap((at, i) => {
      const module = modules[at]
      return module ? [{ module, number: i + 1, topic: module.name, seen: seen[at] ?? [] }] : []
    }),
    byStructure: largest.length,
  }
}

/**
 * Which modules of a course are repetitions of one another: those whose names follow one format with a number, arabic or
 * roman, and between them those that hold the same although their names do not follow; else those of one shape. Null where
 * none repeat.
 * @param weeks of the course: a bare number that runs through most of them is that of the week
 */
export const repeatedModules = (
  modules: readonly CourseModule[],
  near: string,
  weeks: number,
): ModuleGroup | null => {
  const names = modules.map((module) => comparedName(module.name))
  for (const candidate of inferFormats(names, near)) {
    const per = perOf(candidate.format)
    if (per === null || candidate.count < fewest) continue
    const format = formatOf(candidate.format)
    const following = modules.map((module) => {
      const reading = readName(format, comparedName(module.name), {})
      const number = reading?.readings
        .map((reading) => reading.value)
        .find((value) => typeof value === 'number')
      return reading && typeof number === 'number'
        ? {
            number,
            topic: reading.readings.find((reading) => reading.field === 'topic')?.text ?? '',
          }
        : null
    })
    const numbers = following.flatMap((repetition) => (repetition ? [repetition.number] : []))
    if (new Set(numbers).size < fewest) continue
    const taken = new Set<number>()
    const repetitions: Repetition[] = []
    modules.forEach((module, i) => {
      const read = following[i]
      if (!read || taken.has(read.number)) return
      taken.add(read.number)
      repetitions.push({ module, ...read, seen: seenItems(itemsIn(module), read.topic) })
    })
    // Renamed ones: they stand between followers whose numbers leave a gap, and hold the same.
    let byStructure = 0
    modules.forEach((module, i) => {
      if (repetitions.some((repetition) => repetition.module === module)) return
      const before =
        following.slice(0, i).findLast((repetition) => repetition !== null)?.number ?? 0
      const after =
        following.slice(i + 1).find((repetition) => repetition !== null)?.number ??
        Math.max(...numbers) + 2
      const said = Number(/\d+/.exec(module.name)?.[0] ?? Number.NaN)
      const free = (number: number) => number > before && number < after && !taken.has(number)
      const unfollowedBefore = modules
        .slice(0, i)
        .filter(
          (other, j) =>
            j >
              modules.findLastIndex(
                (module, k) => k < i && following[k] !== null && module !== other,
              ) && following[j] === null,
        ).length
      const number = free(said)
        ? said
        : free(before + 1 + unfollowedBefore)
          ? before + 1 + unfollowedBefore
          : free(before + 1)
            ? before + 1
            : null
      if (number === null) return
      const seen = seenItems(itemsIn(module), '')
      const shared = repetitions
        .slice(0, 8)
        .map((repetition) => structureShared(repetition.seen, seen))
      if (Math.max(0, ...shared) < leastShared) return
      taken.add(number)
      byStructure += 1
      repetitions.push({ module, number, topic: '', seen })
    })
    return {
      per:
        per === 'unit' && !candidate.format.includes('{unit') && repetitions.length >= weeks * 0.6
          ? 'week'
          : per,
      repetitions: repetitions.sort((a, b) => a.number - b.number),
      byStructure,
    }
  }
  return ofOneShape(modules, weeks)
}
