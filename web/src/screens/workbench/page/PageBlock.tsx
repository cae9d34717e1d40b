import { useDraggable } from '@dnd-kit/core'
import { useEffect, useRef, type KeyboardEvent, type ReactNode, type RefObject } from 'react'
import {
  blockName,
  designedHtml,
  leftAs,
  waysToLeave,
  type Block,
  type Template,
} from '@wickerframe/core'
import { Button } from '../../../controls/controls.tsx'
import type { BlockActs } from './blockActs.ts'
import { BlockBody } from './BlockBody.tsx'
import { isTextBlock } from './blockEdits.ts'
import { blockTitle } from './blockWords.ts'
import { PageHtml } from './PageHtml.tsx'
import { nothingOffered, withOffered } from './fromLibrary.ts'
import type { PageSources } from './pageSources.ts'
import { RichText, type AmongOthers } from './RichText.tsx'

/** At rest; looked at, with what can be done with it; or written in. */
export type BlockState = 'rest' | 'chosen' | 'open'

const leftDetail = (block: Block): string[] => {
  const way = leftAs(block)
  return way === null
    ? []
    : [way === 'asked' ? 'asked of the instructor' : 'the instructor may reword it']
}

/** What stands in the margin about a block besides its kind and strength. */
const detailsOf = (block: Block): string[] => {
  switch (block.kind) {
    case 'fill-in': {
      const { minWords, maxWords } = block
      const words =
        minWords !== undefined && maxWords !== undefined
          ? `${minWords} to ${maxWords} words`
          : minWords !== undefined
            ? `at least ${minWords} words`
            : maxWords !== undefined
              ? `at most ${maxWords} words`
              : null
      return [
        block.answer === undefined ? 'asked of the instructor' : 'answered by this layer',
        ...(words === null ? [] : [words]),
        ...(block.scope === 'course' ? ['once for the course'] : []),
      ]
    }
    case 'objectives': {
      const mapped = block.objectives.filter(({ serves }) => serves.length > 0).length
      return [`${mapped} of ${block.objectives.length} mapped to outcomes`, ...leftDetail(block)]
    }
    case 'house-text':
      return [block.mode]
    default:
      return leftDetail(block)
  }
}

/** How what stands in a block is told apart from fixed text. */
const surfaceOf = (block: Block): string => {
  switch (block.kind) {
    case 'fill-in':
      return block.answer === undefined ? 'page-asked' : ''
    case 'guidance-note':
      return 'page-note'
    case 'house-text':
      return 'page-house'
    default: {
      const way = leftAs(block)
      return way === null ? '' : `page-${way}`
    }
  }
}

/** What is written in the margin on the left: which kind of block, how strongly it is wanted. It can be dragged by it. */
const Margin = ({
  block,
  above,
  mayDrag,
  made,
}: {
  block: Block
  above: boolean
  mayDrag: boolean
  /** Of what it is made; null: it is written. */
  made: string | null
}) => {
  const { setNodeRef, listeners } = useDraggable({ id: block.key, disabled: !mayDrag })
  return (
    <div
      ref={setNodeRef}
      {...(mayDrag ? listeners : {})}
      className={`text-[12.5px] text-ink-3 lg:pt-1 lg:text-right ${mayDrag ? 'cursor-grab touch-none' : ''}`}
      title={mayDrag ? 'Drag it, or Alt with the arrows, to move it' : undefined}
    >
      <span className="font-semibold text-ink-2">{blockTitle(block.kind).toLowerCase()}</span> ·{' '}
      {block.strength}
      {[
        ...(above ? ['from above'] : []),
        ...(made === null ? [] : [made]),
        ...(block.beside ? ['beside the text'] : []),
        ...detailsOf(block),
      ].map((line) => (
        <span key={line} className="ml-2 lg:ml-0 lg:block">
          {line}
        </span>
      ))}
    </div>
  )
}

const fields = 'input, textarea, select, button, [contenteditable="true"], .prose-field'
/** An editor of rich text stands on the page a few frames after its place does. */
const framesWaited = 60

/** The first field of a form takes the cursor, as soon as it can. @returns what stops the waiting */
const focusFirstField = (form: RefObject<HTMLElement | null>): (() => void) => {
  let waiting = 0
  const take = (left: number) => {
    // Whoever went into another one meanwhile stays there.
    if (left < framesWaited && form.current?.contains(document.activeElement)) return
    const first = form.current?.querySelector<HTMLElement>(fields)
    if (first?.matches('.prose-field:not([contenteditable])') && left > 0)
      waiting = requestAnimationFrame(() => take(left - 1))
    else first?.focus()
  }
  take(framesWaited)
  return () => cancelAnimationFrame(waiting)
}

