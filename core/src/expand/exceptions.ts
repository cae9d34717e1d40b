import type { Unit } from '../calendar/index.ts'
import type { Exception, Module, Part } from '../template/index.ts'
import type { Occurrence } from './repetitions.ts'

/** A occurrence, and where it stands among the occurrences of its module. */
export interface OccurrencePlace {
  occurrence: Occurrence
  first: boolean
  last: boolean
  /** The unit it is nested in, and whether it is that unit's last occurrence; null where it is nested in none. */
  unit: { number: number; endsHere: boolean } | null
}

/** Number of the unit that ends with a occurrence, or null. */
const unitEndedBy = (
  { occurrence, unit }: OccurrencePlace,
  units: readonly Unit[],
): number | null => {
  if (unit) return unit.endsHere ? unit.number : null
  const last = occurrence.weeks.at(-1)
  if (!last) return null
  return (
    units.find((unit) =>
      unit.lastWeek !== undefined
        ? unit.lastWeek === last.number
        : unit.lastDay !== undefined && unit.lastDay >= last.first && unit.lastDay <= last.last,
    )?.number ?? null
  )
}

/** Which of a module's exceptions hold in one of its occurrences, in the order they are written. */
export const exceptionsAt = (
  exceptions: readonly Exception[],
  place: OccurrencePlace,
  units: readonly Unit[],
): Exception[] =>
  exceptions.filter(({ anchor }) => {
    switch (anchor.at) {
      case 'first':
        return place.first
      case 'last':
        return place.last
      case 'number':
        return place.occurrence.number === anchor.number
      case 'last-of-unit':
        return unitEndedBy(place, units) !== null
      case 'pause':
        return (
          place.occurrence.weeks.length > 0 &&
          place.occurrence.weeks.every((week) => week.breakName !== null)
        )
    }
  })

/**
 * The number by which what an exception adds is carried over to a later deployment: the unit's number at the end of a
 * unit, otherwise how often the exception held before. It does not name the week, so that an exam moves with its unit.
 */
export const numberOfTurn = (
  exception: Exception,
  occurrence: number,
  place: OccurrencePlace | null,
  units: readonly Unit[],
): number =>
  exception.anchor.at === 'last-of-unit' && place
    ? (unitEndedBy(place, units) ?? occurrence)
    : occurrence

/** A part with the fields laid over it, and by which exception; null where it is left out. */
export const laidOver = (
  part: Part,
  exceptions: readonly Exception[],
): { part: Part; exception: string | null } | null => {
  let now = part
  let by: string | null = null
  for (const exception of exceptions) {
    if (exception.leaveOut === 'all' || exception.leaveOut.includes(part.key)) return null
    const set = exception.set.find((change) => change.part === part.key)
    if (!set) continue
    by = exception.key
    now = {
      ...now,
      name: set.name ?? now.name,
      strength: set.strength ?? now.strength,
      settings: { ...now.settings, ...set.settings },
    }
  }
  return { part: now, exception: by }
}

/** A module with the fields laid over it; null where this repetition does not exist. */
export const laidOverModule = (module: Module, exceptions: readonly Exception[]): Module | null => {
  let now = module
  for (const exception of exceptions) {
    if (exception.omit) return null
    now = { ...now, name: exception.name ?? now.name, strength: exception.strength ?? now.strength }
  }
  return now
}
