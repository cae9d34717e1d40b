import { everyCourseItem, everyModule, type Course, type CourseItem, type CourseModule } from '../course/index.ts'
import { everyExpected, instanceOf, type ExpectedCourse, type ExpectedPart } from '../expand/index.ts'
import { foldName } from '../naming/index.ts'
import type { PageFacts } from '../page/index.ts'
import { assign } from './assign.ts'
import type { Join } from './join.ts'
import { evidenceFor, totalWeight, type FoundPart } from './evidence.ts'

/** Which part of the expected course is which part of the snapshot. */
export interface Pair {
  expected: string
  found: string
  /** recorded: what deployment created; evidence: told from name, kind, place and content. */
  by: 'recorded' | 'evidence'
  /** 0 to 1, from the evidence and from the margin to the next best. */
  confidence: number
  reasons: string[]
  /** Whether it stands outside the module it is expected in. */
  moved: boolean
}

/** A pair below this confidence is shown as doubtful. */
export const doubtfulBelow = 0.75

export interface Pairing {
  pairs: Pair[]
  /** Instances with nothing found for them. */
  missing: string[]
  /** Ids of found modules and items that nothing expects. */
  extra: string[]
  /** Found items that carry the marks of an instance already paired, or its very name in the same module. */
  copies: { of: string; found: string }[]
}

const logistic = (weight: number): number => 1 / (1 + Math.exp(-weight))

interface Sides {
  pairOfExpected: Map<string, Pair>
  pairOfFound: Map<string, Pair>
}

/** A rescue from elsewhere needs this much more evidence than a pair in place. */
const rescueThreshold = 1.5

/**
 * Pairs an expected course with a snapshot: recorded identity first, then modules and the items of paired modules by
 * an optimal assignment on evidence, then parts that stand elsewhere.
 * @param pageOf facts of an item's page, or null; only called where they are needed
 */
