import { useEffect, useRef, useState, type KeyboardEvent } from 'react'
import {
  emptyQuestion,
  everyItem,
  offeredQuestions,
  pointsOf,
  type Item,
  type Question,
  type QuestionBody,
  type QuestionKind,
  type QuestionSet,
  type Template,
} from '@wickerframe/core'
import { Button, Pick, plural } from '../../../controls/controls.tsx'
import { Menu } from '../../../controls/menu.tsx'
import { NumberLine, TextLine, Tick } from '../../../controls/typed.tsx'
import { useDraftStore } from '../draftStore.ts'
import type { PageSources } from '../page/pageSources.ts'
import { useSourceOf } from '../page/useSourceOf.ts'
import { ListOfQuestions } from './ListOfQuestions.tsx'
import { QuestionCard } from './QuestionCard.tsx'

/** A key that no question had before, in any version: courses know it by that. */
const newKey = (): string => `q-${crypto.randomUUID().slice(0, 13)}`

const nothing: QuestionSet = { list: [] }

/** What the questions come to, beside what the assessment is worth. */
const sumWords = ({ list, asked }: QuestionSet, points: number | undefined): string => {
  const sum = pointsOf(list.map(({ body }) => body))
  const more = asked ? `; at least ${asked.atLeast} more from the instructor` : ''
  const carried = points === undefined || points === sum ? '' : `; the assessment carries ${points}`
  return `${plural(list.length, 'question')}, ${plural(sum, 'point')}${more}${carried}`
}

