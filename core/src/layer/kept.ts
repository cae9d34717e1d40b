import { canonicalJson, jsonPointer, quoteValue, type Problem } from '../document/index.ts'
import { strengths, type Strength } from '../template/index.ts'

export const rank = (strength: Strength): number => strengths.indexOf(strength)
export const same = (a: unknown, b: unknown): boolean =>
  canonicalJson(a ?? null) === canonicalJson(b ?? null)
const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Keys in the order in which they stand among the given ones. */
export const orderOf = (list: readonly { key: string }[], among: ReadonlySet<string>): string[] =>
  list.map(({ key }) => key).filter((key) => among.has(key))

export const weakened = (path: PropertyKey[], found: unknown, expected: string): Problem => ({
  code: 'weakened',
  path: jsonPointer(path),
  found: quoteValue(found),
  expected,
})

/** What stands above must stand here with the same value; where nothing stands above, the layer may say. */
export const keptFields = (
  upper: object,
  here: object,
  fields: readonly string[],
  path: PropertyKey[],
): Problem[] => {
  const above = upper as Record<string, unknown>
  const own = here as Record<string, unknown>
  return fields.flatMap((field): Problem[] => {
    const value = above[field]
    if (value === undefined) return []
    // A bare record (settings, what instructors may do) is kept field by field.
    if (isRecord(value) && (field === 'settings' || field === 'appliesTo')) {
      const present = own[field]
      return keptFields(value, isRecord(present) ? present : {}, Object.keys(value), [
        ...path,
        field,
      ])
    }
    return same(value, own[field])
      ? []
      : [weakened([...path, field], own[field], `${quoteValue(value)}, as the layer above says`)]
  })
}
export const strengthKept = (upper: Strength, here: Strength, path: PropertyKey[]): Problem[] =>
  rank(here) <= rank(upper)
    ? []
    : [
        weakened(
          [...path, 'strength'],
          here,
          `at least ${upper}, as the layer above says; a layer may only raise it`,
        ),
      ]

/** What stands in a list above stands in the layer's as it is. */
export const keptList = (
  upper: readonly { key: string }[],
  here: readonly { key: string }[],
  path: PropertyKey[],
): Problem[] =>
  upper.flatMap((above) => {
    const present = here.find((candidate) => candidate.key === above.key)
    return same(above, present)
      ? []
      : [weakened(path, present, `${above.key} as the layer above has it`)]
  })
