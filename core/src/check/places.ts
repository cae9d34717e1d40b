import type { ExpectedPart } from '../expand/index.ts'
import type { CheckContext, Subject } from '../rules/index.ts'
import { subjectKey } from './openRequirement.ts'
import type { Place } from './outcome.ts'

/** Where requirements stand. Many are about the same part, and share their place. */
export const placesIn = (
  context: CheckContext,
): ((subject: Subject, itemId: string | undefined) => Place) => {
  const ofParts = new Map<ExpectedPart, Place>()
  const others = new Map<string, Place>()
  const known = <K>(
    places: Map<K, Place>,
    key: K,
    subject: Subject,
    itemId: string | undefined,
  ): Place => {
    let place = places.get(key)
    if (!place) places.set(key, (place = workOutPlace(subject, itemId, context)))
    return place
  }
  return (subject, itemId) =>
    subject.about === 'part' &&
    (itemId === undefined || context.pairOf(subject.part)?.found === itemId)
      ? known(ofParts, subject.part, subject, itemId)
      : known(others, `${subjectKey(subject)} ${itemId ?? ''}`, subject, itemId)
}

const workOutPlace = (
  subject: Subject,
  itemId: string | undefined,
  context: CheckContext,
): Place => {
  const part = subject.about === 'part' ? subject.part : null
  const foundId =
    itemId ??
    (subject.about === 'found' ? subject.id : part ? (context.pairOf(part)?.found ?? null) : null)
  const placed = foundId === null ? null : context.placed(foundId)
  const module = placed ? placed.module : foundId === null ? null : context.moduleById(foundId)
  const parent = part?.parent ? context.partAt(part.parent) : null
  const outer = module?.name ?? (parent ? (context.moduleFor(parent)?.name ?? parent.name) : null)
  const inner = placed?.item.name ?? (part && part.kind !== 'module' ? part.name : null)
  const path = [outer ?? (part?.kind === 'module' ? part.name : null), inner].flatMap(
    (name) => name ?? [],
  )
  const week = part?.values.week ?? null
  return {
    path: path.length > 0 ? path : [context.course.name],
    part: part?.key ?? null,
    instance: part?.instance ?? null,
    week: typeof week === 'number' ? week : null,
    foundId,
  }
}
