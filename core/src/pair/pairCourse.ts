import { everyCourseItem, everyModule, type Course, type CourseItem } from '../course/index.ts'
import {
  everyExpected,
  instanceOf,
  type ExpectedCourse,
  type ExpectedPart,
} from '../expand/index.ts'
import { foldedName } from '../naming/index.ts'
import type { PageFacts } from '../page/index.ts'
import { assign, marginOf } from './assign.ts'
import { calibrated, leastConfidence } from './confidence.ts'
import { claimedElsewhere } from './claimedElsewhere.ts'
import { copiesOf } from './copies.ts'
import {
  evidenceFor,
  foundItem,
  foundModule,
  tellingAmong,
  totalWeight,
  type Evidence,
  type FoundPart,
  type Telling,
} from './evidence.ts'
import { homePageIn } from './homePage.ts'
import type { Join } from './join.ts'
import type { Pair, Pairing } from './pairing.ts'
import { tiesOf } from './ties.ts'
import { mergedModules, splitPages } from './rearranged.ts'

/** The right kind in the right place is anybody's: something more must speak for a pair. */
const leastEvidence = 0.5
/** A rescue from elsewhere needs this much more evidence than a pair in place. */
const rescueThreshold = 1.5
/** And it must be told from its siblings: what fits two of them as well belongs to neither. */
const leastRescued = 0.55
/** How well other parts and other items would go with either side of a pair. */
const rivalsOf = (scores: readonly (readonly number[])[], row: number, column: number): number[] =>
  scores.flatMap((of, at) =>
    at === row ? of.filter((_, other) => other !== column) : (of[column] ?? -Infinity),
  )

/** What a person forbade; no evidence outweighs it. */
const forbidden = -1000

/**
 * Pairs an expected course with a snapshot: what people joined by hand first, then recorded identity, then modules and
 * the items of paired modules by an optimal assignment on evidence, then parts that stand elsewhere.
 * @param pageOf facts of an item's page, or null; only called where they are needed
 * @param joins what people joined and unjoined by hand
 */
