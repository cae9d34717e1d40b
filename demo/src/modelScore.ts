import {
  analysePage,
  everyExpected,
  everyItem,
  expandCourse,
  type ExpectedPart,
  formatOf,
  isModule,
  itemsIn,
  readModel,
  type ReadSlot,
  renderName,
} from '@wickerframe/core'
import { modelCase, type ModelCase } from './modelCorpus.ts'
import type { Facts } from '@wickerframe/core'

/** What was found, of what was proposed and of what there is. */
export interface Score {
  found: number
  proposed: number
  true: number
}
export interface ModelScores {
  /** Pairs of items that belong to one repeated part. */
  repeats: Score
  formats: Score
  /** Stretches of pages told rightly as fixed text or fill-in, in their order. */
  texts: Score
}

export const precision = (score: Score): number =>
  score.proposed === 0 ? 1 : score.found / score.proposed
export const recall = (score: Score): number => (score.true === 0 ? 1 : score.found / score.true)

const pairs = (count: number): number => (count * (count - 1)) / 2
const plain = (html: string): string =>
  analysePage(html)
    .paragraphs.map((paragraph) => paragraph.text)
    .join(' ')

/** Length of the longest common subsequence. */
const common = (a: readonly string[], b: readonly string[]): number => {
  let before = Array.from({ length: b.length + 1 }, () => 0)
  for (const letter of a) {
    const now = [0]
    b.forEach((other, i) =>
      now.push(letter === other ? (before[i] ?? 0) + 1 : Math.max(before[i + 1] ?? 0, now[i] ?? 0)),
    )
    before = now
  }
  return before.at(-1) ?? 0
}

/** Measures the reading of one generated model course against the template it was made from. */
export const scoreModel = ({ course, facts, template, partOf }: ModelCase): ModelScores => {
  const reading = readModel(course, facts)
  const expansion = expandCourse({ template, facts, mintFrom: 'score' })
  if (!expansion.ok) throw new Error('the truth can be worked out')
  const truth = everyExpected(expansion.value.parts)
  const trueParts = new Map<string, ExpectedPart[]>()
  for (const part of truth) trueParts.set(part.key, [...(trueParts.get(part.key) ?? []), part])

  const bySlot = reading.slots.map((slot) =>
    [...slot.items.values()].map((item) => partOf.get(item.id) ?? `own ${item.id}`),
  )
  const count = (keys: readonly string[]): Map<string, number> =>
    keys.reduce(
      (counts, key) => counts.set(key, (counts.get(key) ?? 0) + 1),
      new Map<string, number>(),
    )
  const repeats: Score = {
    found: bySlot.reduce(
      (sum, keys) =>
        sum +
        [...count(keys)].reduce(
          (inner, [key, times]) => inner + (key.startsWith('own') ? 0 : pairs(times)),
          0,
        ),
      0,
    ),
    proposed: bySlot.reduce((sum, keys) => sum + pairs(keys.length), 0),
    true: [
      ...count(
        [...partOf]
          .filter(([id]) =>
            course.modules.some(
              (module) =>
                !reading.pauses.includes(moduleNumber(reading, module.id)) &&
                itemsIn(module).some((item) => item.id === id),
            ),
          )
          .map(([, key]) => key),
      ),
    ].reduce((sum, [, times]) => sum + pairs(times), 0),
  }

  const slotFor = (key: string): ReadSlot | null => {
    const best = reading.slots
      .map((slot, i) => ({
        slot,
        share: (bySlot[i] ?? []).filter((slotKey) => slotKey === key).length,
      }))
      .sort((a, b) => b.share - a.share)[0]
    return best && best.share >= 3 ? best.slot : null
  }
  const items = everyItem(template).filter((item) => item.key !== 'welcome')
  const rightly = (format: string, parts: readonly ExpectedPart[]): boolean =>
    parts.every((part) => renderName(formatOf(format), part.values).text === part.name)
  const formats: Score = {
    found: 0,
    proposed: (reading.moduleFormat ? 1 : 0) + reading.slots.filter((slot) => slot.rule).length,
    true: items.length + 1,
  }
  if (reading.moduleFormat && rightly(reading.moduleFormat.format, trueParts.get('learning') ?? []))
    formats.found += 1
  const texts: Score = { found: 0, proposed: 0, true: 0 }
  for (const item of items) {
    const slot = slotFor(item.key)
    if (slot?.rule && rightly(slot.format.format, trueParts.get(item.key) ?? [])) formats.found += 1
    if (isModule(item) || item.blocks.length === 0) continue
    const wanted = item.blocks.map((block) =>
      block.kind === 'fill-in'
        ? 'varies'
        : block.kind === 'fixed-text'
          ? plain(block.html)
          : block.kind,
    )
    const told = (slot?.page ?? []).map((stretch) =>
      stretch.what === 'varies' ? 'varies' : plain(stretch.html),
    )
    texts.found += common(wanted, told)
    texts.proposed += told.length
    texts.true += wanted.length
  }
  return { repeats, formats, texts }
}

const moduleNumber = (reading: ReturnType<typeof readModel>, id: string): number =>
  reading.group?.repetitions.find((repetition) => repetition.module.id === id)?.number ?? -1

/** Scores of many generated courses, added up. */
export const scoreModels = (
  facts: readonly Facts[],
  seeds: readonly number[],
  edits: boolean,
): ModelScores => {
  const empty = (): Score => ({ found: 0, proposed: 0, true: 0 })
  const total: ModelScores = { repeats: empty(), formats: empty(), texts: empty() }
  seeds.forEach((seed, i) => {
    const own = facts[i % facts.length]
    if (!own) return
    const scores = scoreModel(modelCase(own, seed, edits))
    for (const name of ['repeats', 'formats', 'texts'] as const)
      for (const part of ['found', 'proposed', 'true'] as const)
        total[name][part] += scores[name][part]
  })
  return total
}
