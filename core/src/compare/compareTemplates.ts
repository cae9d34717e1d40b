import { z } from 'zod'
import { canonicalJson } from '../document/index.ts'
import { analysePage, WordRun, wordDifference } from '../page/index.ts'
import {
  anchorWords,
  blockName,
  homePageKey,
  isModule,
  partsWithin,
  wordFields,
  wordsOfBlock,
  type Block,
  type Exception,
  type Part,
  type Template,
} from '../template/index.ts'
import { fieldWords, valueWords } from './words.ts'

/** One thing that differs between two versions of a template, told in words. */
export const TemplateChange = z.strictObject({
  code: z.enum([
    'part-added',
    'part-removed',
    'part-moved',
    'field-set',
    'block-added',
    'block-removed',
    'block-moved',
    'text-changed',
    'list-added',
    'list-removed',
    'list-changed',
  ]),

  /** Key of the part it is about; null for the template itself. */
  part: z.string().nullable(),

  /** What people call that part: its naming format, or the template. */
  of: z.string(),

  /** The sentence without its subject, e.g. `checklist moved last`. */
  words: z.string(),

  /** The text itself, word by word, where text changed. */
  text: z.array(WordRun).nullable(),
})
export type TemplateChange = z.output<typeof TemplateChange>

const same = (a: unknown, b: unknown): boolean =>
  canonicalJson(a ?? null) === canonicalJson(b ?? null)
const plain = (html: string): string =>
  analysePage(html)
    .paragraphs.map((paragraph) => paragraph.text)
    .join('\n')

/** Longest increasing run of positions: what it leaves out is the fewest ones that were moved. */
const standing = (positions: readonly number[]): ReadonlySet<number> => {
  const best: { last: number; chain: number[] }[] = []
  positions.forEach((position, index) => {
    const before = best
      .filter((one) => one.last < position)
      .reduce<number[]>(
        (longest, one) => (one.chain.length > longest.length ? one.chain : longest),
        [],
      )
    best.push({ last: position, chain: [...before, index] })
  })
  return new Set(
    best.reduce<number[]>(
      (longest, one) => (one.chain.length > longest.length ? one.chain : longest),
      [],
    ),
  )
}

/** Keys that stand in another place among the siblings that both sides have: the fewest that explain the new order. */
const movedKeys = (
  before: readonly { key: string }[],
  after: readonly { key: string }[],
): string[] => {
  const both = after.filter((one) => before.some((other) => other.key === one.key))
  const kept = standing(both.map((one) => before.findIndex((other) => other.key === one.key)))
  return both.filter((_, index) => !kept.has(index)).map((one) => one.key)
}

const placeWords = (
  list: readonly { key: string }[],
  key: string,
  nameOf: (key: string) => string,
): string => {
  const index = list.findIndex((one) => one.key === key)
  if (index === 0) return 'first'
  if (index === list.length - 1) return 'last'
  return `after ${nameOf(list[index - 1]?.key ?? '')}`
}

const partFields = [
  'kind',
  'strength',
  'audience',
  'name',
  'repeat',
  'position',
  'span',
  'when',
  'groupings',
  'acceptsInstead',
  'inGroup',
  'url',
  'basis',
  'assesses',
  'objectives',
] as const

const fieldChanges = (
  before: object,
  after: object,
  fields: readonly string[],
  told: (words: string) => void,
): void => {
  const a = new Map(Object.entries(before))
  const b = new Map(Object.entries(after))
  for (const field of fields)
    if (!same(a.get(field), b.get(field))) told(fieldWords(field, a.get(field), b.get(field)))
}

interface Placed {
  part: Part
  parent: string | null
}
const placed = (parts: readonly Part[], parent: string | null = null): Placed[] =>
  parts.flatMap((part) => [
    { part, parent },
    ...(isModule(part)
      ? [
          ...placed(part.items, part.key),
          ...part.exceptions.flatMap((exception) => placed(exception.add, exception.key)),
        ]
      : []),
  ])

/** Text of a block for showing what changed in it, or null where it has none of its own. */
const textOf = (block: Block): string | null =>
  wordsOfBlock(block)
    ?.map((words) => ('html' in words ? plain(words.html) : words.text))
    .join('\n') ?? null

