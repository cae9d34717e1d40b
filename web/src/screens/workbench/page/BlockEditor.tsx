import { useState } from 'react'
import {
  everyObjective,
  fillInTypes,
  freshKey,
  homeElements,
  homePageKey,
  strengths,
  type Block,
  type KeptBlockBody,
  type Objective,
  type Template,
} from '@wickerframe/core'
import { Button, Pick } from '../../../controls/controls.tsx'
import { NumberLine, TextLine, TextLines, Tick } from '../../../controls/typed.tsx'
import { useDraftStore } from '../draftStore.ts'
import { FormatField, FormatText } from '../FormatField.tsx'
import { blockTitle } from './blockWords.ts'
import type { PageSources } from './pageSources.ts'
import { RichText } from './RichText.tsx'

interface BodyProps {
  block: Block
  template: Template
  sources: PageSources
  headingBefore: number
  disabled: boolean
  set: (field: string, was: unknown, value: unknown) => void
}

const TitleLine = ({ text, onDone }: { text: string; onDone: (text: string) => void }) => {
  const [open, setOpen] = useState(false)
  return open ? (
    <FormatField
      label="Title"
      value={text}
      onCancel={() => setOpen(false)}
      onDone={(now) => {
        setOpen(false)
        if (now !== text) onDone(now)
      }}
    />
  ) : (
    <button
      type="button"
      className="w-full border border-line px-2 py-1 text-left"
      onClick={() => setOpen(true)}
    >
      <FormatText format={text} />
    </button>
  )
}

/** Objectives with what each serves. */
export const ObjectiveLines = ({
  objectives,
  wider,
  prefix,
  onDone,
}: {
  objectives: readonly Objective[]
  wider: readonly { key: string; text: string }[]
  prefix: string
  onDone: (objectives: Objective[]) => void
}) => {
  const change = (key: string, more: Partial<Objective>) =>
    onDone(objectives.map((one) => (one.key === key ? { ...one, ...more } : one)))
  return (
    <ol className="grid list-decimal gap-2 pl-5">
      {objectives.map((one, i) => (
        <li key={one.key}>
          <TextLine
            label={`Objective ${i + 1}`}
            value={one.text}
            onDone={(text) => text.trim() !== '' && change(one.key, { text: text.trim() })}
          />
          <span className="flex flex-wrap gap-x-3 text-[12.5px] text-ink-2">
            serves {wider.length === 0 ? 'nothing yet; add course outcomes first' : ''}
            {wider
              .filter((other) => other.key !== one.key)
              .map((other) => (
                <Tick
                  key={other.key}
                  label={other.text}
                  checked={one.serves.includes(other.key)}
                  onChange={(checked) =>
                    change(one.key, {
                      serves: checked
                        ? [...one.serves, other.key]
                        : one.serves.filter((key) => key !== other.key),
                    })
                  }
                />
              ))}
          </span>
          {objectives.length > 1 && (
            <Button
              shape="word"
              onClick={() => onDone(objectives.filter((other) => other.key !== one.key))}
            >
              take out objective {i + 1}
            </Button>
          )}
        </li>
      ))}
      <li className="list-none">
        <Button
          shape="word"
          onClick={() =>
            onDone([
              ...objectives,
              {
                key: freshKey(prefix, new Set(objectives.map((one) => one.key))),
                text: 'objective, beginning with a verb you could test',
                serves: [],
              },
            ])
          }
        >
          add an objective
        </Button>
      </li>
    </ol>
  )
}

