import { quoteValue, type Problem } from '../document/index.ts'
import {
  homePageKey,
  isModule,
  leftAs,
  type Block,
  type Part,
  type Template,
} from '../template/index.ts'
import { exceptionWeakenings } from './exceptionWeakenings.ts'
import { fileWeakenings } from './file.ts'
import { keptFields, keptList, orderOf, same, strengthKept, weakened } from './kept.ts'
import { policyWeakenings } from './policyWeakenings.ts'
import { questionWeakenings } from './questions.ts'

const partFields = [
  'kind',
  'name',
  'basis',
  'audience',
  'position',
  'span',
  'settings',
  'url',
  'inGroup',
  'acceptsInstead',
] as const
/** Said or not, they decide where a part is wanted at all: what is silent above means everywhere, once, and in no other way. */
const decidesWhere = ['when', 'repeat', 'groupings'] as const

/** What is asked for above stays asked for, unless the layer says something in its place. */
const stillAsked = (upper: Block, own: Block, path: PropertyKey[]): Problem[] =>
  leftAs(upper) === 'asked' &&
  leftAs(own) !== 'asked' &&
  same({ ...upper, left: null, strength: null }, { ...own, left: null, strength: null })
    ? [
        weakened(
          [...path, 'left'],
          leftAs(own) ?? 'nothing',
          'asked, as the layer above has it, or other words in place of what asks',
        ),
      ]
    : []

const blockWeakenings = (
  upper: readonly Block[],
  here: readonly Block[],
  path: PropertyKey[],
): Problem[] => {
  const keys = new Set(upper.map((block) => block.key))
  const problems = upper.flatMap((block): Problem[] => {
    const index = here.findIndex(({ key }) => key === block.key)
    const own = here[index]
    if (!own) return [weakened(path, 'nothing', `the block ${block.key} of the layer above`)]
    const { key: _, strength, ...fields } = block
    const at = [...path, index]
    return [
      ...strengthKept(strength, own.strength, at),
      // What is left to the instructor, a layer may say in their place.
      ...('left' in block && block.left
        ? [
            ...keptFields(fields, own, ['kind', 'element', 'basis'], at),
            ...stillAsked(block, own, at),
          ]
        : keptFields(fields, own, Object.keys(fields), at)),
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

const said = (part: Part, field: (typeof decidesWhere)[number]): unknown =>
  field !== 'groupings' ? part[field] : isModule(part) ? part.groupings : undefined

/** A part for students that says nothing of being published is published; a layer does not hide it. */
const shownAsAbove = (upper: Part, own: Part, path: PropertyKey[]): Problem[] =>
  upper.audience === 'students' &&
  upper.settings.published === undefined &&
  own.settings.published === false
    ? [weakened([...path, 'settings', 'published'], false, 'true, as the layer above leaves it')]
    : []

const partWeakenings = (
  upper: readonly Part[],
  here: readonly Part[],
  path: PropertyKey[],
): Problem[] => {
  const keys = new Set(upper.map((part) => part.key))
  const problems = upper.flatMap((part): Problem[] => {
    const index = here.findIndex(({ key }) => key === part.key)
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
      ...decidesWhere.flatMap((field) => {
        const above = said(part, field)
        return same(above, said(own, field))
          ? []
          : [
              weakened(
                [...at, field],
                said(own, field),
                `${quoteValue(above)}, as the layer above has it`,
              ),
            ]
      }),
      ...shownAsAbove(part, own, at),
    ]
    for (const [what, allowed] of Object.entries(own.may))
      if (allowed && !part.may[what as keyof typeof part.may])
        told.push(
          weakened([...at, 'may', what], true, 'not allowed, as the layer above does not allow it'),
        )
    if (isModule(part) && isModule(own)) {
      told.push(...exceptionWeakenings(part, own, at, partWeakenings))
      told.push(
        ...keptList(part.objectives, own.objectives, [...at, 'objectives']),
        ...partWeakenings(part.items, own.items, [...at, 'items']),
      )
    } else if (!isModule(part) && !isModule(own)) {
      told.push(
        ...blockWeakenings(part.blocks, own.blocks, [...at, 'blocks']),
        ...questionWeakenings(part.questions, own.questions, [...at, 'questions']),
        ...fileWeakenings(part.file, own.file, [...at, 'file']),
      )
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

/**
 * Where a layer weakens what stands above it: takes parts or blocks away, alters fixed text, lowers a strength, allows
 * what is not allowed, makes a part wanted in fewer places. It may add parts and blocks, answer fill-ins, say what is left
 * unsaid, and raise a strength. What is silent above stands at its default, and is held.
 * @param upper the released version the layer is built on
 */
export const weakenings = (upper: Template, layer: Template): Problem[] => {
  const home = [
    ...strengthKept(upper.home.strength, layer.home.strength, ['home']),
    ...keptFields(upper.home, layer.home, ['name', 'basis'], ['home']),
    ...blockWeakenings(upper.home.blocks, layer.home.blocks, ['home', 'blocks']),
  ]
  const narrower = (['modalities', 'departments', 'weeks'] as const).flatMap((field): Problem[] => {
    const above: readonly unknown[] = upper.appliesTo[field]
    const outside =
      above.length === 0
        ? []
        : (layer.appliesTo[field] as readonly unknown[]).filter((value) => !above.includes(value))
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
    ...keptFields(
      upper,
      layer,
      ['naming', 'opening', 'availability', 'units', 'settings', 'frameHosts'],
      [],
    ),
    ...home,
    ...keptList(upper.navigation, layer.navigation, ['navigation']),
    ...partWeakenings(upper.parts, layer.parts, ['parts']),
    ...grading,
    ...(['houseTexts', 'assets', 'files', 'rubrics', 'outcomes', 'keptBlocks'] as const).flatMap(
      (list) => keptList(upper[list], layer[list], [list]),
    ),
    ...policyWeakenings(upper, layer),
    ...(layer.halfBuilt && !upper.halfBuilt
      ? [weakened(['halfBuilt'], true, 'false; the layer above is complete')]
      : []),
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
              ...part.exceptions.flatMap((exception) => [exception.key, ...collect(exception.add)]),
            ]
          : []),
      ])
    keysKept.set(upper, (keys = new Set(collect(upper.parts))))
  }
  return keys
}
