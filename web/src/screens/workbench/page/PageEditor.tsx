import { freshKey, newBlock, type Block, type ExpectedPart, type Template } from '@wickerframe/core'
import { Menu } from '../../../controls/menu.tsx'
import { useDraftStore } from '../draftStore.ts'
import { BlockEditor } from './BlockEditor.tsx'
import { mayJoin } from './blockEdits.ts'
import { blockMenu } from './blockWords.ts'
import { mayBeWorded, type FromAbove } from './fromAbove.ts'
import { headingsBefore } from './headingsBefore.ts'
import type { PageSources } from './pageSources.ts'

/** A page as blocks, each edited in place. */
export const PageEditor = ({
  part,
  blocks,
  expected,
  template,
  sources,
  above,
}: {
  part: string
  blocks: readonly Block[]
  expected: ExpectedPart | null
  template: Template
  sources: PageSources
  above: FromAbove
}) => {
  const { edit, mayEdit } = useDraftStore()
  const levels = headingsBefore(blocks, expected)
  const taken = new Set(blocks.map((block) => block.key))
  const add = (kind: Block['kind']) => {
    const block = newBlock(kind, freshKey(kind, taken), template)
    if (block) edit({ edit: 'add-block', part, at: blocks.length, block })
  }
  return (
    <>
      <ul className="grid grid-cols-[minmax(0,1fr)] gap-2">
        {blocks.map((block, index) => (
          <BlockEditor
            key={block.key}
            part={part}
            block={block}
            index={index}
            count={blocks.length}
            mayJoin={mayJoin(blocks, index, above)}
            template={template}
            sources={sources}
            headingBefore={levels[index] ?? 2}
            above={above.has(block.key)}
            mayWord={mayBeWorded(block, above)}
          />
        ))}
      </ul>
      {blocks.length === 0 && (
        <p className="py-2 text-ink-2">
          The page is empty. Add fixed text that must stay, or a fill-in for the instructor.
        </p>
      )}
      {mayEdit && (
        <Menu label="Add a block" className="mt-3" groups={blockMenu(template)} onPick={add} />
      )}
    </>
  )
}
