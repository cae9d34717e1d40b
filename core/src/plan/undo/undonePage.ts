import { blockRegions, normalHtml, type BlockRegion } from '../../page/index.ts'
import type { BlockBase } from '../base.ts'
import { bodyOf, type Bodies } from '../bodies.ts'
import type { FieldStep } from '../mergeCase.ts'
import { movedBetween } from '../places.ts'
import { spliced, type Splice } from '../splices.ts'
import { wasMadeAgain } from './undoing.ts'

/** A page before a deployment, right after it, and as it stands: HTML, null where there was none. */
export interface PageStates {
  was: string | null
  after: string | null
  is: string | null
}

export interface UndonePage {
  /** The page to write; null: it stays as it is. */
  html: string | null
  steps: FieldStep[]
  /** Keys of the blocks whose words are those from before, or that are gone as before. */
  back: ReadonlySet<string>
}

const stays = 'was edited since; stays'
const asBefore = 'as it was before the rollout'

/**
 * A page taken back: as a whole where nobody touched it since; otherwise block by block, as splices into what stands there.
 * What was edited since, or cannot be told for sure, stays and is told.
 * @param blocksBefore blocks of the page as the base knew them before the deployment, and right after it
 * @param keysNow of the blocks that were deployed last
 */
export const undonePage = (
  { was, after, is }: PageStates,
  blocksBefore: readonly BlockBase[] | null,
  blocksAfter: readonly BlockBase[] | null,
  keysNow: ReadonlySet<string>,
  bodies: Bodies,
): UndonePage => {
  const step = (
    field: string,
    does: FieldStep['does'],
    base: string | null,
    present: string | null,
    wanted: string | null,
    reason: string,
  ): FieldStep => ({
    field,
    does,
    base,
    present,
    wanted,
    result: does === 'change' ? wanted : present,
    decided: null,
    reason,
  })
  const keysBefore = new Set(blocksBefore?.map((block) => block.key))
  const keysAfter = new Set(blocksAfter?.map((block) => block.key))
  const back = new Set<string>()
  if (is === was) return { html: null, steps: [], back }
  // What was not told then may have been anything, and so may what is not told now: neither is written over, nor back.
  const isUntold = is === null || (was === null && keysBefore.size > 0)
  if (isUntold)
    return {
      html: null,
      steps: [step('page', 'keep', after, is, was, 'cannot be seen; stays')],
      back,
    }
  if (is === after)
    return {
      html: was ?? '',
      steps: [step('page', 'change', after, is, was, asBefore)],
      back: new Set([...keysBefore, ...keysAfter]),
    }
  if (!blocksBefore || !blocksAfter)
    return { html: null, steps: [step('page', 'keep', after, is, was, stays)], back }

  const looked = (blocks: readonly BlockBase[]) =>
    blocks.map((block) => ({ key: block.key, html: bodyOf(bodies, block.sent) }))
  const then = read(was ?? '', looked(blocksBefore))
  const made = read(after ?? '', looked(blocksAfter))
  const now = read(is ?? '', looked(blocksAfter))
  const common = then.order.filter((key) => made.regions.has(key))
  const moved = movedBetween(
    made.order.filter((key) => then.regions.has(key)),
    common,
  )
  const movedSince = movedBetween(
    made.order,
    now.order.filter((key) => made.regions.has(key)),
  )
  const steps: FieldStep[] = []
  const splices: Splice[] = []
  const tell = (key: string, does: FieldStep['does'], reason: string) =>
    void steps.push(
      step(`block:${key}`, does, made.inside(key), now.inside(key), then.inside(key), reason),
    )
  /** Whether the block stands exactly as the deployment left it, and that is sure. */
  const isUntouched = (key: string): boolean => {
    const present = now.inside(key)
    const left = made.inside(key)
    return (
      now.isSure(key) &&
      made.isSure(key) &&
      present !== null &&
      left !== null &&
      normalHtml(present) === normalHtml(left)
    )
  }
  const goesIn = (key: string, text: string) => {
    const at = placeAfter(key, then.order, now, moved)
    splices.push({ from: at, to: at, text: `\n${text}` })
  }
  const takeOut = (key: string) => {
    const region = now.regions.get(key)
    if (region) splices.push({ ...region.outer, text: '' })
  }

  for (const key of then.order) {
    const before = then.outside(key)
    if (before === null) continue
    if (!keysAfter.has(key)) {
      // It was taken out by the deployment.
      if (keysNow.has(key)) {
        tell(key, 'keep', wasMadeAgain)
        continue
      }
      goesIn(key, before)
      back.add(key)
      tell(key, 'change', asBefore)
      continue
    }
    if (!made.regions.has(key)) {
      tell(key, 'keep', 'it cannot be told where it stands; it stays')
      continue
    }
    const isSame = normalHtml(then.inside(key) ?? '') === normalHtml(made.inside(key) ?? '')
    const isMoved = moved.has(key)
    if (isSame && !isMoved) continue
    if (isSame ? !now.isSure(key) || movedSince.has(key) : !isUntouched(key)) {
      tell(key, 'keep', now.regions.has(key) ? stays : 'was removed since; stays removed')
      continue
    }
    // A block that only moved goes back with whatever was written in it since.
    const text = isSame ? (now.outside(key) ?? before) : before
    if (isMoved && !movedSince.has(key)) {
      takeOut(key)
      goesIn(key, text)
    } else {
      const region = now.regions.get(key)
      if (region) splices.push({ ...region.outer, text })
    }
    if (!isSame) back.add(key)
    tell(key, 'change', asBefore)
  }
  for (const key of made.order) {
    // It was put in by the deployment.
    if (keysBefore.has(key) || !now.regions.has(key)) continue
    if (isUntouched(key)) {
      takeOut(key)
      back.add(key)
      tell(key, 'change', asBefore)
    } else tell(key, 'keep', stays)
  }
  return { html: splices.length === 0 ? null : spliced(is ?? '', splices), steps, back }
}

interface ReadPage {
  regions: ReadonlyMap<string, BlockRegion>
  /** Keys of the blocks that stand, in the order in which they stand. */
  order: string[]
  isSure: (key: string) => boolean
  inside: (key: string) => string | null
  outside: (key: string) => string | null
}

const read = (html: string, blocks: readonly { key: string; html: string }[]): ReadPage => {
  const { regions, doubtful } = blockRegions(html, blocks)
  for (const key of doubtful) regions.delete(key)
  return {
    regions,
    order: [...regions].sort(([, a], [, b]) => a.outer.from - b.outer.from).map(([key]) => key),
    isSure: (key) => regions.get(key)?.sure ?? false,
    inside: (key) => {
      const region = regions.get(key)
      return region ? html.slice(region.inner.from, region.inner.to) : null
    },
    outside: (key) => {
      const region = regions.get(key)
      return region ? html.slice(region.outer.from, region.outer.to) : null
    },
  }
}

/** Where a block that comes back belongs: after the nearest one before it that stands, else before the nearest after it, else at the end. */
const placeAfter = (
  key: string,
  order: readonly string[],
  now: ReadPage,
  moved: ReadonlySet<string>,
): number => {
  const anchor = (other: string | undefined): BlockRegion | undefined =>
    other === undefined || moved.has(other) ? undefined : now.regions.get(other)
  const at = order.indexOf(key)
  for (let i = at - 1; i >= 0; i--) {
    const region = anchor(order[i])
    if (region) return region.outer.to
  }
  for (let i = at + 1; i < order.length; i++) {
    const region = anchor(order[i])
    if (region) return region.outer.from
  }
  return Math.max(0, ...[...now.regions.values()].map((region) => region.outer.to))
}
