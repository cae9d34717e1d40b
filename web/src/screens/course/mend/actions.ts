import type { Finding, FindingPlace } from '@wickerframe/core'
import type { CourseCare, MeInCourse } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { openPlaces, unraised } from './followed.ts'

/** What the lines of a course share: who looks, what is known of the course, and what pressing leads to. */
export interface FindingActions {
  courseId: number
  me: MeInCourse
  people: readonly { name: string; email: string }[]
  asOf: string
  care: CourseCare
  /** Ids of items that have a page. */
  pages: ReadonlySet<string>
  /** Leads to where a page is filled in, by the id of its item. */
  onFillIn: (itemId: string | null) => void
  onMend: (places: FindingPlace[]) => void
  onWaive: (places: FindingPlace[]) => void
  onReply: (reply: Reply) => void
  onShowPage: (itemId: string) => void
}

/** Somebody’s answer to what was raised, for these places of findings. */
export interface Reply {
  does: 'promise' | 'answer'
  fingerprints: string[]
  message: string
}

/** The places whose mend is known and somebody may make: what is an administrator’s to mend, an instructor cannot. */
export const mendsOf = (finding: Finding, me: MeInCourse): FindingPlace[] =>
  may(me, 'look after course') &&
  (finding.mender !== 'administrator' || may(me, 'mend for administrators'))
    ? openPlaces(finding).filter(({ mend }) => mend !== null)
    : []

/** The places somebody may raise, and are not raised yet. */
export const raisable = (finding: Finding, { me, care }: FindingActions): string[] =>
  may(me, 'raise findings') && finding.strength !== 'may' ? unraised(finding, care.followUps) : []
