import { z } from 'zod'
import { canonicalJson } from '../document/index.ts'
import {
  isModule,
  leftAs,
  partsWithin,
  strengths,
  type Block,
  type Exception,
  type Part,
  type Strength,
  type Template,
} from '../template/index.ts'
import { mergedFile } from './file.ts'
import { mergedQuestions } from './questions.ts'
import { withOwn } from './withOwn.ts'

/** Something of the layer that could not be kept where it was. */
export const TakeOverNote = z.strictObject({
  code: z.enum(['key-taken', 'place-gone', 'answer-overruled']),
  part: z.string(),

  /** Key of the block, or the field, where it is one. */
  what: z.string().nullable(),
})
export type TakeOverNote = z.output<typeof TakeOverNote>

export interface TakenOver {
  template: Template
  notes: TakeOverNote[]
}

const same = (a: unknown, b: unknown): boolean =>
  canonicalJson(a ?? null) === canonicalJson(b ?? null)
const stronger = (a: Strength, b: Strength): Strength =>
  strengths.indexOf(a) <= strengths.indexOf(b) ? a : b

/** Merged by rules of their own. */
const mergedApart = new Set([
  'strength',
  'may',
  'settings',
  'items',
  'exceptions',
  'objectives',
  'blocks',
  'assesses',
  'questions',
  'file',
])

/** Fields that the layer said where the old version was silent stay, unless the new version speaks. */
const ownAnswers = <T extends object>(
  old: object | undefined,
  layer: object,
  wanted: T,
  overruled: (field: string) => void,
): T => {
  const before = new Map(Object.entries(old ?? {}))
  const now = new Map(Object.entries(wanted))
  const kept: [string, unknown][] = []
  for (const [field, value] of Object.entries(layer)) {
    if (mergedApart.has(field) || value === undefined || before.get(field) !== undefined) continue
    if (now.get(field) === undefined) kept.push([field, value])
    else if (!same(now.get(field), value)) overruled(field)
  }
  return { ...wanted, ...Object.fromEntries(kept) }
}

/** Whether the layer says something of its own where the version it was built on left that to others. */
const saysInPlace = (base: Block, present: Block): boolean =>
  base.kind !== 'fill-in' &&
  leftAs(base) !== null &&
  !same({ ...base, strength: null }, { ...present, strength: null })

/** What the layer says in place of a block that is left to others. */
const inPlaceOf = (block: Block, present: Block): Block => ({
  ...present,
  strength: stronger(block.strength, present.strength),
  ...(block.element ? { element: block.element } : {}),
  ...(block.basis ? { basis: block.basis } : {}),
})

/**
 * Brings a newer version of the layer above into a layer, which keeps its own parts, blocks, answers and raised
 * strengths. A three-way merge whose base is the version it was built on; a layer only adds, so little can clash, and
 * what does is told.
 * @param old the version the layer was built on
 * @param wanted the version it takes over
 */
