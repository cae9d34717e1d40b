import { DndContext } from '@dnd-kit/core'
import { useMemo, useRef, useState, type KeyboardEvent } from 'react'
import {
  blockHtmlOn,
  blockInPlace,
  blockName,
  designedHtml,
  homePageKey,
  newBlock,
  notBeside,
  type Block,
  type ExpectedPart,
  type Remark,
  type Template,
} from '@wickerframe/core'
import { Button } from '../../../controls/controls.tsx'
import { FileRemarks } from '../../../controls/DropFiles.tsx'
import { readImageFile } from '../../../controls/imageFile.ts'
import { Menu } from '../../../controls/menu.tsx'
import { useHandouts } from '../../../controls/useHandouts.ts'
import { useDraftStore } from '../draftStore.ts'
import { useSaid } from '../useSaid.tsx'
import { blockActs } from './blockActs.ts'
import { isTextBlock, mayJoin } from './blockEdits.ts'
import { BlockLeft, BlockLook, BlockStrength, BlockTools } from './BlockTools.tsx'
import { blockMenu, blockTitle } from './blockWords.ts'
import { mayBeWorded, type FromAbove } from './fromAbove.ts'
import { nothingOffered, withOffered } from './fromLibrary.ts'
import { headingsBefore } from './headingsBefore.ts'
import { PageBlock, type BlockState } from './PageBlock.tsx'
import type { PageSources } from './pageSources.ts'
import { isPicture, picturesAmong } from './pastedIn.ts'
import { PictureForm, type NewPicture } from './PictureForm.tsx'
import type { AmongOthers, Begin } from './RichText.tsx'
import { usePageDrag } from './usePageDrag.ts'
import { useSourceOf } from './useSourceOf.ts'

/** What is put in most, one press away; all others stand in the list after them. */
const atHand: readonly Block['kind'][] = [
  'fixed-text',
  'title',
  'fill-in',
  'objectives',
  'reading',
  'video',
  'work-list',
  'key-dates',
  'table',
  'house-text',
  'guidance-note',
]

/** Which block is looked at, and whether it is written in. */
interface Chosen {
  key: string
  /** Where the cursor stands in it; null: it is not written in. */
  begin: Begin | null
  /** How often something was chosen: focus goes there each time. */
  times: number
}

