import type { Base, BaseEntry } from '../base.ts'
import { grouped } from '../../grouped/index.ts'
import { everyExpected, type ExpectedCourse, type ExpectedPart } from '../../expand/index.ts'

/** Which part of a new course takes the place of which of an earlier one. */
export interface Counterparts {
  /** The part that takes an entry's place; undefined: there is none. */
  of: (entry: BaseEntry) => ExpectedPart | undefined
  /** The entry whose place a part takes. */
  from: (part: ExpectedPart) => BaseEntry | undefined
}

/**
 * Pairs the repetitions of each part in the order of their turns, not by their numbers: where the pause lies elsewhere in the
 * new term, the sixth week of class is still the sixth. A module of a pause holds nothing and has no turn.
 */
export const counterparts = (base: Base, expected: ExpectedCourse): Counterparts => {
  const holding = new Set(base.parts.flatMap((entry) => entry.parent ?? []))
  const byKey = grouped(base.parts, (entry) => entry.part)
  const wanted = grouped(
    [...everyExpected(expected.parts), expected.home].filter((part) => !part.inBreak),
    (part) => part.key,
  )
  const of = new Map<string, ExpectedPart>()
  const from = new Map<string, BaseEntry>()
  for (const [key, all] of byKey) {
    const hold = all.filter((entry) => holding.has(entry.instance))
    const entries = all[0]?.kind === 'module' && hold.length > 0 ? hold : all
    for (const [i, entry] of entries.entries()) {
      const part = wanted.get(key)?.[i]
      if (!part) continue
      of.set(entry.instance, part)
      from.set(part.instance, entry)
    }
  }
  return { of: (entry) => of.get(entry.instance), from: (part) => from.get(part.instance) }
}