export const pairCourse = (
  expected: ExpectedCourse,
  course: Course,
  pageOf: (item: CourseItem) => PageFacts | null,
  joins: readonly Join[] = [],
): Pairing => {
  const near = expected.weeks[0]?.first ?? expected.facts.term.firstDay
  const pairOfExpected = new Map<string, Pair>()
  const pairOfFound = new Map<string, Pair>()
  const wanted = everyExpected(expected.parts)
  const wantedModules = wanted.filter((part) => part.kind === 'module')
  const wantedItems = [...wanted.filter((part) => part.kind !== 'module'), expected.home]
  const foundModules = everyModule(course.modules)
  const foundItems = everyCourseItem(course)
  const byInstance = new Map([...wanted, expected.home].map((part) => [part.instance, part]))
  const moduleOfItem = new Map(
    foundItems.map((placed) => [placed.item.id, placed.module?.id ?? null]),
  )
  const foundIds = new Set([...foundModules.map((module) => module.id), ...moduleOfItem.keys()])
  const unjoined = new Set(
    joins.filter((join) => join.what === 'unjoin').map((join) => `${join.expected} ${join.found}`),
  )

  const join = (pair: Omit<Pair, 'moved'>) => {
    if (pairOfExpected.has(pair.expected) || pairOfFound.has(pair.found)) return
    const whole = { ...pair, moved: false }
    pairOfExpected.set(pair.expected, whole)
    pairOfFound.set(pair.found, whole)
  }

  const isModule = (id: string) => !moduleOfItem.has(id)
  for (const { what, expected: instance, found } of joins)
    if (
      what === 'join' &&
      byInstance.has(instance) &&
      foundIds.has(found) &&
      (byInstance.get(instance)?.kind === 'module') === isModule(found)
    )
      join({ expected: instance, found, by: 'hand', confidence: 1, reasons: ['joined by hand'] })
  const recorded = (id: string, as: CourseItem['recordedAs']) => {
    if (!as) return
    const instance = instanceOf(as.part, as.repetition)
    if (byInstance.has(instance) && !unjoined.has(`${instance} ${id}`))
      join({
        expected: instance,
        found: id,
        by: 'recorded',
        confidence: 1,
        reasons: ['made by deployment'],
      })
  }
  for (const module of foundModules) recorded(module.id, module.recordedAs)
  for (const { item } of foundItems) recorded(item.id, item.recordedAs)
  const home = pairOfExpected.has(expected.home.instance)
    ? null
    : homePageIn(expected, course, foundItems, pageOf, near, (id) => pairOfFound.has(id))
  if (home !== null && !unjoined.has(`${expected.home.instance} ${home.found}`))
    join({ expected: expected.home.instance, by: 'evidence', ...home })

  const tellings = new Map<string | null, Telling>()
  const tellingOf = (part: ExpectedPart): Telling => {
    const key = part.kind === 'module' ? null : (part.parent ?? part.instance)
    let telling = tellings.get(key)
    if (!telling)
      tellings.set(
        key,
        (telling = tellingAmong(
          (key === null ? wantedModules : (byInstance.get(key)?.items ?? [part])).map(
            ({ name }) => name,
          ),
        )),
      )
    return telling
  }

  /** Modules of which the items stand in the module of another. */
  const foldedInto = new Map<string, string>()
  const foundForParent = ({ parent }: ExpectedPart): string | undefined =>
    parent === null ? undefined : (pairOfExpected.get(parent)?.found ?? foldedInto.get(parent))
  const pairByEvidence = (
    parts: ExpectedPart[],
    placeOf: (part: ExpectedPart) => number,
    found: FoundPart[],
    threshold: number,
    least = leastConfidence,
  ) => {
    if (parts.length === 0 || found.length === 0) return
    const evidenceOf = (part: ExpectedPart, candidate: FoundPart): Evidence[] => {
      if (unjoined.size > 0 && unjoined.has(`${part.instance} ${candidate.id}`))
        return [{ weight: forbidden, says: 'unjoined by hand' }]
      const parentFound = foundForParent(part)
      return evidenceFor(
        part,
        candidate,
        placeOf(part),
        part.kind === 'module'
          ? null
          : parentFound !== undefined
            ? parentFound === candidate.module
            : part.parent === null
              ? null
              : false,
        near,
        tellingOf(part),
      )
    }
    // Most evidence is for pairs that do not come about: only its weight is held.
    const scores = parts.map((part) =>
      found.map((candidate) => totalWeight(evidenceOf(part, candidate))),
    )
    const assigned = assign(scores, threshold)
    assigned.forEach((column, row) => {
      const part = parts[row]
      const candidate = column === null ? undefined : found[column]
      if (!part || !candidate || column === null) return
      const score = scores[row]?.[column] ?? 0
      const confidence = calibrated(
        score,
        part.kind === 'module'
          ? marginOf(scores, assigned, row)
          : score - Math.max(0, ...rivalsOf(scores, row, column)),
      )
      if (confidence < least) return
      const reasons = evidenceOf(part, candidate)
        .filter((each) => Math.abs(each.weight) >= 0.5)
        .sort((a, b) => b.weight - a.weight)
        .map((each) => each.says)
      join({ expected: part.instance, found: candidate.id, by: 'evidence', confidence, reasons })
    })
  }

  pairByEvidence(
    wantedModules.filter((part) => !pairOfExpected.has(part.instance)),
    (part) => wantedModules.indexOf(part) / Math.max(1, wantedModules.length - 1),
    foundModules.flatMap((module, i) =>
      pairOfFound.has(module.id)
        ? []
        : [foundModule(module, i / Math.max(1, foundModules.length - 1), pageOf)],
    ),
    0,
  )
  const openItems = foundItems
    .filter(({ item }) => !pairOfFound.has(item.id))
    .map(({ item, module, index }) => foundItem(item, module, index, pageOf))
  const claimed = claimedElsewhere(
    wantedItems.filter((item) => !pairOfExpected.has(item.instance)),
    openItems,
    (part) => (part.parent === null ? null : (pairOfExpected.get(part.parent)?.found ?? null)),
    tiesOf(course, foundItems, pageOf),
  )
  /** Pairs what is expected in a module with what stands in the one that was found for it. */
  const pairWithin = (module: ExpectedPart, there: string) =>
    pairByEvidence(
      module.items.filter((item) => item.kind !== 'module' && !pairOfExpected.has(item.instance)),
      (item) => module.items.indexOf(item) / Math.max(1, module.items.length - 1),
      openItems.filter(
        (item) => item.module === there && !pairOfFound.has(item.id) && !claimed.has(item.id),
      ),
      leastEvidence,
    )
  for (const module of wantedModules) {
    const there = pairOfExpected.get(module.instance)?.found
    if (there !== undefined) pairWithin(module, there)
  }
  const rescue = (parts: ExpectedPart[]) =>
    pairByEvidence(
      parts.filter((item) => !pairOfExpected.has(item.instance) && !item.inBreak),
      () => 0.5,
      openItems.filter((item) => !pairOfFound.has(item.id)),
      rescueThreshold,
      leastRescued,
    )
  // Where a module was folded into another is told by those of its items that bear their very names.
  const names = new Set(openItems.map(({ folded }) => folded))
  rescue(
    wantedItems.filter(
      (part) =>
        part.parent !== null &&
        foundForParent(part) === undefined &&
        names.has(foldedName(part.name)),
    ),
  )
  const foundFor = (instance: string): string | null => pairOfExpected.get(instance)?.found ?? null
  for (const { expected: folded, found } of mergedModules(wantedModules, foundFor, moduleOfItem))
    for (const instance of folded.slice(1)) {
      const module = byInstance.get(instance)
      if (!module) continue
      foldedInto.set(instance, found)
      pairWithin(module, found)
    }
  rescue(wantedItems)

  for (const pair of pairOfExpected.values()) {
    const parent = byInstance.get(pair.expected)?.parent ?? null
    const standsIn = moduleOfItem.get(pair.found)
    pair.moved =
      parent !== null && standsIn !== undefined && pairOfExpected.get(parent)?.found !== standsIn
  }
  const unpaired = foundItems.filter(({ item }) => !pairOfFound.has(item.id))
  const split = splitPages(wantedItems, foundFor, foundItems, unpaired, pageOf)
  const halves = new Set(split.flatMap(({ found }) => found.slice(1)))
  return {
    pairs: [...wantedModules, ...wantedItems].flatMap(
      (part) => pairOfExpected.get(part.instance) ?? [],
    ),
    missing: [...wantedModules, ...wantedItems]
      .filter((part) => !pairOfExpected.has(part.instance))
      .map((part) => part.instance),
    extra: [
      ...foundModules.map((module) => module.id),
      ...foundItems.map(({ item }) => item.id),
    ].filter((id) => !pairOfFound.has(id)),
    copies: copiesOf(
      wantedItems,
      foundFor,
      unpaired.filter(({ item }) => !halves.has(item.id)),
      moduleOfItem,
      pageOf,
    ),
    merged: mergedModules(wantedModules, foundFor, moduleOfItem),
    split,
    lapsed: joins.filter((join) => !byInstance.has(join.expected) || !foundIds.has(join.found)),
  }
}