export const pairCourse = (expected: ExpectedCourse, course: Course, pageOf: (item: CourseItem) => PageFacts | null, joins: readonly Join[] = []): Pairing => {
  const near = expected.weeks[0]?.first ?? expected.facts.term.firstDay
  const sides: Sides = { pairOfExpected: new Map(), pairOfFound: new Map() }
  const wanted = everyExpected(expected.parts)
  const wantedModules = wanted.filter((part) => part.kind === 'module')
  const wantedItems = [...wanted.filter((part) => part.kind !== 'module'), expected.home]
  const foundModules = everyModule(course.modules)
  const foundItems = everyCourseItem(course)
  const byInstance = new Map([...wanted, expected.home].map((part) => [part.instance, part]))
  const moduleOfItem = new Map(foundItems.map((placed) => [placed.item.id, placed.module?.id ?? null]))

  const join = (pair: Omit<Pair, 'moved'>) => {
    const parent = byInstance.get(pair.expected)?.parent ?? null
    const standsIn = moduleOfItem.get(pair.found)
    const moved = parent !== null && standsIn !== undefined && sides.pairOfExpected.get(parent)?.found !== standsIn
    const whole = { ...pair, moved }
    sides.pairOfExpected.set(pair.expected, whole)
    sides.pairOfFound.set(pair.found, whole)
  }

  const recorded = (id: string, as: CourseItem['recordedAs']) => {
    if (!as) return
    const instance = instanceOf(as.part, as.repetition)
    if (byInstance.has(instance) && !sides.pairOfExpected.has(instance))
      join({ expected: instance, found: id, by: 'recorded', confidence: 1, reasons: ['made by deployment'] })
  }
  for (const module of foundModules) recorded(module.id, module.recordedAs)
  for (const { item } of foundItems) recorded(item.id, item.recordedAs)
  if (course.homePage !== null && !sides.pairOfExpected.has(expected.home.instance) && !sides.pairOfFound.has(course.homePage) && moduleOfItem.has(course.homePage))
    join({ expected: expected.home.instance, found: course.homePage, by: 'evidence', confidence: 1, reasons: ['set as the home page'] })

  const foundModule = (module: CourseModule, index: number): FoundPart => ({
    id: module.id, name: module.name, kind: 'module', module: null, place: index / Math.max(1, foundModules.length - 1),
    markedAs: null, holds: module.items.map((item) => foldName(item.name).text), text: '',
  })
  const foundPart = (item: CourseItem, module: CourseModule | null, index: number): FoundPart => {
    const page = item.html === null ? null : pageOf(item)
    return {
      id: item.id, name: item.name, kind: item.kind, module: module?.id ?? null, place: index / Math.max(1, (module?.items.length ?? 1) - 1),
      markedAs: page?.markedPart ?? null, holds: [], text: page ? page.paragraphs.map((one) => one.text).join('\n').toLowerCase() : '',
    }
  }

  const pairByEvidence = (parts: ExpectedPart[], placeOf: (part: ExpectedPart) => number, found: FoundPart[], threshold: number) => {
    if (parts.length === 0 || found.length === 0) return
    const evidence = parts.map((part) =>
      found.map((one) => {
        const parentPair = part.parent === null ? null : sides.pairOfExpected.get(part.parent)
        return evidenceFor(part, one, placeOf(part), part.kind === 'module' ? null : parentPair ? parentPair.found === one.module : part.parent === null ? null : false, near)
      }),
    )
    const scores = evidence.map((row) => row.map(totalWeight))
    const chosen = assign(scores, threshold)
    chosen.forEach((column, row) => {
      const part = parts[row]
      const one = column === null ? undefined : found[column]
      if (!part || !one || column === null) return
      const score = scores[row]?.[column] ?? 0
      const rivals = [...(scores[row] ?? []).filter((_, other) => other !== column), ...scores.filter((_, other) => other !== row).map((other) => other[column] ?? -Infinity)]
      const margin = score - Math.max(0, ...rivals)
      const reasons = (evidence[row]?.[column] ?? []).filter((each) => Math.abs(each.weight) >= 0.5).sort((a, b) => b.weight - a.weight).map((each) => each.says)
      join({ expected: part.instance, found: one.id, by: 'evidence', confidence: round(Math.min(logistic(score), logistic(margin))), reasons })
    })
  }

  pairByEvidence(
    wantedModules.filter((part) => !sides.pairOfExpected.has(part.instance)),
    (part) => wantedModules.indexOf(part) / Math.max(1, wantedModules.length - 1),
    foundModules.map((module, i) => foundModule(module, i)).filter((one) => !sides.pairOfFound.has(one.id)),
    0,
  )
  const unpairedItems = () => foundItems.filter(({ item }) => !sides.pairOfFound.has(item.id)).map(({ item, module, index }) => foundPart(item, module, index))
  const openItems = unpairedItems()
  for (const module of wantedModules) {
    const there = sides.pairOfExpected.get(module.instance)?.found
    if (there === undefined) continue
    pairByEvidence(
      module.items.filter((item) => item.kind !== 'module' && !sides.pairOfExpected.has(item.instance)),
      (item) => module.items.indexOf(item) / Math.max(1, module.items.length - 1),
      openItems.filter((one) => one.module === there && !sides.pairOfFound.has(one.id)),
      0,
    )
  }
  const rest = wantedItems.filter((item) => !sides.pairOfExpected.has(item.instance) && !item.inBreak)
  pairByEvidence(rest, () => 0.5, openItems.filter((one) => !sides.pairOfFound.has(one.id)), rescueThreshold)

  const paired = (part: ExpectedPart) => sides.pairOfExpected.has(part.instance)
  const copies = openItems.flatMap((one) => {
    if (sides.pairOfFound.has(one.id)) return []
    const original = one.markedAs !== null && sides.pairOfExpected.has(one.markedAs) ? one.markedAs : null
    const namesake = wantedItems.find((part) => paired(part) && sides.pairOfExpected.get(part.instance)?.found !== one.id && isCopyName(one.name, part.name) && moduleOfItem.get(sides.pairOfExpected.get(part.instance)?.found ?? '') === one.module)
    const of = original ?? namesake?.instance
    return of ? [{ of, found: one.id }] : []
  })
  const pairs = [...wantedModules, ...wantedItems].flatMap((part) => sides.pairOfExpected.get(part.instance) ?? [])
  return {
    pairs,
    missing: [...wantedModules, ...wantedItems].filter((part) => !paired(part)).map((part) => part.instance),
    extra: [...foundModules.map((module) => module.id), ...foundItems.map(({ item }) => item.id)].filter((id) => !sides.pairOfFound.has(id)),
    copies,
  }
}

const round = (share: number): number => Math.round(share * 1000) / 1000

/** What copying leaves in a name, at its beginning or end. */
export const copyMark = /(?:^copy of |^copy - |[\s-]*\(copy\)$|[\s-]+copy(?: \d+)?$|\s*\(\d{1,2}\)$)/i
const isCopyName = (name: string, original: string): boolean => foldName(name.replace(copyMark, '')).text === foldName(original).text