export const takeOver = (old: Template, wanted: Template, layer: Template): TakenOver => {
  const notes: TakeOverNote[] = []
  const wantedKeys = new Set(partsWithin(wanted.parts).map((part) => part.key))
  const oldKeys = new Set(partsWithin(old.parts).map((part) => part.key))
  const oldParts = new Map(partsWithin(old.parts).map((part) => [part.key, part]))
  const layerParts = new Map(partsWithin(layer.parts).map((part) => [part.key, part]))

  const mergedBlocks = (
    part: string,
    before: readonly Block[],
    own: readonly Block[],
    next: readonly Block[],
  ): Block[] => {
    const merged = next.map((block): Block => {
      const present = own.find(({ key }) => key === block.key)
      const base = before.find(({ key }) => key === block.key)
      if (!present || !base || present.kind !== block.kind) return block
      if (saysInPlace(base, present)) {
        if (leftAs(block) !== null) return inPlaceOf(block, present)
        notes.push({ code: 'answer-overruled', part, what: block.key })
        return { ...block, strength: stronger(block.strength, present.strength) }
      }
      const answered = ownAnswers(base, present, block, () =>
        notes.push({ code: 'answer-overruled', part, what: block.key }),
      )
      return { ...answered, strength: stronger(block.strength, present.strength) }
    })
    const baseKeys = new Set(before.map((block) => block.key))
    const nextKeys = new Set(next.map((block) => block.key))
    const additions = own.filter((block) => !baseKeys.has(block.key))
    for (const block of additions)
      if (nextKeys.has(block.key)) notes.push({ code: 'key-taken', part, what: block.key })
    return withOwn(
      merged,
      own,
      new Set(additions.filter((block) => !nextKeys.has(block.key)).map((block) => block.key)),
    )
  }

  const isOwn = (part: Part): boolean => {
    if (oldKeys.has(part.key)) return false
    if (!wantedKeys.has(part.key)) return true
    notes.push({ code: 'key-taken', part: part.key, what: null })
    return false
  }
  const mergedList = (next: readonly Part[], own: readonly Part[]): Part[] =>
    withOwn(next.map(mergedPart), own, new Set(own.filter(isOwn).map((part) => part.key)))
  const mergedExceptions = (
    next: readonly Exception[],
    own: readonly Exception[],
    before: readonly Exception[],
  ): Exception[] => {
    const known = new Set(before.map(({ key }) => key))
    const merged = next.map((exception) => {
      const present = own.find(({ key }) => key === exception.key)
      return present ? { ...exception, add: mergedList(exception.add, present.add) } : exception
    })
    return withOwn(
      merged,
      own,
      new Set(
        own
          .filter(({ key }) => !known.has(key) && !next.some((other) => other.key === key))
          .map(({ key }) => key),
      ),
    )
  }
  const mergedPart = (part: Part): Part => {
    const own = layerParts.get(part.key)
    const before = oldParts.get(part.key)
    if (!own || !before || own.kind !== part.kind) return part
    const overruled = (field: string) =>
      void notes.push({ code: 'answer-overruled', part: part.key, what: field })
    const strength = stronger(part.strength, own.strength)
    const settings = ownAnswers(before?.settings, own.settings, part.settings, overruled)
    // What instructors may do can be narrowed by a layer, never widened.
    const may = Object.fromEntries(
      Object.entries(part.may).map(([what, allowed]) => [
        what,
        allowed &&
          !(
            before?.may[what as keyof Part['may']] === true &&
            own.may[what as keyof Part['may']] !== true
          ),
      ]),
    )
    const merged: Part = { ...ownAnswers(before, own, part, overruled), strength, may, settings }
    if (isModule(merged) && isModule(own)) {
      const base = before && isModule(before) ? before : null
      const ownObjectives = own.objectives.filter(
        (objective) =>
          ![...merged.objectives, ...(base?.objectives ?? [])].some(
            (other) => other.key === objective.key,
          ),
      )
      return {
        ...merged,
        items: mergedList(merged.items, own.items),
        exceptions: mergedExceptions(merged.exceptions, own.exceptions, base?.exceptions ?? []),
        objectives: withOwn(
          merged.objectives,
          own.objectives,
          new Set(ownObjectives.map((objective) => objective.key)),
        ),
      }
    }
    if (isModule(merged) || isModule(own)) return part
    const base = before && !isModule(before) ? before : null
    const ownAssessed = own.assesses.filter((key) => !(base?.assesses ?? []).includes(key))
    const questions = mergedQuestions(base?.questions, own.questions, merged.questions)
    const handedOut = mergedFile(base?.file, own.file, merged.file)
    if (handedOut.overruled) notes.push({ code: 'answer-overruled', part: part.key, what: 'file' })
    return {
      ...merged,
      ...(handedOut.file ? { file: handedOut.file } : {}),
      ...(questions ? { questions } : {}),
      blocks: mergedBlocks(part.key, base?.blocks ?? [], own.blocks, merged.blocks),
      assesses: [...new Set([...merged.assesses, ...ownAssessed])],
    }
  }

  const union = <T extends { key: string }>(
    name: string,
    before: readonly T[],
    own: readonly T[],
    next: readonly T[],
  ): T[] => {
    const additions = own.filter(({ key }) => !before.some((other) => other.key === key))
    for (const addition of additions)
      if (next.some((other) => other.key === addition.key && !same(addition, other)))
        notes.push({ code: 'key-taken', part: name, what: addition.key })
    return withOwn(
      next,
      own,
      new Set(
        additions
          .filter((addition) => !next.some((other) => other.key === addition.key))
          .map((addition) => addition.key),
      ),
    )
  }

  const parts = mergedList(wanted.parts, layer.parts)
  // Own parts whose module is gone above are kept at the top, and told.
  const placed = new Set(partsWithin(parts).map((part) => part.key))
  const homeless = partsWithin(layer.parts).filter(
    (part) => !placed.has(part.key) && !oldKeys.has(part.key) && !wantedKeys.has(part.key),
  )
  const outermost = homeless.filter(
    (part) => !homeless.some((other) => other !== part && partsWithin([other]).includes(part)),
  )
  for (const part of outermost) notes.push({ code: 'place-gone', part: part.key, what: null })

  return {
    template: {
      ...wanted,
      key: layer.key,
      title: layer.title,
      summary: layer.summary,
      version: layer.version,
      appliesTo: layer.appliesTo,
      extends: { template: wanted.key, version: wanted.version ?? 1 },
      settings: ownAnswers(old.settings, layer.settings, wanted.settings, (field) =>
        notes.push({ code: 'answer-overruled', part: 'settings', what: field }),
      ),
      // A layer may look otherwise; one that never did goes with what is above.
      houseStyle: same(layer.houseStyle, old.houseStyle) ? wanted.houseStyle : layer.houseStyle,
      ...(wanted.frameHosts === undefined && old.frameHosts === undefined && layer.frameHosts
        ? { frameHosts: layer.frameHosts }
        : {}),
      home: {
        ...wanted.home,
        strength: stronger(wanted.home.strength, layer.home.strength),
        blocks: mergedBlocks('home-page', old.home.blocks, layer.home.blocks, wanted.home.blocks),
      },
      navigation: union('navigation', old.navigation, layer.navigation, wanted.navigation),
      grading:
        old.grading.categories.length === 0 && wanted.grading.categories.length === 0
          ? layer.grading
          : {
              ...wanted.grading,
              categories: union(
                'grading',
                old.grading.categories,
                layer.grading.categories,
                wanted.grading.categories,
              ),
            },
      rubrics: union('rubrics', old.rubrics, layer.rubrics, wanted.rubrics),
      outcomes: union('outcomes', old.outcomes, layer.outcomes, wanted.outcomes),
      houseTexts: union('houseTexts', old.houseTexts, layer.houseTexts, wanted.houseTexts),
      assets: union('assets', old.assets, layer.assets, wanted.assets),
      files: union('files', old.files, layer.files, wanted.files),
      keptBlocks: union('keptBlocks', old.keptBlocks, layer.keptBlocks, wanted.keptBlocks),
      policies: [
        ...wanted.policies,
        ...layer.policies.filter(
          (own) =>
            !wanted.policies.some((policy) => policy.rule === own.rule) &&
            !old.policies.some((policy) => policy.rule === own.rule),
        ),
      ],
      parts: [...parts, ...outermost],
    },
    notes,
  }
}

/** A new layer on a released version: everything of it, to be added to. */
export const newLayer = (upper: Template, key: string, title: string): Template => ({
  ...upper,
  key,
  title,
  version: undefined,
  extends: { template: upper.key, version: upper.version ?? 1 },
})
