import type { CheckResult, Finding, FindingPlace } from '@wickerframe/core'

/** A checked course as a report names it. */
export interface ReportedCourse {
  result: CheckResult
  /** Where the course is: an address, or the path of its file. */
  at: string
  classSections: readonly string[]
  department: string
  /** Name or e-mail of whoever must act in it; empty: nobody. */
  owner: string
}

/** A finding that an earlier report told and this one does not. */
export interface GonePlace {
  rule: string
  strength: Finding['strength']
  message: string
  fingerprint: string
  path: readonly string[]
}

/** What differs from an earlier report, by the id of the course. */
export interface Since {
  /** When the earlier one speaks of: its as-of date. */
  asOf: string
  fresh: ReadonlyMap<string, ReadonlySet<string>>
  gone: ReadonlyMap<string, readonly GonePlace[]>
}

/** Checks of courses, to be told to others in one of many formats. */
export interface Report {
  title: string
  /** ISO 8601. */
  made: string
  /** Version of this program. */
  version: string
  courses: readonly ReportedCourse[]
  /** Courses that could not be checked, and why. */
  failed: readonly { at: string; message: string }[]
  since: Since | null
}

/** One place of one finding of one course: what tables have a row for. */
export interface ReportedPlace {
  course: ReportedCourse
  finding: Finding
  place: FindingPlace
  state: 'open' | 'waived'
  /** Whether the earlier report did not tell it; null where there is none. */
  isNew: boolean | null
}

/** Every place of every finding, course by course, in the order in which the check tells them. */
export const placesOf = ({ courses, since }: Report): ReportedPlace[] =>
  courses.flatMap((course) =>
    course.result.findings.flatMap((finding) =>
      finding.places.map((place) => ({
        course,
        finding,
        place,
        state: place.waived ? ('waived' as const) : ('open' as const),
        isNew: since
          ? (since.fresh.get(course.result.course.id)?.has(place.fingerprint) ?? false)
          : null,
      })),
    ),
  )

/** How the courses of a report stand, added up. */
export const totalsOf = ({ courses, failed }: Report) => {
  const sum = (of: (course: ReportedCourse) => number) =>
    courses.reduce((total, course) => total + of(course), 0)
  return {
    courses: courses.length,
    ready: sum(({ result }) => Number(result.readiness === 'ready')),
    readyAsFarAsSeen: sum(({ result }) => Number(result.readiness === 'ready-as-far-as-seen')),
    openMusts: sum(({ result }) => result.counts.openMusts),
    openShoulds: sum(({ result }) => result.counts.openShoulds),
    waived: sum(({ result }) => result.counts.waived),
    cannotTell: sum(({ result }) => result.counts.cannotTell),
    failed: failed.length,
  }
}

/** Readiness in words. */
export const readinessWords: Readonly<Record<CheckResult['readiness'], string>> = {
  ready: 'ready',
  'not-ready': 'not ready',
  'ready-as-far-as-seen': 'ready as far as seen',
}
