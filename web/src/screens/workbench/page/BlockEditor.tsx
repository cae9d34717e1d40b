import { homePageKey, type Block, type Template } from '@wickerframe/core'
import { useMemo } from 'react'
import { useDraftStore } from '../draftStore.ts'
import { blockActs } from './blockActs.ts'
import { BlockBody } from './BlockBody.tsx'
import { BlockLeft, BlockLook, BlockStrength, BlockTools } from './BlockTools.tsx'
import { blockTitle } from './blockWords.ts'
import { nothingOffered, withOffered } from './fromLibrary.ts'
import type { PageSources } from './pageSources.ts'

/** One block of a page in the slip, as the designer edits it. */
export const BlockEditor = ({
  part,
  block,
  index,
  count,
  mayJoin,
  template,
  sources,
  headingBefore,
  above,
  mayWord,
}: {
  part: string
  block: Block
  index: number
  count: number
  mayJoin: boolean
  template: Template
  sources: PageSources
  headingBefore: number
  above: boolean
  /** Whether what it says may be changed here. */
  mayWord: boolean
}) => {
  const { mayEdit } = useDraftStore()
  const { library } = sources
  const acts = useMemo(() => blockActs(part, library), [part, library])
  return (
    <li
      className={`border p-3 ${above ? 'border-line bg-band' : 'border-line bg-paper'}`}
      data-block={block.key}
    >
      <fieldset disabled={!mayEdit}>
        <div className="mb-2 flex flex-wrap items-center gap-x-3">
          <p className="font-semibold">
            {blockTitle(block.kind)}
            {above && <span className="font-normal text-ink-3"> · from above</span>}
          </p>
          <BlockStrength block={block} acts={acts} isHome={part === homePageKey} above={above} />
          {mayWord && <BlockLeft block={block} acts={acts} />}
          {!above && <BlockLook block={block} template={template} acts={acts} />}
          {!above && (
            <span className="ml-auto flex flex-wrap gap-3">
              <BlockTools
                block={block}
                index={index}
                count={count}
                mayJoin={mayJoin}
                acts={acts}
                onDone={() => undefined}
              />
            </span>
          )}
        </div>
        <fieldset disabled={!mayWord}>
          <BlockBody
            kind={block.kind}
            editing={{
              block,
              template: withOffered(template, library ?? nothingOffered),
              sources,
              headingBefore,
              disabled: !mayEdit || !mayWord,
              set: (field, was, value) => acts.set(block.key, field, was, value),
            }}
          />
        </fieldset>
      </fieldset>
    </li>
  )
}
