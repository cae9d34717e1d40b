import { bodyOf } from '../bodies.ts'
import type { QuestionsWritten } from '../../course/index.ts'
import type { PartState } from './standing.ts'
import { wasMadeAgain, type Undoing } from './undoing.ts'

/** Fields that are left away where nothing stood in them. */
const leftAwayIfEmpty = new Set(['target', 'work', 'rubric', 'file', 'carried'])

const fieldsToCreate = ({ fields }: PartState): { name: string } =>
  Object.fromEntries(
    Object.entries(fields).filter(
      ([field, value]) => value !== null || !leftAwayIfEmpty.has(field),
    ),
  ) as { name: string }

/** All its questions again, under new ids; of a kind that has no fields here, they cannot come back. */
const questionsBroughtBack = (
  { questions: back }: Undoing,
  instance: string,
  { questions }: PartState,
): QuestionsWritten | null => {
  const order = (questions ?? []).flatMap(({ id, body }) => {
    if (body.kind === 'other') return []
    const clientId = `${instance}?back-${id}`
    back.set(id, clientId)
    return [{ clientId, body }]
  })
  return order.length > 0 ? { order, remove: [] } : null
}

const bringOneBack = (undoing: Undoing, id: string, instance: string, was: PartState): void => {
  const { bodies, changes, idNow, listOf, madeAgain, pages, placeOf, remade, standsNow, tell } =
    undoing
  const told = { instance, state: was, name: was.fields['name'] }
  if (madeAgain.has(id)) {
    tell({ ...told, does: 'keep', reason: wasMadeAgain })
    return
  }
  if (!standsNow(was.parent)) {
    const reason = 'the module it stood in is gone, so it cannot come back'
    tell({ ...told, does: 'keep', reason })
    return
  }
  const parent = idNow(was.parent)
  const at = placeOf(id, was.kind, was.parent)
  listOf(was.kind, parent).splice(at, 0, `ref:${instance}`)
  remade.set(id, instance)
  const fields = fieldsToCreate(was)
  if (was.kind === 'module')
    changes.push({ change: 'create-module', clientId: instance, parent, at, fields })
  else {
    const questions = questionsBroughtBack(undoing, instance, was)
    const html = was.html === null ? undefined : bodyOf(bodies, was.html)
    if (html !== undefined) pages.set(id, html)
    changes.push({
      change: 'create-item',
      clientId: instance,
      module: parent,
      at,
      kind: was.kind,
      fields: {
        ...fields,
        ...(html === undefined ? {} : { html }),
        ...(questions ? { questions } : {}),
      },
    })
  }
  tell({ ...told, does: 'create', reason: 'was removed by the rollout; comes back' })
}

/** What the deployment removed comes back, modules before what stood in them, in the order in which they stood. */
export const bringBack = (undoing: Undoing): void => {
  const lost = undoing.record.touched.flatMap(({ id, instance, before, after }) =>
    before && !after ? [{ id, instance, was: before }] : [],
  )
  for (const { id, instance, was } of lost.sort(
    (a, b) => Number(b.was.kind === 'module') - Number(a.was.kind === 'module'),
  ))
    bringOneBack(undoing, id, instance, was)
}
