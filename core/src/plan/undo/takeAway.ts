import { sameValue } from '../mergeCase.ts'
import { isFileUntold, isTextUntold } from '../untold.ts'
import { listAt } from '../places.ts'
import type { PlanStep } from '../plan.ts'
import type { PartState } from './standing.ts'
import type { Undoing } from './undoing.ts'

/** Why something the deployment made has to stay; null when nobody has used it. */
const whyItStays = (
  { items, places, baseAfter }: Undoing,
  id: string,
  instance: string,
  after: PartState,
  is: PartState,
): Pick<PlanStep, 'reason' | 'because'> | null => {
  if (items.get(id)?.studentWork)
    return { reason: 'students have work in it; it stays', because: 'student-work' }
  // What cannot be seen is not said to have been edited.
  if (is.kind === 'assessment' && is.questions === null)
    return { reason: 'its questions cannot be seen; it stays' }
  if (isFileUntold(items.get(id))) return { reason: 'its file cannot be seen; it stays' }
  if (isTextUntold(is, baseAfter.get(instance)?.blocks ?? null))
    return { reason: 'its page cannot be seen; it stays' }
  if (!sameValue(is.fields, after.fields) || is.html !== after.html)
    return { reason: 'was edited since; it stays' }
  if (!sameValue(is.questions, after.questions))
    return { reason: 'its questions were edited since; it stays' }
  if (is.kind === 'module' && places.idsIn(listAt('', id)).length > 0)
    return { reason: 'something stands in it; it stays' }
  return null
}

/** What the deployment made goes, items before the modules they stand in, unless somebody has used it. */
export const takeAway = (undoing: Undoing): void => {
  const { changes, listOf, states, record, removed, tell } = undoing
  const made = record.touched.flatMap(({ id, instance, before, after }) =>
    !before && after ? [{ id, instance, after }] : [],
  )
  for (const { id, instance, after } of made
    .reverse()
    .sort((a, b) => Number(a.after.kind === 'module') - Number(b.after.kind === 'module'))) {
    const is = states.get(id)
    if (!is) continue
    const told = { instance, state: is, name: is.fields['name'] }
    const stays = whyItStays(undoing, id, instance, after, is)
    if (stays) {
      tell({ ...told, ...stays, does: 'keep' })
      continue
    }
    const list = listOf(is.kind, is.parent)
    list.splice(list.indexOf(id), 1)
    removed.add(id)
    changes.push({ change: is.kind === 'module' ? 'remove-module' : 'remove-item', id })
    tell({ ...told, does: 'remove', reason: 'was made by the rollout; goes again' })
  }
}
