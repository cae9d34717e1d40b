import {
  blockKind,
  blockName,
  homeElements,
  leftAs,
  strengths,
  waysToLeave,
  type Block,
  type Left,
  type Template,
} from '@wickerframe/core'
import { Button, Pick } from '../../../controls/controls.tsx'
import { Tick } from '../../../controls/typed.tsx'
import type { BlockActs } from './blockActs.ts'

/** What a block is on a home page where nothing is said of it. */
const wordsOfNone = (block: Block): string => {
  const shown = block.kind === 'kept-block' ? [] : (blockKind(block.kind).shows?.(block) ?? [])
  return shown.length > 0
    ? `by itself the ${shown.map((element) => element.replaceAll('-', ' ')).join(' and the ')}`
    : 'no required element'
}

/** How strongly a block is wanted, and on the home page which of its elements it is. */
export const BlockStrength = ({
  block,
  acts,
  isHome,
  above,
}: {
  block: Block
  acts: BlockActs
  isHome: boolean
  /** Whether it comes from the layer above. */
  above: boolean
}) => (
  <>
    <Pick
      inline
      label=""
      aria-label={`Strength of ${blockName(block)}`}
      value={block.strength}
      onChange={(event) => acts.set(block.key, 'strength', block.strength, event.target.value)}
      options={strengths.map((strength) => ({ value: strength, text: strength }))}
    />
    {isHome && !above && (
      <Pick
        inline
        label=""
        aria-label={`Which element ${blockName(block)} is`}
        value={block.element ?? ''}
        onChange={(event) =>
          acts.set(block.key, 'element', block.element, event.target.value || null)
        }
        options={[
          { value: '', text: wordsOfNone(block) },
          ...homeElements.map((element) => ({
            value: element,
            text: element.replaceAll('-', ' '),
          })),
        ]}
      />
    )}
  </>
)

/** What is made from the course cannot stand as it was written. */
const isMade = ({ kind }: Block): boolean => kind === 'contact-card' || kind === 'schedule'

const leftWords: Readonly<Record<Left['as'], string>> = {
  proposed: 'may be reworded',
  asked: 'is asked for',
}

/** Whether a block stands as it is written, or is left to the instructor, and how. Nothing for a kind that cannot be. */
export const BlockLeft = ({ block, acts }: { block: Block; acts: BlockActs }) => {
  const ways = waysToLeave(block.kind)
  if (ways.length === 0) return null
  return (
    <Pick
      inline
      label=""
      aria-label={`How ${blockName(block)} is left to the instructor`}
      value={leftAs(block) ?? ''}
      onChange={(event) =>
        acts.leave(block.key, ways.find((way) => way === event.target.value) ?? null)
      }
      options={[
        { value: '', text: isMade(block) ? 'asks nothing' : 'stands as written' },
        ...ways.map((way) => ({ value: way, text: leftWords[way] })),
      ]}
    />
  )
}

/** Kinds that have a ground of their own by themselves, or are a picture. */
const neverCards: ReadonlySet<Block['kind']> = new Set([
  'banner',
  'contact-card',
  'in-short',
  'take-care',
])

/** Where a block stands on its page, and on what ground. */
export const BlockLook = ({
  block,
  template,
  acts,
}: {
  block: Block
  template: Template
  acts: BlockActs
}) => (
  <>
    <Tick
      label="beside the text"
      checked={block.beside === true}
      onChange={(on) => acts.set(block.key, 'beside', block.beside, on || null)}
    />
    {template.houseStyle && !neverCards.has(block.kind) && (
      <Tick
        label="on a card"
        checked={block.card === true}
        onChange={(on) => acts.set(block.key, 'card', block.card, on || null)}
      />
    )}
  </>
)

/** What can be done with a block as a whole. */
export const BlockTools = ({
  block,
  index,
  count,
  mayJoin,
  acts,
  onDone,
  onRemoved,
}: {
  block: Block
  index: number
  count: number
  /** Whether the one above is a text of the same kind. */
  mayJoin: boolean
  acts: BlockActs
  /** Told which block to look at then; null: none is left. */
  onDone: (block: string | null) => void
  onRemoved?: () => void
}) => {
  const tool = (words: string, does: () => string | null, disabled = false) => (
    <Button
      shape="word"
      disabled={disabled}
      onClick={() => {
        const next = does()
        if (next !== null) onDone(next)
      }}
    >
      {words}
    </Button>
  )
  return (
    <>
      {tool('up', () => acts.moveTo(block.key, index - 1), index === 0)}
      {tool('down', () => acts.moveTo(block.key, index + 1), index === count - 1)}
      {tool('duplicate', () => acts.duplicate(block.key))}
      {mayJoin && tool('join with the one above', () => acts.join(block.key, new Map()))}
      {block.kind === 'kept-block'
        ? tool('make it this page’s own', () => acts.loosen(block.key))
        : tool('keep for other places', () => acts.keep(block.key))}
      <Button
        shape="word"
        onClick={() => {
          const removed = acts.remove(block.key)
          if (!removed) return
          onDone(removed.next)
          onRemoved?.()
        }}
      >
        remove
      </Button>
    </>
  )
}
