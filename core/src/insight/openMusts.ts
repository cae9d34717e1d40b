import type { Finding } from '../check/index.ts'

/** A place of an open must that no waiver excuses. */
export interface OpenPlace {
  readonly fingerprint: string

  /** The week in which it stands, or null. */
  readonly week: number | null

  /** Whether Wickerframe knows the change. */
  readonly byMachine: boolean
}

/**
 * A must of a course that is open, as far as pictures of the whole college need it: without its evidence and its changes it is
 * a tenth as large, so that those of thousands of courses can be held at once.
 */
export interface OpenMust extends Pick<
  Finding,
  'rule' | 'title' | 'message' | 'mender' | 'owner' | 'effortMinutes'
> {
  readonly part: string | null

  /** The sentence of its first place. */
  readonly example: string

  /** Those that are open, at least one. */
  readonly places: readonly OpenPlace[]
}

/** Whether a finding is a must that no waiver excuses everywhere. */
export const isOpenMust = ({ strength, places }: Finding): boolean =>
  strength === 'must' && places.some(({ waived }) => !waived)

/** The part of the template that a finding is told of, or null. */
export const partOf = ({ places: [first] }: Finding): string | null => first?.place.part ?? null

/** The open musts among the findings of a course, in their order. */
export const openMustsOf = (findings: readonly Finding[]): OpenMust[] =>
  findings.filter(isOpenMust).map((finding) => {
    const { rule, title, message, mender, owner, effortMinutes, places } = finding
    return {
      rule,
      title,
      message,
      mender,
      owner,
      effortMinutes,
      part: partOf(finding),
      example: places[0]?.message ?? '',
      places: places.flatMap(({ fingerprint, place: { week }, mend, waived }) =>
        waived ? [] : [{ fingerprint, week, byMachine: mend !== null }],
      ),
    }
  })
