import { canonicalJson, jsonPointer, quoteValue, type Problem } from '../document/index.ts'
import {
  homePageKey,
  isModule,
  strengths,
  type Block,
  type Part,
  type Strength,
  type Template,
} from '../template/index.ts'

const rank = (strength: Strength): number => strengths.indexOf(strength)
const same = (a: unknown, b: unknown): boolean =>
  canonicalJson(a ?? null) === canonicalJson(b ?? null)
const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Keys in the order in which they stand among the given ones. */
const orderOf = (list: readonly { key: string }[], among: ReadonlySet<string>): string[] =>
  list.map((one) => one.key).filter((key) => among.has(key))

const weakened = (path: PropertyKey[], found: unknown, expected: string): Problem => ({
  code: 'weakened',
  path: jsonPointer(path),
  found: quoteValue(found),
  expected,
})

/** What stands above must stand here with the same value; where nothing stands above, the layer may say. */
const keptFields = (
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
const strengthKept = (upper: Strength, here: Strength, path: PropertyKey[]): Problem[] =>
  rank(here) <= rank(upper)
    ? []
    : [
        weakened(
          [...path, 'strength'],
          here,
          `at least ${upper}, as the layer above says; a layer may only raise it`,
        ),
      ]

const partFields = [
  'kind',
  'name',
  'basis',
  'audience',
  'position',
  'span',
  'when',
  'repeat',
  'settings',
  'groupings',
  'url',
  'inGroup',
  'acceptsInstead',
] as const

const blockWeakenings = (
  upper: readonly Block[],
  here: readonly Block[],
  path: PropertyKey[],
): Problem[] => {
  const keys = new Set(upper.map((block) => block.key))
  const problems = upper.flatMap((block): Problem[] => {
    const index = here.findIndex((one) => one.key === block.key)
    const own = here[index]
    if (!own) return [weakened(path, 'nothing', `the block ${block.key} of the layer above`)]
    const { key: _, strength, ...fields } = block
    return [
      ...strengthKept(strength, own.strength, [...path, index]),
      ...keptFields(fields, own, Object.keys(fields), [...path, index]),
    ]
  })
  if (problems.length === 0 && !same(orderOf(upper, keys), orderOf(here, keys)))
    problems.push(
      weakened(
        path,
        orderOf(here, keys),
        `the blocks of the layer above in its order: ${orderOf(upper, keys).join(', ')}`,
      ),
    )
  return problems
}

const partWeakenings = (
  upper: readonly Part[],
  here: readonly Part[],
  path: PropertyKey[],
): Problem[] => {
  const keys = new Set(upper.map((part) => part.key))
  const problems = upper.flatMap((part): Problem[] => {
    const index = here.findIndex((one) => one.key === part.key)
    const own = here[index]
    const at = [...path, index]
    if (!own)
      return [
        weakened(
          path,
          'nothing',
          `the part ${part.key} of the layer above; a layer takes nothing away and moves nothing elsewhere`,
        ),
      ]
    const told = [
      ...strengthKept(part.strength, own.strength, at),
      ...keptFields(part, own, partFields, at),
    ]
    for (const [what, allowed] of Object.entries(own.may))
      if (allowed && !part.may[what as keyof typeof part.may])
        told.push(
          weakened([...at, 'may', what], true, 'not allowed, as the layer above does not allow it'),
        )
    if (isModule(part) && isModule(own)) {
      for (const exception of part.exceptions) {
        const present = own.exceptions.find((one) => one.key === exception.key)
        if (!present || !same({ ...present, add: [] }, { ...exception, add: [] }))
          told.push(
            weakened(
              [...at, 'exceptions'],
              present ?? 'nothing',
              `the exception ${exception.key} as the layer above has it`,
            ),
          )
        else
          told.push(
            ...partWeakenings(exception.add, present.add, [
              ...at,
              'exceptions',
              own.exceptions.indexOf(present),
              'add',
            ]),
          )
      }
      // An exception of the layer's own may add; it may not take away what stands above.
      own.exceptions.forEach((exception, i) => {
        if (part.exceptions.some((one) => one.key === exception.key)) return
        const above = new Set(part.items.map((item) => item.key))
        const takes =
          exception.omit ||
          exception.leaveOut === 'all' ||
          exception.leaveOut.some((key) => above.has(key)) ||
          exception.set.some(
            (one) =>
              above.has(one.part) &&
              (one.name !== undefined || one.settings !== undefined || one.strength !== undefined),
          )
        if (takes)
          told.push(
            weakened(
              [...at, 'exceptions', i],
              exception.key,
              'an exception that only adds; what stands above is not left out or changed',
            ),
          )
      })
      told.push(
        ...keptList(part.objectives, own.objectives, [...at, 'objectives']),
        ...partWeakenings(part.items, own.items, [...at, 'items']),
      )
    } else if (!isModule(part) && !isModule(own)) {
      told.push(...blockWeakenings(part.blocks, own.blocks, [...at, 'blocks']))
      for (const key of part.assesses)
        if (!own.assesses.includes(key))
          told.push(weakened([...at, 'assesses'], own.assesses, `${key} among them, as above`))
    }
    return told
  })
  if (problems.length === 0 && !same(orderOf(upper, keys), orderOf(here, keys)))
    problems.push(
      weakened(
        path,
        orderOf(here, keys),
        `the parts of the layer above in its order: ${orderOf(upper, keys).join(', ')}`,
      ),
    )
  return problems
}

const keptList = (
  upper: readonly { key: string }[],
  here: readonly { key: string }[],
  path: PropertyKey[],
): Problem[] =>
  upper.flatMap((one) => {
    const present = here.find((candidate) => candidate.key === one.key)
    return same(one, present)
      ? []
      : [weakened(path, present, `${one.key} as the layer above has it`)]
  })

/**
 * Where a layer weakens what stands above it: takes parts or blocks away, alters fixed text, lowers a strength, allows
 * what is not allowed. It may add parts and blocks, answer fill-ins, say what is left unsaid, and raise a strength.
 * @param upper the released version the layer is built on
 */
export const weakenings = (upper: Template, layer: Template): Problem[] => {
  const home = [
    ...strengthKept(upper.home.strength, layer.home.strength, ['home']),
    ...keptFields(upper.home, layer.home, ['name', 'basis'], ['home']),
    ...blockWeakenings(upper.home.blocks, layer.home.blocks, ['home', 'blocks']),
  ]
  const policies = upper.policies.flatMap((policy): Problem[] => {
    const index = layer.policies.findIndex((one) => one.rule === policy.rule)
    const own = layer.policies[index]
    if (!own)
      return [
        weakened(['policies'], 'nothing', `the rule ${policy.rule} as the layer above sets it`),
      ]
    return [
      ...(own.off && !policy.off
        ? [weakened(['policies', index, 'off'], true, 'false; the layer above has the rule on')]
        : []),
      ...(policy.strength && own.strength
        ? strengthKept(policy.strength, own.strength, ['policies', index])
        : []),
      ...keptFields(policy, own, ['parameters'], ['policies', index]),
    ]
  })
  const narrower = (['modalities', 'departments', 'weeks'] as const).flatMap((field): Problem[] => {
    const above: readonly unknown[] = upper.appliesTo[field]
    const outside =
      above.length === 0
        ? []
        : (layer.appliesTo[field] as readonly unknown[]).filter((one) => !above.includes(one))
    return outside.length > 0 || (above.length > 0 && layer.appliesTo[field].length === 0)
      ? [
          weakened(
            ['appliesTo', field],
            layer.appliesTo[field],
            `only what the layer above applies to: ${above.join(', ')}`,
          ),
        ]
      : []
  })
  const grading =
    upper.grading.categories.length > 0
      ? [
          ...keptList(upper.grading.categories, layer.grading.categories, [
            'grading',
            'categories',
          ]),
          ...keptFields(upper.grading, layer.grading, ['weighted', 'shown'], ['grading']),
        ]
      : []
  return [
    ...narrower,
    ...keptFields(upper, layer, ['naming', 'opening', 'availability', 'units', 'settings'], []),
    ...home,
    ...keptList(upper.navigation, layer.navigation, ['navigation']),
    ...partWeakenings(upper.parts, layer.parts, ['parts']),
    ...grading,
    ...(['houseTexts', 'assets', 'rubrics', 'outcomes', 'keptBlocks'] as const).flatMap((list) =>
      keptList(upper[list], layer[list], [list]),
    ),
    ...policies,
  ]
}

/** Keys of the parts that come from above, the home page among them. */
export const isFromAbove = (upper: Template | null, key: string): boolean =>
  upper !== null && (key === homePageKey || upperKeys(upper).has(key))

const keysKept = new WeakMap<Template, ReadonlySet<string>>()
const upperKeys = (upper: Template): ReadonlySet<string> => {
  let keys = keysKept.get(upper)
  if (!keys) {
    const collect = (parts: readonly Part[]): string[] =>
      parts.flatMap((part) => [
        part.key,
        ...(isModule(part)
          ? [
              ...collect(part.items),
              ...part.exceptions.flatMap((one) => [one.key, ...collect(one.add)]),
            ]
          : []),
      ])
    keysKept.set(upper, (keys = new Set(collect(upper.parts))))
  }
  return keys
}
