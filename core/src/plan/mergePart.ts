import { type ExpectedPart, gathered, wantedFields } from '../expand/index.ts'
import { sameValue, type FieldStep } from './mergeCase.ts'
import { mergeFields } from './mergeFields.ts'
import { mergePage, type PageMerge } from './mergePage.ts'
import { mergePlace, type Moves } from './mergePlace.ts'
import type { PlanStep } from './plan.ts'
import { recordOf, type PlanContext } from './planContext.ts'
import { wantedBlocks } from './wantedBlocks.ts'
import { formatOfName } from './wantedFields.ts'

const noPage: PageMerge = { html: null, steps: [], blocks: [], ours: false }

const doesOf = (fields: readonly FieldStep[], isAdopted: boolean): PlanStep['does'] => {
  if (fields.some((field) => field.does === 'conflict')) return 'conflict'
  if (isAdopted) return 'adopt'
  if (!fields.some((field) => field.does === 'change' || field.does === 'restore')) return 'keep'
  return fields.every((field) => field.field === 'place') ? 'move' : 'change'
}

/** Merges a part that stands in the course: its fields, its page, its place. @returns whether there is anything to tell of it */
export const mergePart = (
  part: ExpectedPart,
  id: string,
  moves: Moves,
  context: PlanContext,
): boolean => {
  const {
    expected,
    bodies,
    restoreFixed,
    entryOf,
    found,
    changes,
    next,
    chosenPart,
    chosenBlock,
    decide,
    tell,
  } = context
  const entry = entryOf.get(part.instance)
  const item = found.get(id)?.item ?? null
  const of = item ?? found.get(id)?.module
  if (!of) return false
  const whole = chosenPart(part)
  const decideHere = (field: string) => decide(part.instance, field)
  const { write, told, fields, freshFields } = mergeFields({
    wanted: whole ? wantedFields(part, expected) : {},
    of,
    before: entry?.fields ?? null,
    name: { format: entry?.format ?? null, part },
    hasWork: item?.studentWork ?? false,
    decide: decideHere,
  })
  const page =
    item && (part.blocks.length > 0 || (entry?.blocks.length ?? 0) > 0)
      ? mergePage({
          wanted: wantedBlocks(part, context),
          base: entry ? entry.blocks : null,
          ours: entry?.page ?? null,
          present: item.html,
          bodies,
          restoreFixed,
          decide: decideHere,
          chosen: (block) => chosenBlock(part, block),
        })
      : noPage
  if (Object.keys(write).length > 0 || page.html !== null) {
    const set = gathered(of, write)
    changes.push(
      item
        ? {
            change: 'set-item',
            id,
            fields: { ...set, ...(page.html === null ? {} : { html: page.html }) },
          }
        : { change: 'set-module', id, fields: set },
    )
  }
  const place = entry && whole ? mergePlace(part, id, entry, moves, context) : null
  // Where a place was not taken over, the base keeps the place it was deployed to.
  const placeHeld = place !== null && place.does !== 'change' && place.decided === null
  next.push({
    ...recordOf(part, expected),
    parent: entry && (!whole || placeHeld) ? entry.parent : part.parent,
    format:
      fields['name'] && sameValue(fields['name'].sent, part.name)
        ? formatOfName(part)
        : (entry?.format ?? null),
    platformId: id,
    fields,
    freshFields,
    blocks: page.blocks,
    page: page.html === null && page.ours ? (entry?.page ?? null) : null,
    freshPage: page.html !== null && page.ours,
  })
  // What a course that is taken over says as the template does needs no telling.
  const all = [...told, ...page.steps, ...(place ? [place] : [])].filter(
    ({ does, reason }) => entry || does !== 'agree' || reason !== 'is there already',
  )
  if (all.length === 0 && entry) return false
  tell(
    doesOf(all, !entry),
    part,
    entry ? (all[0]?.reason ?? '') : 'is there already; it is taken as this part',
    all,
    of.name,
  )
  return true
}