/** One block of a page at full width: what it is on the left, itself as students will see it, what is said of it on the right. */
export const PageBlock = ({
  block,
  html,
  state,
  focus,
  among,
  isTabStop,
  above,
  mayOpen,
  mayEdit,
  made,
  template,
  sources,
  sourceOf,
  headingBefore,
  acts,
  beside,
  below,
  onOpen,
  onClose,
  onKey,
  onFiles,
}: {
  block: Block
  /** As it is designed, or, where only a course can say, as it is there. */
  html: string
  state: BlockState
  /** Focus goes to it when this changes, where it is chosen. */
  focus: number
  /** Where it is written in: where the cursor begins, and what leaving it does. */
  among: AmongOthers
  isTabStop: boolean
  above: boolean
  /** Whether what it says may be changed here. */
  mayOpen: boolean
  mayEdit: boolean
  made: string | null
  template: Template
  sources: PageSources
  sourceOf: (name: string) => string | null
  headingBefore: number
  acts: BlockActs
  beside: ReactNode
  below: ReactNode
  onOpen: (at: { x: number; y: number } | 'all') => void
  onClose: () => void
  onKey: (event: KeyboardEvent) => void
  onFiles: (files: readonly File[]) => void
}) => {
  const frame = useRef<HTMLDivElement>(null)
  const form = useRef<HTMLFieldSetElement>(null)
  const isText = isTextBlock(block)
  useEffect(() => {
    if (state === 'chosen' && focus > 0) frame.current?.focus()
  }, [state, focus])
  // A text takes the cursor itself.
  useEffect(
    () => (state === 'open' && !isText ? focusFirstField(form) : undefined),
    [state, isText],
  )
  const set = (field: string, was: unknown, value: unknown) =>
    acts.set(block.key, field, was, value)
  const lead = isText ? designedHtml({ ...block, html: '' }, template) : null
  return (
    <li
      data-block={block.key}
      className="page-row"
      onDragOver={(event) => event.dataTransfer.types.includes('Files') && event.preventDefault()}
      onDrop={(event) => {
        const files = [...event.dataTransfer.files]
        // A text that is written in takes what is dropped into it itself.
        if (event.defaultPrevented || files.length === 0) return
        event.preventDefault()
        if (mayEdit) onFiles(files)
      }}
    >
      <Margin block={block} above={above} mayDrag={mayEdit && !above} made={made} />
      <div className="page-paper">
        {state === 'open' ? (
          <div
            role="group"
            aria-label={`${blockTitle(block.kind)}, being written`}
            className={`outline-2 outline-offset-6 outline-tide ${isText ? surfaceOf(block) : ''}`}
            onKeyDown={(event) => {
              if (event.key !== 'Escape' || isText) return
              event.stopPropagation()
              onClose()
            }}
          >
            {isText ? (
              <>
                {lead !== null && lead !== '' && (
                  <div className="page-text">
                    <PageHtml html={lead} sourceOf={sourceOf} />
                  </div>
                )}
                <RichText
                  label={blockTitle(block.kind)}
                  html={block.html}
                  sources={sources}
                  headingBefore={headingBefore}
                  spots={waysToLeave(block.kind).length > 0}
                  onPage
                  among={among}
                  onDone={(now) => set('html', block.html, now)}
                />
              </>
            ) : (
              <fieldset ref={form} disabled={!mayOpen} className="font-sans">
                <BlockBody
                  kind={block.kind}
                  editing={{
                    block,
                    template: withOffered(template, sources.library ?? nothingOffered),
                    sources,
                    headingBefore,
                    disabled: !mayOpen,
                    set,
                  }}
                />
                <Button
                  className="mt-2"
                  // The field that is left may make the form longer: the press would end beside the button.
                  onMouseDown={(event) => event.preventDefault()}
                  onClick={() => {
                    if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
                    onClose()
                  }}
                >
                  Done
                </Button>
              </fieldset>
            )}
          </div>
        ) : (
          <div
            ref={frame}
            role="group"
            aria-label={`${blockName(block)}, ${block.strength}${mayOpen ? '; Enter to write in it' : ''}`}
            tabIndex={isTabStop ? 0 : -1}
            className={`page-text ${surfaceOf(block)} ${mayOpen ? 'cursor-text' : ''} ${state === 'chosen' ? 'outline-2 outline-offset-6 outline-tide' : ''}`}
            onClick={(event) => mayOpen && onOpen({ x: event.clientX, y: event.clientY })}
            onKeyDown={onKey}
          >
            {html === '' ? (
              <p className="text-ink-3">{blockTitle(block.kind)}: nothing of it shows here</p>
            ) : (
              <PageHtml html={html} sourceOf={sourceOf} fields />
            )}
          </div>
        )}
        {below}
      </div>
      <div className="text-[12.5px]">{beside}</div>
    </li>
  )
}
