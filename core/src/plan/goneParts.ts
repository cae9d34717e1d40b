import type { CourseQuestion } from '../course/index.ts'
import type { BaseEntry } from './base.ts'
import { sameQuestion } from '../questions/index.ts'
import { sameValue } from './mergeCase.ts'
import { isFileUntold, isTextUntold } from './untold.ts'
import { listAt } from './places.ts'
import { unchangedEntry, type ModuleOrItem, type PlanContext } from './planContext.ts'
import { presentField } from './wantedFields.ts'

/** Whether an assessment holds just the questions that were deployed. */
const holdsOnlyOurs = (entry: BaseEntry, questions: readonly CourseQuestion[]): boolean => {
  const ours = entry.questions ?? []
  return (
    questions.length === ours.length &&
    questions.every((question) =>
      ours.some(({ id, echo }) => id === question.id && sameQuestion(echo, question.body)),
    )
  )
}

/** Why a part that the template no longer has stays all the same; null when it may go. */
const staysBecause = (
  entry: BaseEntry,
  { module, item }: ModuleOrItem,
  { course, bodies, places }: PlanContext,
): string | null => {
  const of = item ?? module
  const untouched =
    of !== null &&
    Object.entries(entry.fields).every(([field, { echo }]) =>
      sameValue(presentField(of, field), echo),
    ) &&
    (!item?.questions || holdsOnlyOurs(entry, item.questions)) &&
    (!item ||
      (item.html ?? '') === '' ||
      (entry.page !== null && bodies.idOf(item.html ?? '') === entry.page))
  if (item?.studentWork) return 'students have work in it'
  // What is not told may be what an instructor wrote, but is not said to have been edited.
  if (item?.kind === 'assessment' && item.questions === undefined)
    return 'its questions cannot be seen'
  if (isFileUntold(item)) return 'its file cannot be seen'
  if (item && isTextUntold(item, entry.blocks)) return 'its page cannot be seen'
  if (!untouched) return 'it was edited here'
  if (module && places.idsIn(listAt('', module.id)).length > 0) return 'something stands in it'
  if (item && course.homePage === item.id) return 'it is the home page'
  return null
}

/** Plans for what the template had before and no longer has: removed if untouched and without student work, else left and told. */
export const planGoneParts = (context: PlanContext): void => {
  const {
    expected,
    base,
    partOf,
    found,
    standsIn,
    chosenKey,
    nameOf,
    places,
    changes,
    steps,
    next,
  } = context
  const gone = base.parts.filter((entry) => !partOf.has(entry.instance))
  const removed = new Set<string>()
  // Items before the modules they stand in, inner before outer.
  for (const entry of [...gone]
    .reverse()
    .sort((a, b) => Number(a.kind === 'module') - Number(b.kind === 'module'))) {
    const at = found.get(entry.platformId)
    const of = at?.item ?? at?.module
    // What another template brought is none of this one's business.
    if (entry.template !== expected.template.key || !chosenKey(entry.part)) continue
    if (!at || !of) {
      removed.add(entry.instance)
      continue
    }
    const why = staysBecause(entry, at, context)
    if (why === null) {
      removed.add(entry.instance)
      changes.push({ change: at.module ? 'remove-module' : 'remove-item', id: entry.platformId })
      const list = places.idsIn(listAt(entry.kind, standsIn.get(entry.platformId) ?? null))
      const index = list.indexOf(entry.platformId)
      if (index >= 0) list.splice(index, 1)
    }
    steps.push({
      does: why === null ? 'remove' : 'keep',
      instance: entry.instance,
      part: entry.part,
      kind: entry.kind,
      name: of.name,
      into: nameOf(entry.parent),
      opensAt: null,
      dueAt: null,
      fields: [],
      ...(at.item?.studentWork ? { because: 'student-work' as const } : {}),
      reason:
        why === null
          ? 'no longer in the template; it is as it was deployed, and nobody has worked in it'
          : `no longer in the template, but ${why}; it stays`,
    })
  }
  next.push(...gone.filter((entry) => !removed.has(entry.instance)).map(unchangedEntry))
}
