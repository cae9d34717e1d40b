import { touchesWork } from '../../course/index.ts'
import { bodyOf } from '../bodies.ts'
import { sameValue, type FieldStep } from '../mergeCase.ts'
import { isFileUntold } from '../untold.ts'
import type { PartState } from './standing.ts'
import type { Undoing } from './undoing.ts'
import { questionsBack } from './questionsBack.ts'
import { undonePage, type UndonePage } from './undonePage.ts'

/** A part that stood before the deployment, after it, and stands now. */
interface Touched {
  id: string
  instance: string
  was: PartState
  after: PartState
  is: PartState
}

interface FieldsBack {
  steps: FieldStep[]
  write: Record<string, unknown>
}

const fieldBack = (
  { items }: Undoing,
  { id, after, is }: Touched,
  field: string,
  wanted: unknown,
): FieldStep & { written: boolean } => {
  const present = is.fields[field]
  const base = after.fields[field]
  const hasWork = touchesWork(field) && (items.get(id)?.studentWork ?? false)
  const told = { field, base, present, wanted, decided: null }
  if (hasWork)
    return {
      ...told,
      does: 'leave',
      result: present,
      reason: 'students have work in it; it is left alone',
      because: 'student-work',
      written: false,
    }
  if (field === 'file' && isFileUntold(items.get(id)))
    return {
      ...told,
      does: 'keep',
      result: present,
      reason: 'cannot be seen; stays',
      written: false,
    }
  return sameValue(present, base)
    ? {
        ...told,
        does: 'change',
        result: wanted,
        reason: 'as it was before the rollout',
        written: true,
      }
    : { ...told, does: 'keep', result: present, reason: 'was edited since; stays', written: false }
}

const fieldsBack = (undoing: Undoing, touched: Touched): FieldsBack => {
  const back: FieldsBack = { steps: [], write: {} }
  for (const [field, wanted] of Object.entries(touched.was.fields)) {
    if (sameValue(wanted, touched.after.fields[field])) continue
    const { written, ...step } = fieldBack(undoing, touched, field, wanted)
    if (written) back.write[field] = wanted
    if (!sameValue(step.present, wanted)) back.steps.push(step)
  }
  return back
}

const pageBack = (
  { baseAfter, baseBefore, baseNow, bodies }: Undoing,
  { instance, was, after, is }: Touched,
): UndonePage => {
  const pageOf = ({ html }: PartState): string | null =>
    html === null ? null : bodyOf(bodies, html)
  return was.html === after.html
    ? { steps: [], html: null, back: new Set() }
    : undonePage(
        { was: pageOf(was), after: pageOf(after), is: pageOf(is) },
        baseBefore.get(instance)?.blocks ?? null,
        baseAfter.get(instance)?.blocks ?? null,
        new Set(baseNow.get(instance)?.blocks.map(({ key }) => key)),
        bodies,
      )
}

/** Ids of the questions of an assessment that a later deployment made again under others, which stand now. */
const questionsMadeAgain = (
  { baseBefore, baseNow }: Undoing,
  { instance, is }: Touched,
): ReadonlySet<string> => {
  const present = new Set(is.questions?.map(({ id }) => id))
  const keys = new Set(
    baseNow.get(instance)?.questions?.flatMap(({ id, key }) => (present.has(id) ? [key] : [])),
  )
  return new Set(
    baseBefore.get(instance)?.questions?.flatMap(({ id, key }) => (keys.has(key) ? [id] : [])),
  )
}

/** Moves a part back to where it stood unless somebody moved it since; what is told of it, null when it never moved. */
const placeBack = (undoing: Undoing, { id, was, after, is }: Touched): FieldStep | null => {
  if (was.parent === after.parent) return null
  const { changes, idNow, listOf, nameOf, placeOf, standsNow } = undoing
  const untouched = is.parent === after.parent && standsNow(was.parent)
  if (untouched) {
    const from = listOf(is.kind, is.parent)
    from.splice(from.indexOf(id), 1)
    const at = placeOf(id, is.kind, was.parent)
    listOf(is.kind, idNow(was.parent)).splice(at, 0, id)
    changes.push(
      is.kind === 'module'
        ? { change: 'move-module', id, at }
        : { change: 'move-item', id, module: idNow(was.parent), at },
    )
  }
  return {
    field: 'place',
    does: untouched ? 'change' : 'keep',
    base: nameOf(after.parent),
    present: nameOf(is.parent),
    wanted: nameOf(was.parent),
    result: nameOf(untouched ? was.parent : is.parent),
    decided: null,
    reason: untouched ? 'back to where it stood' : 'was moved since; stays',
  }
}

const setOneBack = (undoing: Undoing, touched: Touched): void => {
  const { id, instance, is } = touched
  const { steps, write } = fieldsBack(undoing, touched)
  const page = pageBack(undoing, touched)
  if (page.html !== null) undoing.pages.set(id, page.html)
  undoing.blocksBack.set(instance, page.back)
  const questions = questionsBack(
    touched.was.questions,
    touched.after.questions,
    is.questions,
    instance,
    undoing.items.get(id)?.studentWork ?? false,
    questionsMadeAgain(undoing, touched),
  )
  for (const [then, clientId] of questions.back) undoing.questions.set(then, clientId)
  if (Object.keys(write).length > 0 || page.html !== null || questions.write !== null)
    undoing.changes.push(
      is.kind === 'module'
        ? { change: 'set-module', id, fields: write }
        : {
            change: 'set-item',
            id,
            fields: {
              ...write,
              ...(page.html === null ? {} : { html: page.html }),
              ...(questions.write ? { questions: questions.write } : {}),
            },
          },
    )
  const place = placeBack(undoing, touched)
  const fields = [...steps, ...page.steps, ...questions.steps, ...(place ? [place] : [])]
  if (fields.length === 0) return
  const edited = fields.some(({ does }) => does !== 'change')
  undoing.tell({
    does: fields.some(({ does }) => does === 'change') ? 'change' : 'keep',
    instance,
    state: is,
    name: is.fields['name'],
    reason: edited ? 'taken back but for what was edited since' : 'taken back',
    fields,
  })
}

/** What the deployment changed goes back to what it was, field by field, block by block, but for what was edited since. */
export const setBack = (undoing: Undoing): void => {
  for (const { id, instance, before: was, after } of undoing.record.touched) {
    if (!was || !after) continue
    const is = undoing.states.get(id)
    if (is) setOneBack(undoing, { id, instance, was, after, is })
    else {
      const reason = 'was removed since; stays removed'
      undoing.tell({ does: 'keep', instance, state: after, name: after.fields['name'], reason })
    }
  }
}
