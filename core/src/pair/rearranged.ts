import type { CourseItem, PlacedItem } from '../course/index.ts'
import type { ExpectedBlock, ExpectedPart } from '../expand/index.ts'
import type { PageFacts } from '../page/index.ts'
import { leftAs } from '../template/index.ts'
import { linesOfBlock } from './blockLines.ts'

export interface MergedModules {
  /** Instances, the paired one first. */
  expected: string[]
  found: string
}
export interface SplitPage {
  expected: string
  /** Ids, the paired one first. */
  found: string[]
}

/** A module is folded into another where at least this share of its items that were found stand there. */
const leastShare = 0.5

/** Modules for which nothing was found by itself, but most of whose items stand together in the module of another. */
export const mergedModules = (
  modules: readonly ExpectedPart[],
  foundFor: (instance: string) => string | null,
  moduleOfItem: ReadonlyMap<string, string | null>,
): MergedModules[] => {
  const paired = new Map(
    modules.flatMap((module) => {
      const found = foundFor(module.instance)
      return found === null ? [] : [[found, module.instance] as const]
    }),
  )
  const groups = new Map<string, string[]>()
  for (const module of modules) {
    if (foundFor(module.instance) !== null) continue
    const standing = new Map<string, number>()
    let items = 0
    for (const item of module.items) {
      const found = foundFor(item.instance)
      const at = found === null ? null : (moduleOfItem.get(found) ?? null)
      if (found !== null) items += 1
      if (at !== null) standing.set(at, (standing.get(at) ?? 0) + 1)
    }
    const [best] = [...standing].sort((a, b) => b[1] - a[1])
    if (
      !best ||
      items < 2 ||
      best[1] < items * leastShare ||
      best[1] < module.items.length * leastShare
    )
      continue
    const first = paired.get(best[0])
    if (first !== undefined)
      groups.set(best[0], [...(groups.get(best[0]) ?? [first]), module.instance])
  }
  return [...groups].map(([found, expected]) => ({ expected, found }))
}

/** A line of a block must be this long to tell it from others by itself. */
const tellingLength = 25
/** How the lines of a block tell that it stands among others: one long one does, shorter ones only all together. */
const telling = (
  html: string,
): { lines: readonly string[]; standIn: (held: ReadonlySet<string>) => boolean } => {
  const all = linesOfBlock(html)
  const long = all.filter((line) => line.length >= tellingLength)
  if (long.length > 0)
    return { lines: long, standIn: (held) => long.some((line) => held.has(line)) }
  const lines = all.length > 1 ? all : []
  return { lines, standIn: (held) => lines.length > 0 && lines.every((line) => held.has(line)) }
}

/** Whether the wording of a block is there to stay: a prompt makes room for its answer, a note for nothing. */
const isToStand = (block: ExpectedBlock): boolean =>
  block.kind !== 'guidance-note' && leftAs(block.definition) !== 'asked'

/** Pages whose missing blocks stand in an unpaired page of the same module. */
export const splitPages = (
  parts: readonly ExpectedPart[],
  foundFor: (instance: string) => string | null,
  all: readonly PlacedItem[],
  unpaired: readonly PlacedItem[],
  pageOf: (item: CourseItem) => PageFacts | null,
): SplitPage[] => {
  const candidates = unpaired.filter(({ item }) => item.html !== null)
  if (candidates.length === 0) return []
  const placed = new Map(all.map((placed) => [placed.item.id, placed]))
  return parts.flatMap((part): SplitPage[] => {
    const found = part.blocks.length > 1 ? foundFor(part.instance) : null
    const first = found === null ? undefined : placed.get(found)
    const near = first
      ? candidates.filter((candidate) => candidate.module?.id === first.module?.id)
      : []
    const page = first && near.length > 0 ? pageOf(first.item) : null
    if (!first || !page) return []
    const has = new Set(page.paragraphs.map((paragraph) => paragraph.text))
    const gone = part.blocks.flatMap((block) => {
      const said = isToStand(block) ? telling(block.html) : telling('')
      const isMarked = page.markers.includes(block.key)
      return !isMarked &&
        (page.markers.length > 0 ||
          (said.lines.length > 0 && !said.lines.some((line) => has.has(line))))
        ? [{ key: block.key, said }]
        : []
    })
    if (gone.length === 0) return []
    const rest = near.filter(({ item }) => {
      const other = pageOf(item)
      const held = new Set(other?.paragraphs.map((paragraph) => paragraph.text))
      // What also holds the blocks that are still in the first is a copy, not the other half.
      const repeats = part.blocks
        .filter((block) => !gone.some(({ key }) => key === block.key))
        .some((block) => other?.markers.includes(block.key) || telling(block.html).standIn(held))
      return (
        !repeats &&
        gone.some(
          ({ key, said }) =>
            (other?.markedPart === part.instance && other.markers.includes(key)) ||
            said.standIn(held),
        )
      )
    })
    return rest.length === 0
      ? []
      : [{ expected: part.instance, found: [first.item.id, ...rest.map(({ item }) => item.id)] }]
  })
}
