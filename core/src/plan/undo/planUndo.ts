import type { CourseQuestion } from '../../course/index.ts'
import { sameQuestion } from '../../questions/index.ts'
import type { BaseEntry, QuestionBase } from '../base.ts'
import { bodiesOfBase, missingBodies } from '../bodies.ts'
import type { NextBase, NextQuestion } from '../nextBase.ts'
import { unusableWithout, type Plan } from '../plan.ts'
import { unchangedEntry } from '../planContext.ts'
import { shortenedPages } from '../shortened.ts'
import { bringBack } from './bringBack.ts'
import { courseBack } from './courseBack.ts'
import { freshened } from './freshened.ts'
import { ledBack, withLinksBack } from './linksBack.ts'
import { ordersBack } from './ordersBack.ts'
import { setBack } from './setBack.ts'
import { inStandingOrder } from './standingOrder.ts'
import { takeAway } from './takeAway.ts'
import { undoneBase } from './undoneBase.ts'
import { startUndoing, type UndoInput, type Undoing } from './undoing.ts'
import { bodiesOfRecord } from './undoRecord.ts'

/**
 * What a base says of a question that comes back, or whose links lead elsewhere now: its new id, and what the platform makes of it
 * unless somebody had worded it.
 */
const questionNow = (known: QuestionBase, undoing: Undoing): NextQuestion => {
  const clientId = undoing.questions.get(known.id) ?? null
  const among = (questions: readonly CourseQuestion[]): CourseQuestion | undefined =>
    questions.find(({ id }) => id === known.id)
  const { touched } = undoing.record
  const first = among(touched.flatMap(({ before }) => before?.questions ?? []))
  const made = among(touched.flatMap(({ after }) => after?.questions ?? []))
  const present = among([...undoing.items.values()].flatMap(({ questions }) => questions ?? []))
  const isBack = present && made ? sameQuestion(present.body, made.body) : present === undefined
  const body = (isBack ? first : present)?.body ?? known.echo
  const isWritten = clientId !== null || ledBack(undoing)(body.text) !== body.text
  return { ...known, clientId, fresh: isWritten && sameQuestion(body, known.echo) }
}

const nextBase = (undoing: Undoing): NextBase => {
  const { base, bodies, states, pages, record, remade, removed } = undoing
  const madeHere = new Set(
    record.touched.flatMap(({ id, before, after }) => (!before && after ? [id] : [])),
  )
  const staysMade = ({ platformId }: BaseEntry): boolean =>
    states.has(platformId) && !removed.has(platformId) && madeHere.has(platformId)
  const undone = undoneBase(record.base, base, staysMade, undoing.blocksBack)
  return {
    course: undone.course,
    freshCourseFields: [],
    parts: inStandingOrder(undone.parts, undoing).map((entry) => {
      const html = pages.get(entry.platformId)
      return {
        ...unchangedEntry(entry),
        ...(html === undefined ? {} : freshened(entry, html, bodies)),
        questions: entry.questions?.map((known) => questionNow(known, undoing)),
        platformId: remade.has(entry.platformId) ? null : entry.platformId,
      }
    }),
  }
}

/**
 * Takes a deployment back, as a merge: its echo is the base, the state before it is wanted, and what was edited since is
 * kept and told. Later deployments count as edits. What it made stays once somebody has put something in it or has work in
 * it; what it removed comes back under a new id, and links to it lead there.
 */
export const planUndo = (input: UndoInput): Plan => {
  const { record, course, base, bodies } = input
  const lacking = unusableWithout(
    missingBodies([...new Set([...bodiesOfRecord(record), ...bodiesOfBase(base)])], bodies),
  )
  if (lacking) return lacking
  const undoing = startUndoing(input)
  bringBack(undoing)
  setBack(undoing)
  takeAway(undoing)
  ordersBack(undoing)
  courseBack(undoing)
  const changes = withLinksBack(undoing)
  return {
    // Even where everything was edited since, the bases and the version go back.
    state: 'ready',
    steps: undoing.steps,
    unchanged: 0,
    changes,
    undecided: 0,
    additive: false,
    consequences: shortenedPages(changes, course, base, bodies),
    creates: [...undoing.remade.values()],
    next: nextBase(undoing),
  }
}
