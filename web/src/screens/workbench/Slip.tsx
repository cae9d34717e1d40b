import { useState } from 'react'
import { Link } from 'react-router'
import { blockKinds, homePageKey, isModule, strengths, type Block, type ExpectedPart, type HouseText, type Item, type Module, type Template } from '@wickerframe/core'
import { Button, Choice, Pick } from '../../controls/controls.tsx'
import { useDraftStore } from './draftStore.ts'
import { benchAddress, FormatField, FormatText } from './FormatField.tsx'
import { OffsetLine } from './OffsetLine.tsx'
import { freshKey } from './outlineRows.ts'
import { Reading, type Reader } from './Reading.tsx'
import { RichText } from './RichText.tsx'

const kindWords: Record<Block['kind'], string> = {
  'fixed-text': 'Fixed text', 'fill-in': 'Fill-in', 'guidance-note': 'Guidance note', 'house-text': 'House text', title: 'Title', banner: 'Banner', signposts: 'Signposts', 'work-list': 'Work list',
}
/** The kinds that can be added here; banner, title, signposts and work lists come with the template. */
const addable = blockKinds.filter((kind): kind is 'fixed-text' | 'fill-in' | 'guidance-note' | 'house-text' => ['fixed-text', 'fill-in', 'guidance-note', 'house-text'].includes(kind))

const newBlock = (kind: (typeof addable)[number], key: string, houseTexts: readonly HouseText[]): Block => {
  const common = { key, strength: 'must' as const }
  switch (kind) {
    case 'fixed-text':
      return { ...common, kind, html: '<p>New fixed text.</p>' }
    case 'guidance-note':
      return { ...common, kind, html: '<p>Advice to the instructor.</p>' }
    case 'fill-in':
      return { ...common, kind, type: 'text', prompt: 'What should stand here?', scope: 'place', earlierPrompts: [] }
    case 'house-text':
      return { ...common, kind, houseText: houseTexts[0]?.key ?? '', mode: 'copied' }
  }
}

const TextLine = ({ label, value, onDone }: { label: string; value: string; onDone: (value: string) => void }) => {
  const [typed, setTyped] = useState(value)
  return (
    <label className="flex flex-col gap-0.5 text-ink-2">
      <span>{label}</span>
      <textarea rows={Math.min(4, 1 + Math.floor(typed.length / 60))} className="border border-line-strong bg-sheet px-2 py-1 text-ink" value={typed} onChange={(event) => setTyped(event.target.value)} onBlur={() => typed !== value && onDone(typed)} />
    </label>
  )
}

const BlockEditor = ({ part, block, index, count, template }: { part: string; block: Block; index: number; count: number; template: Template }) => {
  const { edit, mayEdit } = useDraftStore()
  const set = (field: string, was: unknown, value: unknown) => edit({ edit: 'set-block', part, block: block.key, field, was: was ?? null, value })
  const [formatOpen, setFormatOpen] = useState(false)
  return (
    <li className="border border-line bg-paper p-3">
      <fieldset disabled={!mayEdit}>
        <div className="mb-2 flex flex-wrap items-center gap-x-3">
          <p className="font-semibold">{kindWords[block.kind]}{block.element ? `, ${block.element.replaceAll('-', ' ')}` : ''}</p>
          <Pick inline label="" aria-label={`Strength of ${block.key}`} value={block.strength} onChange={(event) => set('strength', block.strength, event.target.value)} options={strengths.map((one) => ({ value: one, text: one }))} />
          <span className="ml-auto flex gap-3">
            <Button shape="word" disabled={index === 0} onClick={() => edit({ edit: 'move-block', part, block: block.key, at: index - 1 })}>up</Button>
            <Button shape="word" disabled={index === count - 1} onClick={() => edit({ edit: 'move-block', part, block: block.key, at: index + 1 })}>down</Button>
            <Button shape="word" onClick={() => edit({ edit: 'remove-block', part, block: block.key })}>remove</Button>
          </span>
        </div>
        {(block.kind === 'fixed-text' || block.kind === 'guidance-note') && <RichText label={kindWords[block.kind]} html={block.html} onDone={(html) => set('html', block.html, html)} />}
        {block.kind === 'fill-in' && (
          <div className="grid gap-2">
            <TextLine key={`label-${block.label}`} label="Label above it" value={block.label ?? ''} onDone={(value) => set('label', block.label, value || null)} />
            <TextLine key={`prompt-${block.prompt}`} label="Prompt: what stands there until it is filled in" value={block.prompt} onDone={(value) => set('prompt', block.prompt, value)} />
            <div className="flex gap-4">
              <Pick inline label="Answered" value={block.scope} onChange={(event) => set('scope', block.scope, event.target.value)} options={[{ value: 'place', text: 'in this place' }, { value: 'course', text: 'once for the whole course' }]} />
            </div>
          </div>
        )}
        {block.kind === 'house-text' && <Pick inline label="Shows" value={block.houseText} onChange={(event) => set('houseText', block.houseText, event.target.value)} options={template.houseTexts.map((one) => ({ value: one.key, text: one.title }))} />}
        {block.kind === 'title' && (formatOpen ? <FormatField label="Title" value={block.text} onCancel={() => setFormatOpen(false)} onDone={(text) => { setFormatOpen(false); if (text !== block.text) set('text', block.text, text) }} /> : <button type="button" className="w-full text-left" onClick={() => setFormatOpen(true)}><FormatText format={block.text} /></button>)}
        {block.kind === 'signposts' && <p className="text-ink-2">Leads to {block.links.map((one) => `“${one.text}”`).join(', ')}</p>}
        {block.kind === 'work-list' && <p className="text-ink-2">Made from what the module holds, with links.</p>}
        {block.kind === 'banner' && <p className="text-ink-2">{template.assets.find((one) => one.key === block.image)?.alternativeText}</p>}
      </fieldset>
    </li>
  )
}