const Body = ({ block, template, sources, headingBefore, disabled, set }: BodyProps) => {
  const rich = (field: string, label: string, html: string) => (
    <RichText
      key={field}
      label={label}
      html={html}
      sources={sources}
      headingBefore={headingBefore}
      disabled={disabled}
      onDone={(now) => set(field, html, now)}
    />
  )
  const lineOf = (field: string, label: string, value: string | undefined, hint?: string) => (
    <TextLine
      label={label}
      value={value ?? ''}
      {...(hint ? { hint } : {})}
      onDone={(now) => set(field, value, now || null)}
    />
  )
  const written = (field: string, label: string, html: string) => (
    <div>
      <p className="text-ink-2">{label}</p>
      {rich(field, label, html)}
    </div>
  )
  const heading = (value: string) => (
    <TextLine label="Heading above it" value={value} onDone={(now) => set('label', value, now)} />
  )
  const partOptions = sources.parts.map((part) => ({ value: part.key, text: part.name }))
  switch (block.kind) {
    case 'fixed-text':
    case 'guidance-note':
    case 'take-care':
    case 'in-short':
      return rich('html', blockTitle(block.kind), block.html)
    case 'fill-in':
      return (
        <div className="grid gap-2">
          {lineOf('label', 'Heading above it', block.label)}
          <TextLines
            label="Prompt: what stands there until it is filled in"
            rows={2}
            value={block.prompt}
            onDone={(prompt) => prompt.trim() !== '' && set('prompt', block.prompt, prompt)}
          />
          {lineOf('hint', 'Hint, shown beside it on the instructor’s desk', block.hint)}
          <div className="flex flex-wrap items-end gap-3">
            <Pick
              label="Wants"
              value={block.type}
              onChange={(event) => set('type', block.type, event.target.value)}
              options={fillInTypes.map((one) => ({ value: one, text: one.replace('-', ' ') }))}
            />
            <Pick
              label="Answered"
              value={block.scope}
              onChange={(event) => set('scope', block.scope, event.target.value)}
              options={[
                { value: 'place', text: 'in this place' },
                { value: 'course', text: 'once for the whole course' },
              ]}
            />
            <NumberLine
              label="Words at least"
              least={1}
              most={5000}
              value={block.minWords}
              onDone={(value) => set('minWords', block.minWords, value)}
            />
            <NumberLine
              label="at most"
              least={1}
              most={5000}
              value={block.maxWords}
              onDone={(value) => set('maxWords', block.maxWords, value)}
            />
          </div>
          {(template.extends || block.answer !== undefined) && (
            <div>
              <p className="text-ink-2">Answered by this layer; the instructor is not asked then</p>
              {block.answer === undefined ? (
                <Button shape="word" onClick={() => set('answer', null, '<p></p>')}>
                  answer it here
                </Button>
              ) : (
                <>
                  {rich('answer', 'Answer', block.answer)}
                  <Button shape="word" onClick={() => set('answer', block.answer, null)}>
                    leave it to the instructor
                  </Button>
                </>
              )}
            </div>
          )}
        </div>
      )
    case 'house-text':
      return (
        <div className="flex flex-wrap gap-3">
          <Pick
            label="Shows"
            value={block.houseText}
            onChange={(event) => set('houseText', block.houseText, event.target.value)}
            options={template.houseTexts.map((one) => ({ value: one.key, text: one.title }))}
          />
          <Pick
            label="Put in"
            value={block.mode}
            onChange={(event) => set('mode', block.mode, event.target.value)}
            options={[
              { value: 'copied', text: 'copied: current after its rollout' },
              { value: 'linked', text: 'linked: current at once' },
            ]}
          />
        </div>
      )
    case 'title':
      return <TitleLine text={block.text} onDone={(text) => set('text', block.text, text)} />
    case 'banner':
      return (
        <Pick
          label="Shows"
          value={block.image}
          onChange={(event) => set('image', block.image, event.target.value)}
          options={template.assets.map((one) => ({
            value: one.key,
            text: `${one.fileName}: ${one.alternativeText}`,
          }))}
        />
      )
    case 'signposts':
      return (
        <div className="grid gap-2">
          {lineOf('label', 'Heading above it', block.label)}
          {block.links.map((link, i) => (
            <div key={i} className="flex flex-wrap items-end gap-2">
              <TextLine
                label="Says"
                value={link.text}
                onDone={(text) =>
                  text.trim() !== '' &&
                  set(
                    'links',
                    block.links,
                    block.links.map((one, j) => (j === i ? { ...one, text } : one)),
                  )
                }
              />
              <Pick
                label="leads to"
                className="min-w-0 [&>select]:max-w-48"
                value={link.to}
                onChange={(event) =>
                  set(
                    'links',
                    block.links,
                    block.links.map((one, j) =>
                      j === i ? { ...one, to: event.target.value } : one,
                    ),
                  )
                }
                options={partOptions}
              />
              {block.links.length > 1 && (
                <Button
                  shape="word"
                  onClick={() =>
                    set(
                      'links',
                      block.links,
                      block.links.filter((_, j) => j !== i),
                    )
                  }
                >
                  take out
                </Button>
              )}
            </div>
          ))}
          <Button
            shape="word"
            className="justify-self-start"
            onClick={() =>
              set('links', block.links, [
                ...block.links,
                { text: 'Go on', to: sources.parts[0]?.key ?? '' },
              ])
            }
          >
            add a signpost
          </Button>
        </div>
      )
    case 'work-list':
      return (
        <>
          {heading(block.label)}
          <p className="text-ink-2">Made from what its module holds, with links.</p>
        </>
      )
    case 'schedule':
      return (
        <>
          {heading(block.label)}
          <p className="text-ink-2">
            Made from the calendar: every week or unit with its dates, topic and what is due.
          </p>
        </>
      )
    case 'contact-card':
      return (
        <>
          {heading(block.label)}
          <p className="text-ink-2">
            Made from the roster: the instructors with their e-mail addresses.
          </p>
        </>
      )
    case 'key-dates':
      return (
        <div className="flex flex-wrap gap-3">
          {heading(block.label)}
          <Pick
            label="Shows"
            value={block.of}
            onChange={(event) => set('of', block.of, event.target.value)}
            options={[
              { value: 'module', text: 'what is due in its module' },
              { value: 'term', text: 'the dates of the term' },
            ]}
          />
        </div>
      )
    case 'objectives':
      return (
        <div className="grid gap-2">
          {heading(block.label)}
          <ObjectiveLines
            objectives={block.objectives}
            prefix={block.key}
            wider={widerOf(template)}
            onDone={(objectives) => set('objectives', block.objectives, objectives)}
          />
        </div>
      )
    case 'checklist':
      return (
        <div className="grid gap-2">
          {heading(block.label)}
          <TextLines
            label="One line for each thing to tick off"
            value={block.lines.join('\n')}
            onDone={(text) => {
              const lines = text
                .split('\n')
                .map((line) => line.trim())
                .filter((line) => line !== '')
              if (lines.length > 0) set('lines', block.lines, lines)
            }}
          />
        </div>
      )
    case 'video':
      return (
        <div className="grid gap-2">
          <TextLine
            label="Title"
            value={block.title}
            onDone={(now) => now.trim() !== '' && set('title', block.title, now)}
          />
          <TextLine
            label="Address"
            value={block.url}
            onDone={(now) => set('url', block.url, now)}
          />
          <div className="flex flex-wrap items-end gap-3">
            <NumberLine
              label="Minutes"
              most={600}
              value={block.minutes}
              onDone={(value) => set('minutes', block.minutes, value)}
            />
            <Tick
              label="has captions"
              checked={block.captions}
              onChange={(checked) => set('captions', block.captions, checked)}
            />
          </div>
          {lineOf('transcript', 'Address of the transcript', block.transcript)}
        </div>
      )
    case 'reading':
      return (
        <div className="grid gap-2">
          {heading(block.label)}
          {block.works.map((work, i) => {
            const change = (more: object) =>
              set(
                'works',
                block.works,
                block.works.map((one, j) =>
                  j === i
                    ? Object.fromEntries(
                        Object.entries({ ...one, ...more }).filter(([, value]) => value !== null),
                      )
                    : one,
                ),
              )
            return (
              <div key={i} className="flex flex-wrap items-end gap-2">
                <TextLine
                  label="What, with its pages"
                  className="grow"
                  value={work.text}
                  onDone={(text) => text.trim() !== '' && change({ text })}
                />
                <TextLine
                  label="Address"
                  value={work.url ?? ''}
                  onDone={(url) => change({ url: url || null })}
                />
                <NumberLine
                  label="Minutes"
                  most={6000}
                  value={work.minutes}
                  onDone={(minutes) => change({ minutes })}
                />
                {block.works.length > 1 && (
                  <Button
                    shape="word"
                    onClick={() =>
                      set(
                        'works',
                        block.works,
                        block.works.filter((_, j) => j !== i),
                      )
                    }
                  >
                    take out
                  </Button>
                )}
              </div>
            )
          })}
          <Button
            shape="word"
            className="justify-self-start"
            onClick={() =>
              set('works', block.works, [...block.works, { text: 'What to read, with its pages' }])
            }
          >
            add a work
          </Button>
        </div>
      )
    case 'assignment-brief':
      return (
        <div className="grid gap-2">
          {written('why', 'Why you do it', block.why)}
          {written('whatToDo', 'What to do', block.whatToDo)}
          {written('handIn', 'What to hand in', block.handIn)}
          {written('judged', 'How it is judged', block.judged)}
        </div>
      )
    case 'discussion-prompt':
      return (
        <div className="grid gap-2">
          {written('question', 'The question', block.question)}
          <div className="flex flex-wrap items-end gap-3">
            {lineOf(
              'firstBy',
              'Write first by',
              block.firstBy,
              'fields may stand here, e.g. {due, EEEE}',
            )}
            <NumberLine
              label="Classmates to answer"
              most={20}
              value={block.answers}
              onDone={(value) => set('answers', block.answers, value ?? 0)}
            />
            {lineOf('answersBy', 'by', block.answersBy)}
          </div>
        </div>
      )
    case 'table':
      return (
        <TableLines caption={block.caption} header={block.header} rows={block.rows} set={set} />
      )
    case 'kept-block': {
      const kept = template.keptBlocks.find((one) => one.key === block.kept)
      return (
        <>
          <Pick
            label="Shows"
            value={block.kept}
            onChange={(event) => set('kept', block.kept, event.target.value)}
            options={template.keptBlocks.map((one) => ({ value: one.key, text: one.title }))}
          />
          <p className="mt-1 text-ink-2">
            {kept
              ? `A ${blockTitle(kept.block.kind).toLowerCase()}; corrected under Shared pieces, and everywhere at once.`
              : ''}
          </p>
        </>
      )
    }
  }
}

