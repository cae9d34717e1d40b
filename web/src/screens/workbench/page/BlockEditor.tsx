import type { ComponentType } from 'react'
import {
  blockName,
  freshKey,
  homeElements,
  homePageKey,
  strengths,
  type Block,
  type KeptBlockBody,
  type Template,
} from '@wickerframe/core'
import { Button, Pick } from '../../../controls/controls.tsx'
import { useDraftStore } from '../draftStore.ts'
import type { BlockEditing } from './blocks/editing.tsx'
import { blockEditors } from './blocks/editors.ts'
import { blockTitle } from './blockWords.ts'
import type { PageSources } from './pageSources.ts'

/** What the block says, in the editor of its kind. */
const Body = <Kind extends Block['kind']>({
  kind,
  editing,
}: {
  kind: Kind
  editing: BlockEditing<Kind>
}) => {
  const Editor: ComponentType<BlockEditing<Kind>> = blockEditors[kind]
  return <Editor {...editing} />
}

/** One block of a page, as the designer edits it. */
export const BlockEditor = ({
  part,
  block,
  index,
  count,
  template,
  sources,
  headingBefore,
  above,
}: {
  part: string
  block: Block
  index: number
  count: number
  template: Template
  sources: PageSources
  headingBefore: number
  above: boolean
}) => {
  const { edit, mayEdit } = useDraftStore()
  const set = (field: string, was: unknown, value: unknown) =>
    void edit({
      edit: 'set-block',
      part,
      block: block.key,
      field,
      was: was ?? null,
      value: value ?? null,
    })
  const keep = () => {
    if (block.kind === 'kept-block') return
    const page = sources.parts.find((candidate) => candidate.key === part)?.name ?? 'a page'
    const title = `${blockTitle(block.kind)} of ${page}`
    const key = freshKey(
      `${part}-${block.key}`,
      new Set(template.keptBlocks.map((block) => block.key)),
    )
    const { element, basis, ...bare } = block
    const place: Block = {
      kind: 'kept-block',
      key: block.key,
      strength: block.strength,
      kept: key,
      ...(element ? { element } : {}),
      ...(basis ? { basis } : {}),
    }
    edit(
      {
        edit: 'set-field',
        part: null,
        field: ['keptBlocks', key],
        was: null,
        value: { key, title, block: bare satisfies KeptBlockBody },
      },
      { edit: 'remove-block', part, block: block.key },
      { edit: 'add-block', part, at: index, block: place },
    )
  }
  const loosen = () => {
    if (block.kind !== 'kept-block') return
    const kept = template.keptBlocks.find(({ key }) => key === block.kept)
    if (kept)
      edit(
        { edit: 'remove-block', part, block: block.key },
        {
          edit: 'add-block',
          part,
          at: index,
          block: { ...kept.block, key: block.key, strength: block.strength },
        },
      )
  }
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
          <Pick
            inline
            label=""
            aria-label={`Strength of ${blockName(block)}`}
            value={block.strength}
            onChange={(event) => set('strength', block.strength, event.target.value)}
            options={strengths.map((strength) => ({ value: strength, text: strength }))}
          />
          {part === homePageKey && !above && (
            <Pick
              inline
              label=""
              aria-label={`Which element ${blockName(block)} is`}
              value={block.element ?? ''}
              onChange={(event) => set('element', block.element, event.target.value || null)}
              options={[
                { value: '', text: 'no required element' },
                ...homeElements.map((element) => ({
                  value: element,
                  text: element.replaceAll('-', ' '),
                })),
              ]}
            />
          )}
          {!above && (
            <span className="ml-auto flex flex-wrap gap-3">
              <Button
                shape="word"
                disabled={index === 0}
                onClick={() => edit({ edit: 'move-block', part, block: block.key, at: index - 1 })}
              >
                up
              </Button>
              <Button
                shape="word"
                disabled={index === count - 1}
                onClick={() => edit({ edit: 'move-block', part, block: block.key, at: index + 1 })}
              >
                down
              </Button>
              {block.kind === 'kept-block' ? (
                <Button shape="word" onClick={loosen}>
                  make it this page’s own
                </Button>
              ) : (
                <Button shape="word" onClick={keep}>
                  keep for other places
                </Button>
              )}
              <Button
                shape="word"
                onClick={() => edit({ edit: 'remove-block', part, block: block.key })}
              >
                remove
              </Button>
            </span>
          )}
        </div>
        <fieldset disabled={above && block.kind !== 'fill-in'}>
          <Body
            kind={block.kind}
            editing={{ block, template, sources, headingBefore, disabled: !mayEdit || above, set }}
          />
        </fieldset>
      </fieldset>
    </li>
  )
}
