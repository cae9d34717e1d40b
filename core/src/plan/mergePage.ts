import {
  analysePage,
  blockRegions,
  normalHtml,
  refilled,
  sameButForLook,
  sameText,
  standsAsSent,
  type BlockRegion,
  type BlockRegions,
} from '../page/index.ts'
import { fewestMoves } from '../pair/index.ts'
import type { Left } from '../template/index.ts'
import type { BlockBase } from './base.ts'
import { bodyOf, type Bodies } from './bodies.ts'
import type { Decision, FieldStep } from './mergeCase.ts'
import type { NextBlock } from './nextBase.ts'
import { spliced, type Splice } from './splices.ts'

/** A block as the template wants it in one page. */
export interface WantedBlock {
  key: string
  /** How it is left to the instructor: what they wrote is theirs, whatever becomes of the prompt or the proposal. */
  left: Left['as'] | null
  /** Of what is asked for piece by piece: what stands beside the answer and is the template's. */
  stays: readonly string[]
  /** Whether it is advice that the instructor takes out. */
  isGuidance: boolean
  /** What the spots within its sentences say until they are filled in, as HTML. */
  spots: readonly string[]
  /** Whether an altered one is restored where that is asked for. */
  isFixed: boolean
  /** Between its markers, links as they are written to the platform. */
  written: string
  /** Inner HTML as it is kept for the next merge. */
  kept: string
  /** Inner HTML with the platform's own addresses of what stands there: what a page holds that is exactly the template's. */
  asItStands: string
  /** Whether it leads to a part that is only made now: where the same was sent before, that led to one that is gone. */
  leadsAnew: boolean
  /** Forms of it that count as unchanged when they were sent before. */
  unchangedAs: readonly string[]
}

export interface PageMergeInput {
  wanted: readonly WantedBlock[]
  /** Blocks as last deployed, in their order; null for a page that is adopted. */
  base: readonly BlockBase[] | null
  /** Id of the page as the platform gave it back, if all of it was ours then. */
  ours: string | null
  present: string | null
  /** Whether what it says cannot be seen: nothing is written then. */
  isUntold: boolean
  bodies: Bodies
  decide: (field: string) => Decision | null
  restoreFixed: boolean
  chosen: (block: string) => boolean
}

export interface PageMerge {
  /** The page to write; null: it stays as it is. */
  html: string | null
  steps: FieldStep[]
  blocks: NextBlock[]
  /** Whether all of the page is ours afterwards. */
  ours: boolean
}

const madeAgain = 'leads to what is made again'

/** What the base says stood in a block, and what stands there now. `unsure`: something stands where it would stand. */
type BlockState =
  | { state: 'untouched' | 'touched'; region: BlockRegion }
  | { state: 'removed' | 'doubtful' | 'unsure'; region: null }

/**
 * Merges a page block by block, as splices by source offset: bytes outside the blocks that change stay as they are. A page
 * that is wholly as we left it is written anew.
 */
