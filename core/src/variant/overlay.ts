import {
  blockWithFilesUnder,
  filesLedToBy,
  filesOfItem,
  homePageKey,
  isKeptCurrent,
  isModule,
  partsWithin,
  withFilesUnder,
  type Part,
  type Template,
} from '../template/index.ts'

/** Which parts of a newer version were brought into a course: only these, or all but these. */
export interface PartsTaken {
  only: readonly string[] | null
  except: readonly string[]
}

/**
 * The expectation of a course into which only a part of a newer version was brought: the old version with the parts that
 * were brought in the newer one's form. Blocks brought singly count as the part they stand on.
 */
export const overlay = (old: Template, newer: Template, { only, except }: PartsTaken): Template => {
  const isTaken = (key: string, inside: boolean): boolean =>
    !except.includes(key) && (only === null || inside || only.includes(key))
  const oldParts = new Map<string, Part>()
  const collect = (parts: readonly Part[]) => {
    for (const part of parts) {
      oldParts.set(part.key, part)
      if (isModule(part)) collect(part.items)
    }
  }
  collect(old.parts)
  const used = new Set<string>()
  /** Parts in the newer order: brought ones in the newer form, others in the old form, new ones that were not brought left out. */
  const laid = (parts: readonly Part[], oldSiblings: readonly Part[], inside: boolean): Part[] => {
    const result = parts.flatMap((part): Part[] => {
      const before = oldParts.get(part.key)
      const partsTaken = isTaken(part.key, inside)
      if (!partsTaken && !before) return []
      used.add(part.key)
      const form = partsTaken || !before ? part : before
      if (!isModule(form)) return [form]
      const items = laid(
        isModule(part) ? part.items : [],
        before && isModule(before) ? before.items : [],
        inside || (only?.includes(part.key) ?? false),
      )
      return [{ ...form, items }]
    })
    const rest = oldSiblings.filter((part) => !used.has(part.key) && !isTaken(part.key, inside))
    for (const part of rest) used.add(part.key)
    return [...result, ...rest]
  }
  const parts = laid(newer.parts, old.parts, false)
  // What was not brought hands out what it handed out, also where the file of that key is another one now.
  const oldItems = new Set<Part>(partsWithin(old.parts))
  const isHomeOld = !isTaken(homePageKey, false)
  const earlierFiles = new Map(
    old.files.flatMap((was) => {
      const now = newer.files.find(({ key }) => key === was.key)
      return now?.content === was.content && isKeptCurrent(now) === isKeptCurrent(was)
        ? []
        : [[was.key, { ...was, key: `${was.key}-before` }] as const]
    }),
  )
  const before = (key: string): string => earlierFiles.get(key)?.key ?? key
  // Pages lead to the newest of what the library keeps current, by its own key, whatever was brought.
  const beforeInPages = (key: string): string => {
    const was = earlierFiles.get(key)
    return was && !isKeptCurrent(was) ? was.key : key
  }
  const isGone = (key: string): boolean => !newer.files.some((file) => file.key === key)
  const handingOut = (part: Part): Part =>
    isModule(part)
      ? { ...part, items: part.items.map(handingOut) }
      : oldItems.has(part) && [...filesOfItem(part)].some((key) => earlierFiles.has(key))
        ? withFilesUnder(part, before, beforeInPages)
        : part
  const laidOut = parts.map(handingOut)
  const home = isHomeOld
    ? {
        ...old.home,
        blocks: old.home.blocks.map((block) => blockWithFilesUnder(block, beforeInPages)),
      }
    : newer.home
  const handedOut = new Set([
    ...partsWithin(laidOut).flatMap((part) => (isModule(part) ? [] : [...filesOfItem(part)])),
    ...home.blocks.flatMap((block) => [...filesLedToBy(block)]),
  ])
  const wholeCourse = isTaken('course', false)
  const base = wholeCourse && only === null ? newer : old
  return {
    ...base,
    parts: laidOut,
    files: [
      ...newer.files,
      ...[...earlierFiles.values()].filter(({ key }) => handedOut.has(key)),
      ...old.files.filter((was) => isGone(was.key) && handedOut.has(was.key)),
    ],
    home,
    houseTexts: newer.houseTexts,
    keptBlocks: newer.keptBlocks,
    assets: newer.assets,
    rubrics: newer.rubrics,
  }
}

/** A version with the strengths and the rules' parameters of a newer one; nothing else of it changes. */
export const withStrengthsOf = (template: Template, newer: Template): Template => {
  const strengths = new Map<string, Part['strength']>()
  const collect = (parts: readonly Part[]) => {
    for (const part of parts) {
      strengths.set(part.key, part.strength)
      if (isModule(part)) collect(part.items)
    }
  }
  collect(newer.parts)
  const laid = (parts: readonly Part[]): Part[] =>
    parts.map((part) => {
      const strength = strengths.get(part.key) ?? part.strength
      return isModule(part) ? { ...part, strength, items: laid(part.items) } : { ...part, strength }
    })
  return {
    ...template,
    parts: laid(template.parts),
    home: { ...template.home, strength: newer.home.strength },
    policies: newer.policies,
  }
}
