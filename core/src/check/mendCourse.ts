import {
  applyChanges,
  changeKind,
  documentHand,
  everyCourseItem,
  type Change,
  type Course,
} from '../course/index.ts'
import { success, type Result } from '../document/index.ts'
import { checkCourse, type Check } from './checkCourse.ts'
import { mayShow, refusalWords } from './harmlessMend.ts'
import type { CheckResult, Finding, FindingPlace } from './outcome.ts'

export interface MendedPlace {
  rule: string
  fingerprint: string
  path: string[]
  message: string
  changes: Change[]
}
export interface LeftPlace extends Omit<MendedPlace, 'changes'> {
  reason: string
}
export interface MendedCourse {
  /** The course as it is after all of them. */
  course: Course
  /** All changes in order, to be sent as one set; they speak of what they make as `ref:CLIENT_ID`. */
  changes: Change[]
  /** What is found no more by them. */
  mended: MendedPlace[]
  /** What was chosen and is found still. */
  left: LeftPlace[]
  before: CheckResult
  after: CheckResult
}

const toldOf = ({ rule }: Finding, { fingerprint, place, message }: FindingPlace) => ({
  rule,
  fingerprint,
  path: place.path,
  message,
})

/** Every round mends what does not touch the same; more rounds than this mean that two mends undo each other. */
const mostRounds = 200

/** Chooses places as they were seen: what is evident there is the same still. @param seen digests of the evidence, by fingerprint */
export const asSeen =
  (seen: ReadonlyMap<string, string>) =>
  (_: Finding, { fingerprint, digest }: FindingPlace): boolean =>
    seen.get(fingerprint) === digest

/**
 * Applies the chosen mends of a course, each worked out on what those before it left, so that several of one page or one
 * module all hold. Pure: nothing is sent.
 * @param isChosen which places are to be mended; those without a mend, or whose mend is refused, are left with the reason
 */
export const mendCourse = (
  once: Check,
  isChosen: (finding: Finding, place: FindingPlace) => boolean,
): Result<MendedCourse> => {
  const check: Check = { ...once, worked: once.worked ?? new Map() }
  const first = checkCourse(check)
  if (!first.ok) return first
  const hand = documentHand(check.course)
  const mended = new Map<string, MendedPlace>()
  /** Mends that came out not to fit, and why; what has none is known once all are made, for one may give another its mend. */
  const unfit = new Map<string, string>()
  const changes: Change[] = []
  /** What was made: its id in memory, by which later changes speak of it, and the client's. */
  const made = new Map<string, string>()
  const asSent = (change: Change): Change => {
    if (made.size === 0) return change
    let text = JSON.stringify(change)
    for (const [id, client] of made) {
      const reference = JSON.stringify(`ref:${client}`).slice(1, -1)
      text = text
        .replaceAll(`"${id}"`, `"${reference}"`)
        .replaceAll(`item:${id}\\"`, `${reference}\\"`)
        .replaceAll(`href=\\"${hand.urlOf(id)}\\"`, `href=\\"${reference}\\"`)
    }
    return JSON.parse(text) as Change
  }
  let { course } = check
  let result = first.value
  for (let round = 0; round < mostRounds; round++) {
    const taken = new Set<string>()
    let progress = false
    const modules = new Map(
      everyCourseItem(course).map(({ item, module }) => [item.id, module?.id ?? null]),
    )
    const moduleOf = (id: string): string | null => modules.get(id) ?? null
    for (const finding of result.findings)
      for (const place of finding.places) {
        if (
          !place.mend ||
          mended.has(place.fingerprint) ||
          unfit.has(place.fingerprint) ||
          place.waived ||
          !isChosen(finding, place)
        )
          continue
        const shows = place.mend.some((change) => mayShow(change, moduleOf))
        // What opens something is worked out on all that was opened or moved before it, one after the other.
        const slots = [
          ...place.mend.flatMap((change) => changeKind(change).writes(change)),
          ...(shows ? ['view'] : []),
        ]
        if (slots.some((slot) => taken.has(slot))) continue
        const applied = applyChanges(course, place.mend, hand)
        if (!applied.ok) {
          unfit.set(place.fingerprint, applied.problems.message)
          continue
        }
        for (const slot of slots) taken.add(slot)
        changes.push(...place.mend.map(asSent))
        for (const [client, id] of Object.entries(applied.value.ids)) made.set(id, client)
        course = applied.value.course
        mended.set(place.fingerprint, { ...toldOf(finding, place), changes: place.mend })
        progress = true
      }
    if (!progress) break
    const again = checkCourse({ ...check, course })
    if (!again.ok) return again
    result = again.value
  }
  const left = result.findings.flatMap((finding) =>
    finding.places.flatMap((place): LeftPlace[] =>
      place.waived || !(mended.has(place.fingerprint) || isChosen(finding, place))
        ? []
        : [
            {
              ...toldOf(finding, place),
              reason: mended.delete(place.fingerprint)
                ? 'its mend is among the changes, and it is found all the same'
                : (unfit.get(place.fingerprint) ??
                  (place.refusal
                    ? refusalWords(place.refusal)
                    : 'the right answer is somebody’s to give')),
            },
          ],
    ),
  )
  return success({
    course,
    changes,
    mended: [...mended.values()],
    left,
    before: first.value,
    after: result,
  })
}
