import type { Block, ExpectedPart, Template } from '@wickerframe/core'
import { Menu } from '../../../controls/menu.tsx'
import { useDraftStore } from '../draftStore.ts'
import { blockActs } from './blockActs.ts'
import { BlockEditor } from './BlockEditor.tsx'
import { mayJoin } from './blockEdits.ts'
import { blockMenu } from './blockWords.ts'
import { mayBeWorded, type FromAbove } from './fromAbove.ts'
import { nothingOffered, withOffered } from './fromLibrary.ts'
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
  const { mayEdit } = useDraftStore()
  const levels = headingsBefore(blocks, expected)
  const offered = sources.library ?? nothingOffered
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
        <Menu
          label="Add a block"
          className="mt-3"
          groups={blockMenu(withOffered(template, offered))}
          onPick={(kind) => blockActs(part, offered).add(kind, blocks.length)}
        />
      )}
    </>
  )
}
