import {
  type CourseItem,
  type CourseModule,
  itemsIn,
  modulesIn,
  type PlacedItem,
  restrictedFiles,
} from '../../course/index.ts'
import { foldedName } from '../../naming/index.ts'
import type { CheckContext } from '../context.ts'

/** Why an item is kept from students. */
export type KeptBecause = 'staff' | 'answer-key' | 'restricted-file'

const work =
  '(?:quiz(?:zes)?|tests?|exams?|midterms?|finals?|assignments?|problems?(?: sets?)?|homework|worksheets?|exercises?|labs?|papers?)'
const ofWork = `(?:${work}|week|unit|chapter)(?: [0-9]+)?`
/** What gives answers away. Bare words do not: “Answers to your questions”, “Saline solutions”. */
const keyNames = [
  /\b(?:answer key|(?:marking|grading) key|(?:model|sample|worked) (?:answers?|solutions?))\b/,
  /^(?:the |all )?(?:answers|solutions)$/,
  new RegExp(`\\b${ofWork} (?:answers|solutions)\\b`),
  new RegExp(`\\b(?:answers|solutions?) (?:to|for|of) (?:the )?(?:\\w+ )?${ofWork}\\b`),
  new RegExp(`\\b${work}\\b.*\\banswers$`),
]
const ofQuestions = /\b(?:your|frequent(?:ly)?|common)\b/

/** Whether an item gives answers away, by its name; what is worth points is work itself. */
export const isAnswerKey = (item: CourseItem): boolean => {
  const name = foldedName(item.name)
  return (
    item.points === null && !ofQuestions.test(name) && keyNames.some((known) => known.test(name))
  )
}

/** Work of the module an answer key stands in that is not due yet, the last one first; null: its answers may be seen. */
export const workNotDue = (
  { item, module }: PlacedItem,
  context: CheckContext,
): { name: string; date: string } | null =>
  (module ? itemsIn(module) : [])
    .flatMap((other) =>
      other !== item && other.dueAt !== null
        ? [{ name: other.name, date: context.dateOf(other.dueAt) }]
        : [],
    )
    .sort((a, b) => (a.date < b.date ? 1 : -1))
    .find((work) => !context.reached(work.date)) ?? null

const insideOf = (module: CourseModule): CourseItem[] => [
  ...itemsIn(module),
  ...modulesIn(module).flatMap(insideOf),
]

/**
 * Everything in a course that must not come into students' view by anything Wickerframe does, by platform id: what is for
 * staff, whatever stands in a module for staff, copies of either, answers to work that is not due yet, and files kept from
 * students with the pages that lead to them.
 */
export const keptFromStudents = (context: CheckContext): ReadonlyMap<string, KeptBecause> => {
  const kept = new Map<string, KeptBecause>()
  for (const part of context.parts) {
    if (part.audience !== 'staff') continue
    const there = context.itemFor(part)
    if (there) kept.set(there.item.id, 'staff')
    const module = context.moduleFor(part)
    if (module) for (const item of insideOf(module)) kept.set(item.id, 'staff')
  }
  for (const { found, of } of context.pairing.copies)
    if (context.partAt(of)?.audience === 'staff') kept.set(found, 'staff')
  const restricted = restrictedFiles(context.course)
  for (const placed of context.placedItems) {
    const { item } = placed
    if (kept.has(item.id)) continue
    if (isAnswerKey(item) && workNotDue(placed, context)) kept.set(item.id, 'answer-key')
    else if (
      restricted.any &&
      (restricted.shownBy(item) ||
        context.pageOf(item)?.links.some((link) => restricted.at(link.href)))
    )
      kept.set(item.id, 'restricted-file')
  }
  return kept
}