export interface SlipPart {
  key: string
  definition: Item | Module | null
  blocks: readonly Block[]
}

/** The part that is open: its page as blocks, or as instructor or students will read it in the chosen course. */
export const Slip = ({ part, expected, template, today, timeZone, onClose }: { part: SlipPart; expected: ExpectedPart | null; template: Template; today: string; timeZone: string | null; onClose: () => void }) => {
  const { edit, mayEdit } = useDraftStore()
  const [reader, setReader] = useState<'designer' | Reader>('designer')
  const { definition } = part
  const isPage = part.key === homePageKey || (definition !== null && !isModule(definition) && definition.kind !== 'heading')
  const assets = new Map(template.assets.map((asset) => [asset.fileName, asset.svg]))
  const add = (kind: (typeof addable)[number]) => edit({ edit: 'add-block', part: part.key, at: part.blocks.length, block: newBlock(kind, freshKey(kind, new Set(part.blocks.map((one) => one.key))), template.houseTexts) })
  return (
    <aside aria-label="Slip" className="border-l border-line-strong bg-sheet p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-[18px]">{expected?.name ?? (part.key === homePageKey ? 'Home page' : (definition?.name ?? part.key))}</h2>
        <span className="flex items-center gap-4"><Link className="text-tide underline underline-offset-2" to={benchAddress(template.key, part.key)}>its names on the bench</Link><Button shape="word" onClick={onClose}>close</Button></span>
      </div>
      <p className="text-ink-2">
        {definition ? `${definition.kind}, ${definition.strength}` : 'the course’s home page'}
        {definition?.basis ? ` · rests on ${definition.basis}` : ''}
        {expected?.week ? ` · shown in week ${expected.week.number}` : ''}
      </p>
      {definition && (
        <div className="mt-2 flex flex-wrap gap-4">
          <Pick inline label="Seen by" disabled={!mayEdit} value={definition.audience} onChange={(event) => edit({ edit: 'set-field', part: part.key, field: ['audience'], was: definition.audience, value: event.target.value })} options={['students', 'staff', 'backstage'].map((one) => ({ value: one, text: one }))} />
          <Pick inline label="Place" disabled={!mayEdit} value={definition.position} onChange={(event) => edit({ edit: 'set-field', part: part.key, field: ['position'], was: definition.position, value: event.target.value })} options={['in-order', 'first', 'last', 'anywhere', 'newest-first'].map((one) => ({ value: one, text: one.replace('-', ' ') }))} />
        </div>
      )}
      {definition && (
        <div className="mt-2 grid gap-1">
          {([['opens', 'Opens', expected?.opensAt], ['due', 'Due', expected?.dueAt], ['closes', 'Shuts', expected?.closesAt]] as const).filter(([field]) => field === 'opens' || !isModule(definition)).map(([field, label, instant]) => (
            <OffsetLine key={`${field} ${JSON.stringify(definition.settings[field] ?? null)}`} label={label} value={definition.settings[field]} instant={instant ?? null} timeZone={timeZone} disabled={!mayEdit} onDone={(value) => edit({ edit: 'set-field', part: part.key, field: ['settings', field], was: definition.settings[field] ?? null, value })} />
          ))}
        </div>
      )}
      {isPage && (
        <>
          <div className="my-3 flex gap-2" role="group" aria-label="Read as">
            {(['designer', 'instructor', 'student'] as const).map((one) => <Choice key={one} pressed={reader === one} onClick={() => setReader(one)}>{one[0]?.toUpperCase()}{one.slice(1)}</Choice>)}
          </div>
          {reader === 'designer' ? (
            <>
              <ul className="grid gap-2">
                {part.blocks.map((block, index) => <BlockEditor key={block.key} part={part.key} block={block} index={index} count={part.blocks.length} template={template} />)}
              </ul>
              {part.blocks.length === 0 && <p className="py-2 text-ink-2">The page is empty. Add fixed text that must stay, or a fill-in for the instructor.</p>}
              {mayEdit && (
                <p className="mt-3 flex flex-wrap gap-3">
                  <span className="text-ink-2">Add</span>
                  {addable.filter((kind) => kind !== 'house-text' || template.houseTexts.length > 0).map((kind) => <Button key={kind} shape="word" onClick={() => add(kind)}>{kindWords[kind].toLowerCase()}</Button>)}
                </p>
              )}
            </>
          ) : expected ? (
            <Reading part={expected} reader={reader} onDate={today} assets={assets} />
          ) : (
            <p className="text-ink-2">Choose a course to work it out for; the part does not apply to this one.</p>
          )}
        </>
      )}
    </aside>
  )
}