export const mergePage = (input: PageMergeInput): PageMerge => {
  const { wanted, base, ours, present, bodies, decide, restoreFixed, chosen } = input
  const known = new Map((base ?? []).map((block) => [block.key, block]))
  const wantedKeys = new Set(wanted.map((block) => block.key))
  const unchanged = (block: WantedBlock): boolean =>
    block.unchangedAs.some((html) => bodies.idOf(html) === known.get(block.key)?.sent)
  const surviving = (base ?? []).filter((block) => wantedKeys.has(block.key))
  const place = new Map(wanted.map((block, i) => [block.key, i]))
  const moved = new Set(
    fewestMoves(surviving.map((block) => place.get(block.key) ?? 0)).flatMap(
      (i) => surviving[i]?.key ?? [],
    ),
  )
  const asks = (block: WantedBlock): boolean =>
    chosen(block.key) &&
    (!known.has(block.key) ||
      !unchanged(block) ||
      block.leadsAnew ||
      moved.has(block.key) ||
      (restoreFixed && block.isFixed))
  const gone = (base ?? []).filter((block) => !wantedKeys.has(block.key) && chosen(block.key))
  if (!wanted.some(asks) && gone.length === 0)
    return {
      html: null,
      steps: [],
      blocks: (base ?? []).map((block) => ({ ...block, fresh: false })),
      ours: ours !== null && present !== null && bodies.idOf(present) === ours,
    }

  const sentOf = (key: string): string | null => {
    const block = known.get(key)
    return block ? bodyOf(bodies, block.sent) : null
  }
  if (input.isUntold) {
    const stays = (key: string, to: string | null): FieldStep =>
      step(key, 'keep', sentOf(key), null, to, null, 'the page cannot be seen; it stays as it is')
    return {
      html: null,
      steps: [
        ...wanted.filter(asks).map(({ key, kept }) => stays(key, kept)),
        ...gone.map(({ key }) => stays(key, null)),
      ],
      blocks: (base ?? []).map((block) => ({ ...block, fresh: false })),
      ours: ours !== null,
    }
  }
  const fresh = (block: WantedBlock): NextBlock => ({
    key: block.key,
    sent: bodies.idOf(block.kept),
    page: null,
    fresh: true,
  })
  const isOurs =
    present === null ? surviving.length === 0 : ours !== null && bodies.idOf(present) === ours
  if (isOurs && [...wantedKeys, ...known.keys()].every(chosen)) {
    const steps = [
      ...wanted
        .filter((block) => !known.has(block.key) || !unchanged(block) || block.leadsAnew)
        .map((block) =>
          step(
            block.key,
            'change',
            sentOf(block.key),
            sentOf(block.key),
            block.kept,
            block.kept,
            !known.has(block.key)
              ? 'new in the template'
              : unchanged(block)
                ? madeAgain
                : 'changed in the template; it is as it was deployed',
          ),
        ),
      ...gone.map((block) =>
        step(
          block.key,
          'change',
          sentOf(block.key),
          sentOf(block.key),
          null,
          null,
          'no longer in the template; it is as it was deployed',
        ),
      ),
      ...[...moved]
        .filter((key) => known.has(key))
        .map((key) =>
          step(
            key,
            'change',
            'its place',
            'its place',
            'another place',
            'another place',
            'moved in the template',
          ),
        ),
    ]
    if (steps.length === 0)
      return {
        html: null,
        steps,
        blocks: (base ?? []).map((block) => ({ ...block, fresh: false })),
        ours: true,
      }
    return {
      html: wanted.map((block) => block.written).join('\n'),
      steps,
      blocks: wanted.map(fresh),
      ours: true,
    }
  }

  const page = present ?? ''
  const lookedFor =
    base === null
      ? wanted.map(({ key, kept }) => ({ key, html: kept }))
      : base.map(({ key }) => ({ key, html: sentOf(key) ?? '' }))
  // Where nothing is put in or moved, only the blocks that change need to be found.
  const putsIn =
    base === null ||
    moved.size > 0 ||
    wanted.some((block) => chosen(block.key) && !known.has(block.key))
  const needed = putsIn
    ? null
    : new Set([...wanted.filter(asks).map((block) => block.key), ...gone.map((block) => block.key)])
  const now = blockRegions(page, lookedFor, needed)
  const pagesOfBase = new Map<string, { html: string; found: BlockRegions }>()
  const basePage = (id: string) => {
    let read = pagesOfBase.get(id)
    if (!read) {
      const html = bodyOf(bodies, id)
      pagesOfBase.set(id, (read = { html, found: blockRegions(html, lookedFor, needed) }))
    }
    return read
  }
  const inside = (html: string, { inner }: BlockRegion): string => html.slice(inner.from, inner.to)
  const standingOf = (key: string): BlockState => {
    if (now.doubtful.has(key)) return { state: 'doubtful', region: null }
    const region = now.regions.get(key)
    if (!region) return { state: 'removed', region: null }
    if (!region.sure) return { state: 'unsure', region: null }
    // Equal words are not enough: a link may lead elsewhere, an image be described in other words. What was never seen in a
    // page, or is not found in the one it was seen in, is somebody's own until shown otherwise.
    const seenIn = known.get(key)?.page ?? null
    const then = seenIn === null ? null : basePage(seenIn)
    const thenRegion = then?.found.regions.get(key)
    if (!then || !thenRegion?.sure) return { state: 'touched', region }
    const before = inside(then.html, thenRegion)
    const after = inside(page, region)
    return {
      state: before === after || normalHtml(before) === normalHtml(after) ? 'untouched' : 'touched',
      region,
    }
  }

  const saysExactly = (block: WantedBlock, there: string | null): boolean =>
    there !== null && standsAsSent(byFileName(there), byFileName(block.asItStands))
  const steps: FieldStep[] = []
  const splices: Splice[] = []
  const next = new Map<string, NextBlock>()
  const anchored = (key: string): BlockRegion | undefined =>
    moved.has(key) || now.doubtful.has(key) ? undefined : now.regions.get(key)
  /** After the nearest block before it that stands; else before the nearest after it; else at the end. */
  const insertAt = (index: number): number => {
    for (let i = index - 1; i >= 0; i--) {
      const region = anchored(wanted[i]?.key ?? '')
      if (region) return region.outer.to
    }
    for (let i = index + 1; i < wanted.length; i++) {
      const region = anchored(wanted[i]?.key ?? '')
      if (region) return region.outer.from
    }
    return page.length
  }
  const insert = (index: number, text: string) => {
    const at = insertAt(index)
    splices.push({ from: at, to: at, text: `\n${text}` })
  }
  wanted.forEach((block, index) => {
    const { key } = block
    const before = known.get(key)
    if (before) next.set(key, { ...before, fresh: false })
    if (!asks(block)) return
    const standing = standingOf(key)
    const there = standing.region ? inside(page, standing.region) : null
    const told = (
      does: FieldStep['does'],
      result: unknown,
      reason: string,
      decided: Decision | null = null,
    ) => steps.push(step(key, does, sentOf(key), there, block.kept, result, reason, decided))
    const write = (): void => {
      if (!standing.region) insert(index, block.written)
      else if (moved.has(key)) {
        splices.push({ ...standing.region.outer, text: '' })
        insert(index, block.written)
      } else splices.push({ ...standing.region.outer, text: block.written })
      next.set(key, fresh(block))
    }
    const settle = (reason: string): void => {
      const decided = decide(`block:${key}`)
      if (decided === 'take') {
        write()
        told('conflict', block.kept, reason, decided)
      } else if (decided === 'both') {
        const at = standing.region?.outer.to ?? page.length
        splices.push({ from: at, to: at, text: `\n${block.written}` })
        next.set(key, fresh(block))
        told('conflict', `${there ?? ''}\n${block.kept}`, reason, decided)
      } else {
        if (decided === 'keep')
          next.set(key, {
            key,
            sent: bodies.idOf(block.kept),
            page: before?.page ?? null,
            fresh: false,
          })
        told('conflict', there, reason, decided)
      }
    }
    /** Writes it with what was filled into the spots of its sentences, which stays somebody's own. @returns whether that can be done */
    const refill = (stands: string | null): boolean => {
      const sent = sentOf(key)
      const region = standing.region
      if (!region || stands === null || sent === null || block.spots.length === 0 || moved.has(key))
        return false
      const text = refilled(sent, stands, block.written, block.spots)
      if (text === null) return false
      splices.push({ ...region.outer, text })
      next.set(key, { key, sent: bodies.idOf(block.kept), page: null, fresh: false })
      return true
    }
    if (!before && base !== null) {
      write()
      told('change', block.kept, 'new in the template')
      return
    }
    const looksOtherwise = before !== undefined && sameButForLook(sentOf(key) ?? '', block.kept)
    /** What is written there stays as it looks, and that is not asked about again. */
    const keepLook = (): void => {
      if (before) next.set(key, { ...before, sent: bodies.idOf(block.kept), fresh: false })
      told('keep', there, looksStay)
    }
    const isHidden = standing.state === 'doubtful' || standing.state === 'unsure'
    if (isHidden && looksOtherwise && !unchanged(block) && !moved.has(key)) return keepLook()
    if (standing.state === 'unsure' && block.left && before && !moved.has(key))
      return void told('keep', null, stayed[block.left])
    if (isHidden)
      return void told(
        'leave',
        there,
        'it cannot be told where it stands now; the page is left as it is',
      )
    if (!before) {
      if (standing.state === 'removed' && block.isGuidance) return void next.set(key, fresh(block))
      if (standing.state === 'removed') return settle('the page that was here does not have it')
      const isOurs = saysExactly(block, there)
      if (!isOurs && !block.left && !standing.region?.asLookedFor() && !isRefilled(block, there))
        return settle('the page that was here says something else')
      // What is not exactly the template's is theirs, and no later version writes over it.
      next.set(key, isOurs ? fresh(block) : { ...fresh(block), fresh: false })
      told(
        'agree',
        there,
        standing.region?.asLookedFor()
          ? 'is there already'
          : block.left === 'proposed'
            ? 'is there in other words'
            : 'is filled in',
      )
      return
    }
    if (unchanged(block)) {
      if (restoreFixed && block.isFixed && standing.state !== 'untouched') {
        write()
        told(
          'restore',
          block.kept,
          standing.state === 'removed'
            ? 'fixed text that was removed; brought back, as asked'
            : 'fixed text that was altered; restored, as asked',
        )
      } else if (block.leadsAnew && standing.state === 'untouched') {
        write()
        told('change', block.kept, madeAgain)
      } else if (moved.has(key) && standing.region) {
        splices.push({ ...standing.region.outer, text: '' })
        insert(index, page.slice(standing.region.outer.from, standing.region.outer.to))
        told('change', there, 'moved in the template')
      }
      return
    }
    if (standing.state === 'removed')
      return void told('keep', null, 'was removed from the page; stays removed')
    if (standing.state === 'untouched') {
      write()
      told('change', block.kept, 'changed in the template; it is as it was deployed')
    } else if (saysExactly(block, there)) {
      next.set(key, fresh(block))
      told('agree', there, 'says what the template says now')
    } else if (looksOtherwise) {
      if (refill(there)) told('change', block.kept, spotsStay)
      else keepLook()
    } else if (block.left)
      told(
        saysAll(there ?? '', block.stays) ? 'keep' : 'leave',
        there,
        saysAll(there ?? '', block.stays) ? stayed[block.left] : besideAnswer,
      )
    else if (refill(there)) told('change', block.kept, spotsStay)
    else settle('changed in the template and in the course')
  })
  for (const block of gone) {
    const standing = standingOf(block.key)
    if (standing.state === 'untouched') {
      splices.push({ ...standing.region.outer, text: '' })
      steps.push(
        step(
          block.key,
          'change',
          sentOf(block.key),
          inside(page, standing.region),
          null,
          null,
          'no longer in the template; it is as it was deployed',
        ),
      )
    } else if (standing.state !== 'removed') {
      next.set(block.key, { ...block, fresh: false })
      const there = standing.region ? inside(page, standing.region) : null
      steps.push(
        step(
          block.key,
          'leave',
          sentOf(block.key),
          there,
          null,
          there,
          'no longer in the template, but edited here; it stays',
        ),
      )
    }
  }
  for (const block of base ?? [])
    if (!wantedKeys.has(block.key) && !chosen(block.key))
      next.set(block.key, { ...block, fresh: false })
  const order = [...wanted.map((block) => block.key), ...(base ?? []).map((block) => block.key)]
  return {
    html: splices.length === 0 ? null : spliced(page, splices),
    steps,
    blocks: [...new Set(order)].flatMap((key) => next.get(key) ?? []),
    ours: isOurs,
  }
}