/** Compares two versions of a template: what a reader would say changed, part by part, with the text itself. */
export const compareTemplates = (before: Template, after: Template): TemplateChange[] => {
  const changes: TemplateChange[] = []
  const tell = (
    code: TemplateChange['code'],
    part: string | null,
    of: string,
    words: string,
    text: WordRun[] | null = null,
  ) => changes.push({ code, part, of, words, text })
  const nameIn = (template: Template) => {
    const names = new Map([
      [homePageKey, 'the home page'],
      ...partsWithin(template.parts).flatMap((part): [string, string][] => [
        [part.key, part.name],
        ...(isModule(part)
          ? part.exceptions.map((exception): [string, string] => [
              exception.key,
              `${anchorWords(exception.anchor)} of ${part.name}`,
            ])
          : []),
      ]),
    ])
    return (key: string): string => names.get(key) ?? key
  }
  const oldName = nameIn(before)
  const newName = nameIn(after)

  const compareBlocks = (part: string, a: readonly Block[], b: readonly Block[]) => {
    const of = newName(part)
    for (const block of a)
      if (!b.some((one) => one.key === block.key))
        tell(
          'block-removed',
          part,
          of,
          `${blockName(block)} taken out`,
          textOf(block) === null ? null : [{ text: textOf(block) ?? '', change: 'gone' }],
        )
    for (const block of b) {
      const old = a.find((one) => one.key === block.key)
      if (!old) {
        tell(
          'block-added',
          part,
          of,
          `${blockName(block)} added, ${placeWords(b, block.key, (key) => blockName(b.find((one) => one.key === key) ?? block))}`,
          textOf(block) === null ? null : [{ text: textOf(block) ?? '', change: 'new' }],
        )
        continue
      }
      const [was, now] = [textOf(old), textOf(block)]
      if (was !== null && now !== null && was !== now)
        tell('text-changed', part, of, `${blockName(block)} reworded`, wordDifference(was, now))
      else if (
        was !== null &&
        now !== null &&
        !same(old, block) &&
        Object.keys({ ...old, ...block }).every(
          (field) =>
            wordFields.has(field) || same(old[field as keyof Block], block[field as keyof Block]),
        )
      )
        tell('text-changed', part, of, `${blockName(block)}: the same words, set otherwise`)
      const fields = [...new Set([...Object.keys(old), ...Object.keys(block)])].filter(
        (field) => field !== 'key' && (was === null || now === null || !wordFields.has(field)),
      )
      fieldChanges(old, block, fields, (words) =>
        tell('field-set', part, of, `${blockName(block)}: ${words}`),
      )
    }
    for (const key of movedKeys(a, b))
      tell(
        'block-moved',
        part,
        of,
        `${blockName(b.find((one) => one.key === key) ?? ({ kind: 'fixed-text', key } as Block))} moved ${placeWords(b, key, (other) => blockName(b.find((one) => one.key === other) ?? ({ kind: 'fixed-text', key: other } as Block)))}`,
      )
  }
  const compareExceptions = (part: Part, a: readonly Exception[], b: readonly Exception[]) => {
    for (const one of a)
      if (!b.some((other) => other.key === one.key))
        tell(
          'field-set',
          part.key,
          part.name,
          `${valueWords('anchor', one.anchor)} is like the others again`,
        )
    for (const one of b) {
      const old = a.find((other) => other.key === one.key)
      if (!old)
        tell(
          'field-set',
          part.key,
          part.name,
          `${valueWords('anchor', one.anchor)} is different now`,
        )
      else
        fieldChanges(old, one, ['anchor', 'omit', 'name', 'strength', 'leaveOut', 'set'], (words) =>
          tell('field-set', part.key, part.name, `${valueWords('anchor', one.anchor)}: ${words}`),
        )
    }
  }

  const title = after.title
  fieldChanges(
    before,
    after,
    ['title', 'summary', 'appliesTo', 'units', 'opening', 'availability', 'halfBuilt', 'extends'],
    (words) => tell('field-set', null, title, words),
  )
  fieldChanges(before.naming, after.naming, ['courseName', 'courseLabel'], (words) =>
    tell('field-set', null, title, words),
  )
  fieldChanges(
    before.settings,
    after.settings,
    Object.keys({ ...before.settings, ...after.settings }),
    (words) => tell('field-set', null, title, words),
  )
  fieldChanges(before.grading, after.grading, ['weighted', 'shown'], (words) =>
    tell('field-set', null, title, words),
  )

  fieldChanges(before.home, after.home, ['name', 'strength', 'basis'], (words) =>
    tell('field-set', homePageKey, 'the home page', words),
  )
  compareBlocks(homePageKey, before.home.blocks, after.home.blocks)

  const old = placed(before.parts)
  const now = placed(after.parts)
  const oldByKey = new Map(old.map((one) => [one.part.key, one]))
  const newKeys = new Set(now.map((one) => one.part.key))
  const siblings = (list: readonly Placed[], parent: string | null) =>
    list.filter((one) => one.parent === parent).map((one) => one.part)
  for (const { part, parent } of old)
    if (!newKeys.has(part.key) && (parent === null || newKeys.has(parent) || !oldByKey.has(parent)))
      tell(
        'part-removed',
        part.key,
        part.name,
        `taken out of ${parent === null ? 'the template' : oldName(parent)}`,
      )
  const movedWithin = new Map<string | null, ReadonlySet<string>>()
  const movesOf = (parent: string | null) => {
    let moved = movedWithin.get(parent)
    if (!moved)
      movedWithin.set(
        parent,
        (moved = new Set(movedKeys(siblings(old, parent), siblings(now, parent)))),
      )
    return moved
  }
  for (const { part, parent } of now) {
    const was = oldByKey.get(part.key)
    if (!was) {
      if (parent === null || oldByKey.has(parent) || !newKeys.has(parent))
        tell(
          'part-added',
          part.key,
          part.name,
          `added, ${placeWords(siblings(now, parent), part.key, newName)}${parent === null ? '' : ` in ${newName(parent)}`}`,
        )
      continue
    }
    if (was.parent !== parent)
      tell(
        'part-moved',
        part.key,
        part.name,
        `moved from ${was.parent === null ? 'the top' : oldName(was.parent)} to ${parent === null ? 'the top' : newName(parent)}`,
      )
    else if (movesOf(parent).has(part.key))
      tell(
        'part-moved',
        part.key,
        part.name,
        `moved ${placeWords(siblings(now, parent), part.key, newName)}`,
      )
    fieldChanges(was.part, part, partFields, (words) =>
      tell('field-set', part.key, part.name, words),
    )
    fieldChanges(
      was.part.settings,
      part.settings,
      Object.keys({ ...was.part.settings, ...part.settings }),
      (words) => tell('field-set', part.key, part.name, words),
    )
    for (const what of ['rename', 'edit', 'remove', 'duplicate', 'move'] as const)
      if (Boolean(was.part.may[what]) !== Boolean(part.may[what]))
        tell(
          'field-set',
          part.key,
          part.name,
          `instructors ${part.may[what] ? 'may now' : 'may no longer'} ${what} it`,
        )
    if (isModule(part) && isModule(was.part))
      compareExceptions(part, was.part.exceptions, part.exceptions)
    else if (!isModule(part) && !isModule(was.part))
      compareBlocks(part.key, was.part.blocks, part.blocks)
  }

  const lists = [
    ['navigation', before.navigation, after.navigation, 'navigation entry'],
    ['categories', before.grading.categories, after.grading.categories, 'grade category'],
    ['rubrics', before.rubrics, after.rubrics, 'rubric'],
    ['outcomes', before.outcomes, after.outcomes, 'course outcome'],
    ['houseTexts', before.houseTexts, after.houseTexts, 'house text'],
    ['assets', before.assets, after.assets, 'image'],
    ['keptBlocks', before.keptBlocks, after.keptBlocks, 'kept block'],
  ] as const
  for (const [, a, b, what] of lists) {
    const named = (one: {
      key: string
      title?: string
      name?: string
      label?: string
      text?: string
    }) => one.title ?? one.name ?? one.label ?? one.text ?? one.key
    const [was, is]: [readonly { key: string }[], readonly { key: string }[]] = [a, b]
    for (const one of was)
      if (!is.some((other) => other.key === one.key))
        tell('list-removed', null, title, `${what} “${named(one)}” taken out`)
    for (const one of is) {
      const other = was.find((candidate) => candidate.key === one.key)
      if (!other) tell('list-added', null, title, `${what} “${named(one)}” added`)
      else if (!same(one, other))
        tell('list-changed', null, title, `${what} “${named(one)}” changed`)
    }
    for (const key of movedKeys(was, is))
      tell(
        'list-changed',
        null,
        title,
        `${what} “${named(is.find((one) => one.key === key) ?? { key })}” moved ${placeWords(is, key, (other) => `“${named(is.find((one) => one.key === other) ?? { key: other })}”`)}`,
      )
  }
  const rules = new Set([...before.policies, ...after.policies].map((one) => one.rule))
  for (const rule of rules) {
    const [was, is] = [before.policies, after.policies].map((list) =>
      list.find((one) => one.rule === rule),
    )
    if (!same(was, is))
      tell(
        'list-changed',
        null,
        title,
        `rule ${rule} ${is === undefined ? 'as it comes' : is.off ? 'off' : `set${is.strength ? ` to ${is.strength}` : ''}`}`,
      )
  }
  return changes
}