/** A page written at full width: its blocks under one another as students will see them, each edited where it stands. */
export const WrittenPage = ({
  part,
  blocks,
  expected,
  course,
  template,
  sources,
  above,
  remarks,
  today,
}: {
  part: string
  blocks: readonly Block[]
  expected: ExpectedPart | null
  /** The course it is worked out for, as people call it; null: none. */
  course: string | null
  template: Template
  sources: PageSources
  above: FromAbove
  remarks: readonly Remark[]
  today: string
}) => {
  const mayEdit = useDraftStore((store) => store.mayEdit)
  const undo = useDraftStore((store) => store.undo)
  const redo = useDraftStore((store) => store.redo)
  const [chosen, setChosen] = useState<Chosen | null>(null)
  const { said, say } = useSaid()
  /** Why what was dropped was not taken. */
  const [refused, setRefused] = useState<string | null>(null)
  /** Pictures that wait to be described, and how many were asked about before them. */
  const [dropped, setDropped] = useState<{
    after: string | null
    pictures: NewPicture[]
    asked: number
  } | null>(null)
  const list = useRef<HTMLUListElement>(null)
  const { library = nothingOffered } = sources
  const acts = useMemo(() => blockActs(part, library), [part, library])
  const choice = useMemo(() => withOffered(template, library), [template, library])
  const sourceOf = useSourceOf(template.assets)
  const levels = useMemo(() => headingsBefore(blocks, expected), [blocks, expected])
  const shown = useMemo(
    () =>
      blocks.map((block) => {
        const placed = blockInPlace(block, template.keptBlocks)
        const designed = placed && designedHtml(placed, template)
        const inCourse = expected?.blocks.find(({ key }) => key === block.key)
        // Every block has a row of its own here, with what stands beside it on the page said in the margin.
        return designed === null
          ? {
              html: inCourse ? notBeside(blockHtmlOn(inCourse, today)) : '',
              isMade: placed !== null,
            }
          : { html: notBeside(designed), isMade: false }
      }),
    [blocks, template, expected, today],
  )
  const keys = blocks.map(({ key }) => key)
  const choose = (key: string | null, begin: Begin | null = null) => {
    setChosen((before) => (key === null ? null : { key, begin, times: (before?.times ?? 0) + 1 }))
    setRefused(null)
  }
  /** A text is gone into where the cursor came from; anything else is looked at. */
  const go = (key: string | undefined, begin: Begin) => {
    const block = blocks.find((other) => other.key === key)
    if (block) choose(block.key, isTextBlock(block) && mayBeWorded(block, above) ? begin : null)
  }
  const add = (kind: Block['kind'], at: number) => {
    const key = acts.add(kind, at)
    if (key !== null) choose(key, 'all')
  }
  const placeAfter = chosen ? keys.indexOf(chosen.key) + 1 || blocks.length : blocks.length
  const remove = (block: Block) => {
    const removed = acts.remove(block.key)
    if (!removed) return
    choose(removed.next)
    say(`Removed ${blockName(block)}.`)
  }
  const { dropping, handlers } = usePageDrag(list, keys, (key, at) => {
    if (acts.moveTo(key, at) !== null) choose(key)
  })
  /** Below which block files were dropped that are on their way; null: at the end. */
  const landing = useRef<string | null>(null)
  const handouts = useHandouts((kept) => choose(acts.addDocuments(kept, landing.current)))
  const takeDropped = async (files: readonly File[], after: string | null) => {
    const documents = files.filter((file) => !isPicture(file))
    if (documents.length > 0) {
      landing.current = after
      void handouts.take(documents)
    }
    const { pictures } = picturesAmong(files)
    const taken: NewPicture[] = []
    const wrong: string[] = []
    for (const picture of pictures) {
      const content = await readImageFile(picture.file)
      if (typeof content === 'string') wrong.push(content)
      else taken.push({ content, alternativeText: '' })
    }
    setRefused(wrong.length > 0 ? wrong.join(' ') : null)
    if (taken.length === 0) return
    // Those that wait already keep their place and what is said of them so far.
    setDropped((before) =>
      before
        ? { ...before, pictures: [...before.pictures, ...taken] }
        : { after, pictures: taken, asked: 0 },
    )
  }
  const pressed = (block: Block, index: number, event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return
    const own = mayEdit && !above.has(block.key)
    const command = event.ctrlKey || event.metaKey
    const at = (next: number) => choose(keys[Math.max(0, Math.min(keys.length - 1, next))] ?? null)
    const move = (to: number) => own && acts.moveTo(block.key, to) !== null && choose(block.key)
    const does: Readonly<Record<string, () => unknown>> = command
      ? {
          z: () => (event.shiftKey ? redo() : undo()),
          y: redo,
          d: () => own && choose(acts.duplicate(block.key)),
          Enter: () => mayEdit && add('fixed-text', index + 1),
        }
      : event.altKey
        ? { ArrowUp: () => move(index - 1), ArrowDown: () => move(index + 1) }
        : {
            ArrowUp: () => at(index - 1),
            ArrowDown: () => at(index + 1),
            Home: () => at(0),
            End: () => at(keys.length - 1),
            Enter: () => mayOpen(block) && choose(block.key, 'end'),
            F2: () => mayOpen(block) && choose(block.key, 'end'),
            Delete: () => own && remove(block),
            Backspace: () => own && remove(block),
          }
    const act = does[event.key]
    if (!act) return
    event.preventDefault()
    event.stopPropagation()
    act()
  }
  const mayOpen = (block: Block) => mayEdit && mayBeWorded(block, above)
  const amongOf = (block: Block, index: number, begin: Begin): AmongOthers => ({
    begin,
    onLeave: (to) => {
      if (to === 'frame') choose(block.key)
      else go(keys[to === 'above' ? index - 1 : index + 1], to === 'above' ? 'end' : 'start')
    },
    onSplit: (halves) => {
      const key = acts.split(block.key, halves)
      if (key !== null) choose(key, 'start')
    },
    onJoin: () => {
      const upper = blocks[index - 1]
      const html = upper && isTextBlock(upper) ? upper.html : ''
      const key = acts.join(block.key, above)
      if (key !== null) choose(key, { after: html })
    },
  })
  const putIn = (label: string, at: number) => (
    <Menu label={label} shape="word" groups={blockMenu(choice)} onPick={(kind) => add(kind, at)} />
  )
  const [firstDropped] = dropped?.pictures ?? []
  const pictureForm = dropped && firstDropped && (
    <PictureForm
      key={dropped.asked}
      sources={sources}
      came={firstDropped}
      more={dropped.pictures.length - 1}
      onPut={(picture) => {
        const at = dropped.after === null ? blocks.length : keys.indexOf(dropped.after) + 1
        const key = acts.addPicture(picture, at)
        const rest = dropped.pictures.slice(1)
        setDropped(
          rest.length === 0
            ? null
            : { after: key ?? dropped.after, pictures: rest, asked: dropped.asked + 1 },
        )
        if (rest.length === 0) choose(key)
      }}
      onClose={() => {
        const rest = dropped.pictures.slice(1)
        setDropped(
          rest.length === 0 ? null : { ...dropped, pictures: rest, asked: dropped.asked + 1 },
        )
      }}
    />
  )
  return (
    // What is dropped beside the blocks comes to the end of the page; the browser would leave for it.
    <div
      onDragOver={(event) => event.dataTransfer.types.includes('Files') && event.preventDefault()}
      onDrop={(event) => {
        const files = [...event.dataTransfer.files]
        if (event.defaultPrevented || files.length === 0) return
        event.preventDefault()
        if (mayEdit) void takeDropped(files, null)
      }}
    >
      {mayEdit && (
        <div
          role="toolbar"
          aria-label="Put in"
          className="my-2 flex flex-wrap items-baseline gap-x-4 border-y border-line py-1"
        >
          <span className="text-ink-2">Put in</span>
          {atHand.map((kind) => (
            <Button
              key={kind}
              shape="word"
              disabled={newBlock(kind, 'x', choice) === null}
              onClick={() => add(kind, placeAfter)}
            >
              {blockTitle(kind).toLowerCase()}
            </Button>
          ))}
          {putIn('more', placeAfter)}
        </div>
      )}
      {said}
      {handouts.sending !== null && (
        <p role="status" className="my-1 border-l-4 border-slate bg-band px-3 py-1">
          {handouts.sending} is being brought in …
        </p>
      )}
      <FileRemarks wrong={handouts.wrong} remarks={handouts.remarks} />
      {refused !== null && (
        <p role="status" className="my-1 border-l-4 border-rust bg-rust-soft px-3 py-1">
          {refused}
        </p>
      )}
      <DndContext {...handlers}>
        <ul
          ref={list}
          className="page-rows"
          aria-label="The page"
          data-read-only={mayEdit ? undefined : ''}
        >
          {blocks.map((block, index) => {
            const isChosen = chosen?.key === block.key
            const begin = isChosen ? chosen.begin : null
            const state: BlockState = !isChosen ? 'rest' : begin === null ? 'chosen' : 'open'
            const told = remarks.filter((remark) => remark.block === block.key)
            const own = mayEdit && !above.has(block.key)
            return (
              <PageBlock
                key={block.key}
                block={block}
                html={shown[index]?.html ?? ''}
                state={state}
                focus={isChosen ? chosen.times : 0}
                among={amongOf(block, index, begin ?? 'end')}
                isTabStop={chosen ? isChosen : index === 0}
                above={above.has(block.key)}
                mayOpen={mayOpen(block)}
                mayEdit={mayEdit}
                made={
                  shown[index]?.isMade === true
                    ? course === null
                      ? 'made from the course'
                      : `made from ${course}`
                    : null
                }
                template={template}
                sources={sources}
                sourceOf={sourceOf}
                headingBefore={levels[index] ?? 2}
                acts={acts}
                onOpen={(at) => choose(block.key, at)}
                onClose={() => choose(block.key)}
                onKey={(event) => pressed(block, index, event)}
                onFiles={(files) => void takeDropped(files, block.key)}
                beside={
                  <>
                    {told.map((remark) => (
                      <p key={remark.check + remark.message} className="page-remark">
                        {remark.message}
                      </p>
                    ))}
                    {isChosen && mayEdit && (
                      <fieldset className="flex flex-wrap items-center gap-x-3 border-l-2 border-tide pl-3">
                        <BlockStrength
                          block={block}
                          acts={acts}
                          isHome={part === homePageKey}
                          above={above.has(block.key)}
                        />
                        {mayOpen(block) && <BlockLeft block={block} acts={acts} />}
                        {own && <BlockLook block={block} template={template} acts={acts} />}
                        {own && (
                          <BlockTools
                            block={block}
                            index={index}
                            count={blocks.length}
                            mayJoin={mayJoin(blocks, index, above)}
                            acts={acts}
                            onDone={(next) => next !== block.key && choose(next)}
                            onRemoved={() => say(`Removed ${blockName(block)}.`)}
                          />
                        )}
                      </fieldset>
                    )}
                  </>
                }
                below={
                  <>
                    {isChosen && mayEdit && (
                      <div className="page-between">{putIn('put something here', index + 1)}</div>
                    )}
                    {dropping?.before === index + 1 && <div className="page-drop" />}
                    {dropped?.after === block.key && pictureForm}
                  </>
                }
              />
            )
          })}
        </ul>
      </DndContext>
      {blocks.length === 0 && (
        <p className="py-4 text-ink-2">
          The page is empty. Put in fixed text that must stay, or a fill-in for the instructor; or
          paste a page you have into a fixed text.
        </p>
      )}
      {dropped?.after === null && pictureForm}
    </div>
  )
}
