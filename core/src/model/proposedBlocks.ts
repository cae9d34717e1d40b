import type { Block } from '../template/index.ts'
import { parseFormat } from '../naming/index.ts'
import type { PageStretch } from './pageShape.ts'
import { keysApart, percent, short, type Proposing } from './proposing.ts'
import { workListMark } from './readModel.ts'

const saysGuidance = /^note to (?:the )?instructors?\b[.:]?/i

export const plainOf = (html: string): string =>
  html
    .replace(/<\/(li|p|tr|h\d)>/g, ' ')
    .replace(/<[^>]+>/g, '')
    .replace(/\s+/g, ' ')
    .trim()

/** Whether a heading is the title of its page: the first thing there, and sound as a naming format. */
export const isTitle = (text: string, level: number | null, isFirst: boolean): boolean =>
  isFirst && level !== null && level <= 2 && text.trim() !== '' && parseFormat(text).ok

const isHeading = (stretch: PageStretch | undefined): boolean =>
  stretch?.level !== null && stretch?.level !== undefined

/** A page that becomes blocks, stretch by stretch. */
interface Writing extends Proposing {
  /** Key of the part whose page it is, and what its repetitions are counted by. */
  part: string
  per: string
  blocks: Block[]
  blockKey: (name: string) => string
}

const fillInOf = ({ blockKey, per }: Writing, stretch: PageStretch): Block => ({
  kind: 'fill-in',
  key: blockKey(stretch.label || 'fill-in'),
  strength: stretch.support >= 0.8 ? 'must' : 'should',
  scope: 'place',
  earlierPrompts: [],
  type: stretch.kind,
  ...(stretch.label ? { label: short(stretch.label, 200) } : {}),
  prompt: short(
    stretch.html ||
      `What stands here in each ${per}${stretch.examples[0] ? `, such as “${short(stretch.examples[0], 80)}”` : ''}.`,
    1000,
  ),
})

const writeWorkList = (
  { blockKey, blocks }: Writing,
  stretch: PageStretch,
  over: PageStretch | undefined,
): void => {
  blocks.push({
    kind: 'work-list',
    key: blockKey('work-list'),
    strength: 'should',
    label: stretch.label || (over && isHeading(over) ? plainOf(over.html) : 'To do'),
  })
}

const writeGuidance = (
  { blockKey, blocks, part, propose }: Writing,
  html: string,
  support: number,
): void => {
  const key = blockKey('guidance')
  const accepted = propose({
    id: `text:${part}/${key}`,
    about: 'fixed-text',
    part,
    words: `guidance to the instructor “${short(plainOf(html))}”`,
    evidence: 'it is marked as a note to the instructor',
    support,
  })
  if (accepted) blocks.push({ kind: 'guidance-note', key, strength: 'must', html })
}

/** What varies is to be filled in; refused, it stands as in the first repetition. */
const writeFillIn = (writing: Writing, stretch: PageStretch): void => {
  const { blocks, part, propose } = writing
  const block = fillInOf(writing, stretch)
  const accepted = propose({
    id: `text:${part}/${block.key}`,
    about: 'fill-in',
    part,
    words: `to fill in${stretch.label ? `, under “${stretch.label}”` : ''}${stretch.html ? `: “${short(stretch.html)}”` : ''}`,
    evidence:
      stretch.examples.length > 0
        ? `it differs: ${stretch.examples.map((example) => `“${short(example, 60)}”`).join(', ')}`
        : 'it stands unfilled',
    support: stretch.support,
  })
  if (accepted) blocks.push(block)
  else if (stretch.examples[0])
    blocks.push({
      kind: 'fixed-text',
      key: block.key,
      strength: 'should',
      html: `<p>${stretch.examples[0].replaceAll('&', '&amp;').replaceAll('<', '&lt;')}</p>`,
    })
}

/** What recurs is fixed text, together with what stands right before it; refused, it is left to the instructor. */
const writeFixedText = (
  { blockKey, blocks, isRefused, part, propose }: Writing,
  stretch: PageStretch,
): void => {
  const text = plainOf(stretch.html)
  const key = blockKey('text')
  const accepted = propose({
    id: `text:${part}/${key}`,
    about: 'fixed-text',
    part,
    words: `fixed text “${short(text)}”`,
    evidence: `it recurs word for word in ${percent(stretch.support)}`,
    support: stretch.support,
  })
  const previous = blocks.at(-1)
  if (!accepted)
    blocks.push({
      kind: 'fill-in',
      key,
      strength: 'should',
      type: 'rich-text',
      scope: 'place',
      earlierPrompts: [],
      prompt: short(text || 'What should stand here?', 1000),
    })
  else if (previous?.kind === 'fixed-text' && !isRefused(`text:${part}/${previous.key}`))
    previous.html += stretch.html
  else blocks.push({ kind: 'fixed-text', key, strength: 'must', html: stretch.html })
}

/** The blocks that the recurring page of a part suggests. */
export const proposedBlocks = (
  proposing: Proposing,
  part: string,
  stretches: readonly PageStretch[],
  per: string,
): Block[] => {
  const writing: Writing = { ...proposing, part, per, blocks: [], blockKey: keysApart() }
  const skipped = new Set<PageStretch>()
  for (const [i, stretch] of stretches.entries()) {
    const next = stretches[i + 1]
    const isFixed = stretch.what === 'fixed'
    // The heading over a work list is the list’s own label.
    if (isFixed && isHeading(stretch) && next?.html === workListMark) continue
    if (stretch.html === workListMark) writeWorkList(writing, stretch, stretches[i - 1])
    else if (isFixed && saysGuidance.test(plainOf(stretch.html))) {
      const alone = plainOf(stretch.html).replace(saysGuidance, '').trim() === ''
      if (alone && next?.what === 'fixed' && next.level === null) skipped.add(next)
      writeGuidance(writing, alone && next ? next.html : stretch.html, stretch.support)
    } else if (skipped.has(stretch)) continue
    else if (!isFixed) writeFillIn(writing, stretch)
    else if (isTitle(plainOf(stretch.html), stretch.level, writing.blocks.length === 0))
      writing.blocks.push({
        kind: 'title',
        key: writing.blockKey('title'),
        strength: 'must',
        text: plainOf(stretch.html),
      })
    else writeFixedText(writing, stretch)
  }
  return writing.blocks
}