const stayed: Readonly<Record<Left['as'], string>> = {
  asked: 'the prompt changed in the template; the answer stays',
  proposed: 'the proposal changed in the template; what was written in its place stays',
}
const besideAnswer =
  'what stands beside the answer changed in the template; the answer stays, and what stands beside it has to be put right by hand'

/** Whether every one of these paragraphs stands in the HTML. */
const saysAll = (html: string, paragraphs: readonly string[]): boolean => {
  const standing = paragraphs.length === 0 ? [] : analysePage(html).paragraphs
  return paragraphs.every((words) => standing.some(({ text }) => sameText(text, words)))
}

const looksStay =
  'only its look changed in the template; what was written here stays, as it looks here'

const spotsStay = 'changed in the template; what was filled in within it stays'

/** Whether a block stands as it is wanted but for what was filled into the spots of its sentences. */
const isRefilled = ({ spots, asItStands }: WantedBlock, there: string | null): boolean =>
  there !== null &&
  spots.length > 0 &&
  refilled(byFileName(asItStands), byFileName(there), asItStands, spots) !== null

/** HTML whose images are named by their file alone: where a platform keeps its files is its own affair. */
const byFileName = (html: string): string =>
  html.replace(/\bsrc="(?:[^"]*[/:])?([^"/:]+)"/g, 'src="$1"')

const step = (
  key: string,
  does: FieldStep['does'],
  base: unknown,
  present: unknown,
  wanted: unknown,
  result: unknown,
  reason: string,
  decided: Decision | null = null,
): FieldStep => ({ field: `block:${key}`, does, base, present, wanted, result, decided, reason })
