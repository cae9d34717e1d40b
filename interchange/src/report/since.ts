import type { CheckResult } from '@wickerframe/core'
import type { GonePlace, Since } from './report.ts'

/** What each course’s check tells that an earlier one did not, and what only that one told. Courses are the same by their id, places by their fingerprint. */
export const sinceEarlier = (
  now: readonly CheckResult[],
  earlier: readonly CheckResult[],
): Since => {
  const before = new Map(earlier.map((result) => [result.course.id, result]))
  const fresh = new Map<string, ReadonlySet<string>>()
  const gone = new Map<string, readonly GonePlace[]>()
  for (const result of now) {
    const { id } = result.course
    const was = toldIn(before.get(id))
    const is = toldIn(result)
    fresh.set(id, new Set([...is.keys()].filter((fingerprint) => !was.has(fingerprint))))
    gone.set(
      id,
      [...was].flatMap(([fingerprint, place]) => (is.has(fingerprint) ? [] : [place])),
    )
  }
  return { asOf: earlier.map(({ asOf }) => asOf).sort()[0] ?? '', fresh, gone }
}

const toldIn = (result: CheckResult | undefined): Map<string, GonePlace> =>
  new Map(
    (result?.findings ?? []).flatMap(({ rule, strength, places }) =>
      places.map(({ fingerprint, message, place }) => [
        fingerprint,
        { rule, strength, message, fingerprint, path: place.path },
      ]),
    ),
  )
