import type { Finding } from '../check/index.ts'
import { grouped } from '../grouped/index.ts'

/** What Wickerframe could mend by itself under one rule in a course. */
export interface OpenMends {
  readonly rule: string
  readonly title: string

  /** Where no waiver excuses it, each with what chooses its mend. */
  readonly places: readonly {
    readonly fingerprint: string
    readonly digest: string
    readonly message: string
  }[]
}

/** The mends that are open among the findings of a course, under their rules. */
export const openMendsOf = (findings: readonly Finding[]): OpenMends[] =>
  [...grouped(findings, ({ rule }) => rule)].flatMap(([rule, of]) => {
    const places = of.flatMap((finding) =>
      finding.places.flatMap(({ mend, waived, fingerprint, digest, message }) =>
        mend && !waived ? { fingerprint, digest, message } : [],
      ),
    )
    const [first] = of
    return first && places.length > 0 ? [{ rule, title: first.title, places }] : []
  })