/** The questions of an assessment: written one after another by keyboard, or taken from a list. */
export const QuestionsEditor = ({
  part,
  template,
  above,
  sources,
}: {
  part: Item
  template: Template
  /** Questions of the layer above, which stand as they are there. */
  above: readonly Question[]
  sources: PageSources
}) => {
  const { edit, mayEdit, undo, redo } = useDraftStore()
  const [open, setOpen] = useState<string | null>(null)
  const [isListed, setListed] = useState(false)
  const section = useRef<HTMLElement>(null)
  /** The question that has the focus once another one is gone. */
  const goTo = useRef<number | null>(null)
  useEffect(() => {
    if (goTo.current === null) return
    const stand = section.current?.querySelectorAll<HTMLElement>('[data-question]')
    const next =
      stand?.[goTo.current] ?? section.current?.querySelector<HTMLElement>('[data-add] button')
    next?.focus()
    goTo.current = null
  })
  const sourceOf = useSourceOf(template.assets)
  const { settings } = part
  const set = part.questions ?? nothing
  const { list, asked } = set
  /** As they stand now: an open one was written a moment ago. */
  const now = (): QuestionSet => {
    const { draft } = useDraftStore.getState()
    return everyItem(draft ?? template).find(({ key }) => key === part.key)?.questions ?? nothing
  }
  const write = (next: QuestionSet): boolean =>
    edit({
      edit: 'set-field',
      part: part.key,
      field: ['questions'],
      was: now() === nothing ? null : now(),
      value: next.list.length === 0 && !next.asked ? null : next,
    })
  const setting = (field: 'shuffled' | 'answersShown', value: unknown) =>
    edit({
      edit: 'set-field',
      part: part.key,
      field: ['settings', field],
      was: settings[field] ?? null,
      value,
    })
  /** Questions under keys of their own, after another one or at the end. */
  const add = (bodies: readonly QuestionBody[], after: string | null): void => {
    const questions = bodies.map((body): Question => ({ key: newKey(), body }))
    const before = now()
    const at =
      after === null ? before.list.length : before.list.findIndex(({ key }) => key === after) + 1
    if (
      write({ ...before, list: before.list.toSpliced(at, 0, ...questions) }) &&
      bodies.length === 1
    )
      setOpen(questions[0]?.key ?? null)
  }
  const move = (key: string, by: 1 | -1): void => {
    const { list: stand, ...others } = now()
    const at = stand.findIndex((question) => question.key === key)
    const question = stand[at]
    if (!question || at + by < 0 || at + by >= stand.length) return
    write({ ...others, list: stand.toSpliced(at, 1).toSpliced(at + by, 0, question) })
  }
  const remove = (key: string): void => {
    const before = now()
    const at = before.list.findIndex((question) => question.key === key)
    write({ ...before, list: before.list.filter((question) => question.key !== key) })
    setOpen(null)
    goTo.current = Math.max(0, at - 1)
  }
  /** On a question as a whole, what was done is taken back; within one, it is the field’s. */
  const onKeyDown = (event: KeyboardEvent) => {
    const key = event.key.toLowerCase()
    if (!(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y')) return
    if (!(event.target instanceof HTMLElement) || !event.target.matches('[data-question]')) return
    event.preventDefault()
    if (key === 'y' || event.shiftKey) redo()
    else undo()
  }
  return (
    <section
      ref={section}
      onKeyDown={onKeyDown}
      data-read-only={mayEdit ? undefined : ''}
      aria-label="Questions"
      className="mt-6 max-w-[920px] border-t border-line-strong pt-3"
    >
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-[18px]">Questions</h2>
        <p className="text-ink-2" role="status">
          {sumWords(set, settings.points)}
        </p>
      </div>
      {list.length === 0 && (
        <p className="max-w-[68ch] py-2 text-ink-2">
          None yet. Write the first one, or take a list from anywhere: a number, what is asked, and
          below it the answers with a star at the right ones.
        </p>
      )}
      <ol className="mt-2 grid gap-2">
        {list.map((question, i) => (
          <QuestionCard
            key={question.key}
            question={question}
            number={i + 1}
            isOpen={open === question.key}
            isFromAbove={above.some(({ key, left }) => key === question.key && !left)}
            disabled={!mayEdit}
            sources={sources}
            sourceOf={sourceOf}
            onOpen={(isOpen) => setOpen(isOpen ? question.key : null)}
            onDone={(next) =>
              edit({
                edit: 'set-field',
                part: part.key,
                field: ['questions', 'list', question.key],
                was: question,
                value: next,
              })
            }
            onNext={() => add([emptyQuestion(question.body.kind)], question.key)}
            onMove={(by) => move(question.key, by)}
            onRemove={() => remove(question.key)}
          />
        ))}
      </ol>
      <fieldset disabled={!mayEdit} className="mt-3 grid gap-3">
        <div data-add className="flex flex-wrap items-center gap-3">
          <Menu
            leads
            label="Add a question"
            groups={[
              { items: offeredQuestions.map(({ kind, title }) => ({ value: kind, text: title })) },
            ]}
            onPick={(kind) => add([emptyQuestion(kind as QuestionKind)], null)}
          />
          <Button onClick={() => setListed(true)}>Take questions from a list …</Button>
          <span className="text-ink-3">Ctrl Enter in a question adds the next one.</span>
        </div>
        <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
          <Tick
            label="the instructor is asked to write some"
            checked={asked !== undefined}
            onChange={(on) =>
              write(on ? { ...now(), asked: { atLeast: 5, about: '' } } : { list: now().list })
            }
          />
          {asked && (
            <>
              <NumberLine
                label="at least"
                least={1}
                most={200}
                value={asked.atLeast}
                onDone={(atLeast) =>
                  atLeast !== null && write({ ...now(), asked: { ...asked, atLeast } })
                }
              />
              <TextLine
                label="about, for instance: your syllabus"
                className="min-w-64 grow"
                value={asked.about}
                onDone={(about) => write({ ...now(), asked: { ...asked, about } })}
              />
            </>
          )}
        </div>
        <div className="flex flex-wrap items-end gap-4">
          <Pick
            label="Right answers are shown"
            value={settings.answersShown ?? ''}
            onChange={(event) => setting('answersShown', event.target.value || null)}
            options={[
              { value: '', text: 'as the instructor likes' },
              { value: 'at-once', text: 'as soon as one has answered' },
              { value: 'after-closing', text: 'once it has closed' },
              { value: 'never', text: 'never' },
            ]}
          />
          <Tick
            label="every student finds them in an order of their own"
            checked={settings.shuffled ?? false}
            onChange={(on) => setting('shuffled', on || null)}
          />
        </div>
      </fieldset>
      {isListed && (
        <ListOfQuestions
          onTake={(bodies) => {
            add(bodies, null)
            setListed(false)
          }}
          onClose={() => setListed(false)}
        />
      )}
    </section>
  )
}