const TableLines = ({
  caption,
  header,
  rows,
  set,
}: {
  caption: string
  header: readonly string[]
  rows: readonly string[][]
  set: BodyProps['set']
}) => {
  const lines = [header, ...rows].map((row) => row.join(' | ')).join('\n')
  return (
    <div className="grid gap-2">
      <TextLine
        label="What the table shows"
        value={caption}
        onDone={(now) => set('caption', caption, now)}
      />
      <TextLines
        label="One line a row, cells apart by |; the first line are the headers"
        value={lines}
        onDone={(now) => {
          const [first = [], ...others] = now
            .split('\n')
            .filter((line) => line.trim() !== '')
            .map((line) => line.split('|').map((cell) => cell.trim()))
          const wide = first.length
          if (wide === 0) return
          const fitted = others.map((row) => Array.from({ length: wide }, (_, i) => row[i] ?? ''))
          if (wide === header.length) {
            if (first.join('|') !== header.join('|')) set('header', header, first)
            if (JSON.stringify(fitted) !== JSON.stringify(rows)) set('rows', rows, fitted)
          } else {
            // Rows and headers must agree at every step.
            set('rows', rows, [])
            set('header', header, first)
            if (fitted.length > 0) set('rows', [], fitted)
          }
        }}
      />
    </div>
  )
}

/** What objectives of a page may serve: those of modules, and course outcomes. */
const widerOf = (template: Template) => everyObjective(template).filter((one) => one.of !== 'page')

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
    const title = `${blockTitle(block.kind)} of ${part}`
    const key = freshKey(`${part}-${block.key}`, new Set(template.keptBlocks.map((one) => one.key)))
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
    const kept = template.keptBlocks.find((one) => one.key === block.kept)
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
            aria-label={`Strength of ${block.key}`}
            value={block.strength}
            onChange={(event) => set('strength', block.strength, event.target.value)}
            options={strengths.map((one) => ({ value: one, text: one }))}
          />
          {part === homePageKey && !above && (
            <Pick
              inline
              label=""
              aria-label={`Which element ${block.key} is`}
              value={block.element ?? ''}
              onChange={(event) => set('element', block.element, event.target.value || null)}
              options={[
                { value: '', text: 'no required element' },
                ...homeElements.map((one) => ({ value: one, text: one.replaceAll('-', ' ') })),
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
            block={block}
            template={template}
            sources={sources}
            headingBefore={headingBefore}
            disabled={!mayEdit || above}
            set={set}
          />
        </fieldset>
      </fieldset>
    </li>
  )
}
