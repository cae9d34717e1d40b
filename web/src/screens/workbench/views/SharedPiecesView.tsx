import { Link } from 'react-router'
import {
  imageData,
  blockInPlace,
  everyItem,
  questionsShowing,
  showsImage,
  type Block,
  type Item,
  type KeptBlock,
  type Template,
} from '@wickerframe/core'
import { templateListOf, type SharedKind } from '@wickerframe/contract'
import { Button, plural } from '../../../controls/controls.tsx'
import { TextLine } from '../../../controls/typed.tsx'
import { placesOfFile } from '../files/fileEdits.ts'
import { SharedFiles } from './SharedFiles.tsx'
import { useDraftStore } from '../draftStore.ts'
import { PutIntoLibrary, TakeFromLibrary } from '../LibraryMenu.tsx'
import { blockTitle } from '../page/blockWords.ts'
import type { PageSources } from '../page/pageSources.ts'
import { RichText } from '../page/RichText.tsx'

/** What the template takes from the library or shows in several places. */
export const SharedPiecesView = ({
  template,
  sources,
}: {
  template: Template
  sources: PageSources
}) => {
  const { edit, mayEdit } = useDraftStore()
  const blocks: readonly Block[] = [
    ...template.home.blocks,
    ...everyItem(template).flatMap((item) => item.blocks),
  ]
  const uses = (kind: SharedKind, key: string): number => {
    const placed = blocks.flatMap((block) => {
      const found = blockInPlace(block, template.keptBlocks)
      return found ? [found] : []
    })
    switch (kind) {
      case 'house-text':
        return placed.filter((block) => block.kind === 'house-text' && block.houseText === key)
          .length
      case 'image': {
        const asset = template.assets.find((asset) => asset.key === key)
        const asked = (item: Item) => (asset ? questionsShowing(item, asset) : 0)
        return asset
          ? everyItem(template).reduce(
              (sum, item) => sum + asked(item),
              placed.filter((block) => showsImage(block, asset)).length,
            )
          : 0
      }
      case 'file':
        return placesOfFile(template, key)
      case 'rubric':
        return everyItem(template).filter((item) => item.settings.rubric === key).length
      case 'block':
        return blocks.filter((block) => block.kind === 'kept-block' && block.kept === key).length
    }
  }
  const set = (field: string[], was: unknown, value: unknown) =>
    void edit({ edit: 'set-field', part: null, field, was: was ?? null, value: value ?? null })
  const usedWords = (count: number) =>
    count === 0 ? 'shown nowhere' : `shown in ${plural(count, 'place')}`
  const removal = (kind: SharedKind, piece: { key: string }) =>
    mayEdit && uses(kind, piece.key) === 0 ? (
      <Button shape="word" onClick={() => set([templateListOf[kind], piece.key], piece, null)}>
        take out of the template
      </Button>
    ) : null
  const setKept = (kept: KeptBlock, more: Partial<KeptBlock>) =>
    set(['keptBlocks', kept.key], kept, { ...kept, ...more })
  return (
    <div className="mt-3 grid gap-6 lg:grid-cols-2">
      <section className="bg-sheet p-4">
        <h2 className="text-[18px]">House texts</h2>
        {template.houseTexts.length === 0 && (
          <p className="text-ink-2">
            None. A house text is kept centrally and shown in many courses: a policy, support
            contacts.
          </p>
        )}
        <ul className="divide-y divide-line">
          {template.houseTexts.map((text) => (
            <li key={text.key} className="flex flex-wrap items-baseline gap-3 py-1.5">
              <span className="font-semibold">{text.title}</span>
              <span className="text-ink-2">
                {text.form}, revision {text.revisions.at(-1)?.number};{' '}
                {usedWords(uses('house-text', text.key))}
              </span>
              {removal('house-text', text)}
            </li>
          ))}
        </ul>
        <p className="text-ink-2">
          Their words are corrected in the{' '}
          <Link className="text-tide underline" to="/library">
            library
          </Link>
          .
        </p>
        <TakeFromLibrary template={template} kind="house-text" />
      </section>
      <section className="bg-sheet p-4">
        <h2 className="text-[18px]">Images</h2>
        {template.assets.length === 0 && <p className="text-ink-2">None yet.</p>}
        <ul className="grid gap-2">
          {template.assets.map((asset) => (
            <li key={asset.key} className="flex gap-3">
              <img
                src={imageData(asset)}
                alt={asset.alternativeText}
                className="h-14 w-28 border border-line object-cover"
              />
              <span>
                <span className="block">{asset.alternativeText}</span>
                <span className="block text-[12.5px] text-ink-2">
                  {asset.licence}; {usedWords(uses('image', asset.key))}
                </span>
                {removal('image', asset)}
              </span>
            </li>
          ))}
        </ul>
        <TakeFromLibrary template={template} kind="image" />
      </section>
      <SharedFiles template={template} />
      <section className="bg-sheet p-4 lg:col-span-2">
        <h2 className="text-[18px]">Kept blocks</h2>
        <p className="text-ink-2">
          A block that stands in several places and is corrected in one: here. Keep one with “keep
          for other places” on a page; put it in elsewhere with “Add a block”.
        </p>
        {template.keptBlocks.map((kept) => (
          <details key={kept.key} className="border-t border-line py-2">
            <summary className="cursor-pointer">
              <span className="font-semibold">{kept.title}</span>{' '}
              <span className="text-ink-3">
                {blockTitle(kept.block.kind).toLowerCase()}; {usedWords(uses('block', kept.key))}
              </span>
            </summary>
            <fieldset disabled={!mayEdit} className="grid gap-2 py-2">
              <TextLine
                label="Called"
                value={kept.title}
                onDone={(title) => title.trim() !== '' && setKept(kept, { title })}
              />
              {'html' in kept.block ? (
                <RichText
                  label={kept.title}
                  html={kept.block.html}
                  sources={sources}
                  disabled={!mayEdit}
                  onPage
                  onDone={(html) =>
                    setKept(kept, { block: { ...kept.block, html } as KeptBlock['block'] })
                  }
                />
              ) : kept.block.kind === 'fill-in' ? (
                <TextLine
                  label="Prompt"
                  value={kept.block.prompt}
                  onDone={(prompt) =>
                    prompt.trim() !== '' &&
                    setKept(kept, { block: { ...kept.block, prompt } as KeptBlock['block'] })
                  }
                />
              ) : (
                <p className="text-ink-2">
                  To change it, put it in on a page, make it that page’s own, correct it, and keep
                  it again.
                </p>
              )}
              <span className="flex gap-4">
                <PutIntoLibrary put={{ kind: 'block', was: null, document: kept }} />
                {removal('block', kept)}
              </span>
            </fieldset>
          </details>
        ))}
        <TakeFromLibrary template={template} kind="block" />
      </section>
    </div>
  )
}
