import type { Change, CourseItem, CourseModule } from '../course/index.ts'
import { type ExpectedPart, gathered, wantedFields } from '../expand/index.ts'
import type { BaseEntry } from './base.ts'
import { sameValue, type FieldStep } from './mergeCase.ts'
import { mergeFields } from './mergeFields.ts'
import { mergePage, type PageMerge } from './mergePage.ts'
import { mergeQuestions, type QuestionsMerge } from './mergeQuestions.ts'
import { mergePlace, type Moves } from './mergePlace.ts'
import type { NextEntry } from './nextBase.ts'
import { withoutOwnFile } from './ownFile.ts'
import type { PlanStep } from './plan.ts'
import { recordOf, type PlanContext } from './planContext.ts'
import { questionClientId, writtenQuestion } from './wantedQuestions.ts'
import { wantedBlocks } from './wantedBlocks.ts'
import { formatOfName } from './wantedFields.ts'
import { isTextUntold } from './untold.ts'

const noPage: PageMerge = { html: null, steps: [], blocks: [], ours: false }

const doesOf = (fields: readonly FieldStep[], isAdopted: boolean): PlanStep['does'] => {
  if (fields.some((field) => field.does === 'conflict')) return 'conflict'
  if (isAdopted) return 'adopt'
  if (!fields.some((field) => field.does === 'change' || field.does === 'restore')) return 'keep'
  return fields.every((field) => field.field === 'place') ? 'move' : 'change'
}

/** A part that stands in the course: what it is expected to be, what was deployed, and what is found. */
interface Standing {
  part: ExpectedPart
  id: string
  entry: BaseEntry | undefined
  item: CourseItem | null
  of: CourseItem | CourseModule
  /** Whether all of it takes part, rather than single blocks. */
  whole: boolean
}

const fieldsOf = ({ part, entry, item, of, whole }: Standing, context: PlanContext) =>
  mergeFields({
    wanted: whole ? withoutOwnFile(wantedFields(part, context.expected), part, entry, item) : {},
    of,
    before: entry?.fields ?? null,
    name: { format: entry?.format ?? null, part },
    hasWork: item?.studentWork ?? false,
    decide: (field) => context.decide(part.instance, field),
  })

const pageOf = ({ part, entry, item }: Standing, context: PlanContext): PageMerge =>
  item && (part.blocks.length > 0 || (entry?.blocks.length ?? 0) > 0)
    ? mergePage({
        wanted: wantedBlocks(part, context),
        base: entry ? entry.blocks : null,
        ours: entry?.page ?? null,
        present: item.html,
        isUntold: isTextUntold(item, entry?.blocks ?? null),
        bodies: context.bodies,
        restoreFixed: context.restoreFixed,
        decide: (field) => context.decide(part.instance, field),
        chosen: (block) => context.chosenBlock(part, block),
      })
    : noPage

const noQuestions: QuestionsMerge = { write: null, steps: [], questions: [] }
const questionsOf = (
  { part, entry, item, whole }: Standing,
  context: PlanContext,
): QuestionsMerge => {
  const base = entry?.questions ?? []
  if (!item || (part.questions.length === 0 && base.length === 0)) return noQuestions
  return mergeQuestions({
    // Where only single blocks are brought, its questions stay as they are.
    wanted: part.questions,
    base,
    present: whole ? item.questions : undefined,
    hasWork: item.studentWork,
    restoreFixed: context.restoreFixed,
    clientIdOf: (key) => questionClientId(part, key),
    written: (body) => writtenQuestion(body, context),
    decide: (field) => context.decide(part.instance, field),
  })
}

/** The change that writes what fields and page come to; null when nothing of them is written. */
const changeOf = (
  { id, item, of }: Standing,
  write: ReturnType<typeof mergeFields>['write'],
  { html }: PageMerge,
  questions: QuestionsMerge,
): Change | null => {
  if (Object.keys(write).length === 0 && html === null && questions.write === null) return null
  const fields = gathered(of, write)
  return item
    ? {
        change: 'set-item',
        id,
        fields: {
          ...fields,
          ...(html === null ? {} : { html }),
          ...(questions.write ? { questions: questions.write } : {}),
        },
      }
    : { change: 'set-module', id, fields }
}

/** What the base says of it afterwards. */
const entryAfter = (
  { part, id, entry, whole }: Standing,
  { fields, freshFields }: ReturnType<typeof mergeFields>,
  page: PageMerge,
  questions: QuestionsMerge,
  place: FieldStep | null,
  context: PlanContext,
): NextEntry => {
  // Where a place was not taken over, the base keeps the place it was deployed to.
  const placeHeld = place !== null && place.does !== 'change' && place.decided === null
  const isNamedByUs = fields['name'] && sameValue(fields['name'].sent, part.name)
  return {
    ...recordOf(part, context.expected),
    parent: entry && (!whole || placeHeld) ? entry.parent : part.parent,
    format: isNamedByUs ? formatOfName(part) : (entry?.format ?? null),
    platformId: id,
    fields,
    freshFields,
    blocks: page.blocks,
    ...(questions.questions.length > 0 ? { questions: questions.questions } : {}),
    page: page.html === null && page.ours ? (entry?.page ?? null) : null,
    freshPage: page.html !== null && page.ours,
  }
}

/** Merges a part that stands in the course: its fields, its page, its place. @returns whether there is anything to tell of it */
export const mergePart = (
  part: ExpectedPart,
  id: string,
  moves: Moves,
  context: PlanContext,
): boolean => {
  const found = context.found.get(id)
  const item = found?.item ?? null
  const of = item ?? found?.module
  if (!of) return false
  const entry = context.entryOf.get(part.instance)
  const standing = { part, id, entry, item, of, whole: context.chosenPart(part) }
  const fields = fieldsOf(standing, context)
  const page = pageOf(standing, context)
  const questions = questionsOf(standing, context)
  const change = changeOf(standing, fields.write, page, questions)
  if (change) context.changes.push(change)
  const place = entry && standing.whole ? mergePlace(part, id, entry, moves, context) : null
  context.next.push(entryAfter(standing, fields, page, questions, place, context))
  // What a course that is taken over says as the template does needs no telling.
  const told = [
    ...fields.told,
    ...page.steps,
    ...questions.steps,
    ...(place ? [place] : []),
  ].filter(({ does, reason }) => entry || does !== 'agree' || reason !== 'is there already')
  if (told.length === 0 && entry) return false
  const reason = entry ? (told[0]?.reason ?? '') : 'is there already; it is taken as this part'
  context.tell(doesOf(told, !entry), part, reason, told, of.name)
  return true
}
