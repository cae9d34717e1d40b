import type { ExpectedPart } from '../expand/index.ts'
import { grouped } from '../grouped/index.ts'
import type { BaseEntry } from './base.ts'
import type { Decision, FieldStep } from './mergeCase.ts'
import { listAt, movedBetween, movedByPeople, placeAmong, placesOf } from './places.ts'
import type { PlanContext } from './planContext.ts'

/** What moved in the orders of siblings since they were deployed, by the module they were deployed to. */
export interface Moves {
  byTemplate: ReadonlyMap<string | null, ReadonlySet<string>>
  byPeople: ReadonlyMap<string | null, ReadonlySet<string>>
  /** Platform ids of what the template moves and has not been moved yet: nothing finds its place beside them. */
  yetToMove: Set<string>
}

/** Compares three orders of siblings: as deployed, as wanted, as they stand. The fewest moves tell who moved what. */
export const movesOf = ({ parts, base, siblings, standing, places }: PlanContext): Moves => {
  const deployedTo = grouped(
    base.parts.filter(({ instance }) => standing(instance) !== undefined),
    ({ parent }) => parent,
  )
  const byTemplate = new Map<string | null, Set<string>>()
  const byPeople = new Map<string | null, Set<string>>()
  for (const parent of new Set(parts.map((part) => part.parent))) {
    const deployed = deployedTo.get(parent) ?? []
    const order = deployed.map((entry) => entry.instance)
    byTemplate.set(parent, movedBetween(order, siblings.get(parent) ?? []))
    byPeople.set(
      parent,
      movedByPeople(deployed, parent === null ? null : (standing(parent) ?? null), places),
    )
  }
  const yetToMove = new Set(
    [...byTemplate.values()].flatMap((moved) =>
      [...moved].flatMap((instance) => standing(instance) ?? []),
    ),
  )
  return { byTemplate, byPeople, yetToMove }
}

const before = <T>(list: readonly T[], member: T): T[] =>
  list.slice(0, Math.max(0, list.indexOf(member)))

/** A place as people find it: in which module, and behind what. */
const placeWords = (module: string | null, earlier: readonly (string | null)[]): string => {
  const last = earlier.findLast((name) => name !== null)
  return [
    ...(module === null ? [] : [`in “${module}”`]),
    last === undefined || last === null ? 'first' : `after “${last}”`,
  ].join(', ')
}

const presentPlace = (
  id: string,
  part: ExpectedPart,
  module: string | null,
  { found, course }: PlanContext,
): string => {
  const list = placesOf(course).idsIn(listAt(part.kind, module))
  const nameAt = (id: string): string | null =>
    found.get(id)?.item?.name ?? found.get(id)?.module?.name ?? null
  return placeWords(module === null ? null : nameAt(module), before(list, id).map(nameAt))
}

const deployedPlace = (entry: BaseEntry, { base, nameOf }: PlanContext): string => {
  const siblings = base.parts.filter((part) => part.parent === entry.parent)
  return placeWords(
    nameOf(entry.parent),
    before(siblings, entry).map(({ instance }) => nameOf(instance)),
  )
}

/** Merges the place of a part that stands; null where the template did not move it. */
export const mergePlace = (
  part: ExpectedPart,
  id: string,
  entry: BaseEntry,
  moves: Moves,
  context: PlanContext,
): FieldStep | null => {
  const { standsIn, created, placed, places, changes, refOf, siblingRefs, nameOf, decide } = context
  moves.yetToMove.delete(id)
  const module = standsIn.get(id)
  const parentMoved = entry.parent !== part.parent
  if (!parentMoved && !(moves.byTemplate.get(part.parent)?.has(part.instance) ?? false)) return null
  const toModule = part.parent === null ? null : refOf(part.parent)
  const fromModule = entry.parent === null ? null : placed(entry.parent)
  const peopleMoved =
    (module ?? null) !== (fromModule ?? null) ||
    (moves.byPeople.get(entry.parent)?.has(part.instance) ?? false)
  const present = presentPlace(id, part, module ?? null, context)
  const wanted = placeWords(
    nameOf(part.parent),
    before(context.siblings.get(part.parent) ?? [], part.instance).map(nameOf),
  )
  const say = (does: FieldStep['does'], decided: Decision | null, reason: string): FieldStep => ({
    field: 'place',
    does,
    base: deployedPlace(entry, context),
    present,
    wanted,
    result: does === 'change' || decided === 'take' ? wanted : present,
    decided,
    reason,
  })
  if (toModule?.startsWith('ref:') && !created.has(part.parent ?? ''))
    return say('leave', null, 'the module it moves to is not there')
  if (part.kind === 'module' && parentMoved)
    return say('leave', null, 'a module is not moved into another one; move it by hand')
  const decided = peopleMoved ? decide(part.instance, 'place') : null
  if (peopleMoved && decided !== 'take')
    return say(
      'conflict',
      decided === 'both' ? null : decided,
      'moved in the template and in the course',
    )
  // A module moves within what it stands in, wherever that is.
  const to = part.kind === 'module' ? (module ?? null) : toModule
  const list = places.idsIn(listAt(part.kind, to))
  const from = places.idsIn(listAt(part.kind, module ?? null))
  const was = from.indexOf(id)
  from.splice(was, 1)
  const at = placeAmong(list, siblingRefs(part), id, moves.yetToMove)
  list.splice(at ?? list.length, 0, id)
  if (from === list && list.indexOf(id) === was) return null
  changes.push(
    part.kind === 'module'
      ? { change: 'move-module', id, at }
      : { change: 'move-item', id, module: toModule, at },
  )
  return say(peopleMoved ? 'conflict' : 'change', decided, 'moved in the template')
}
