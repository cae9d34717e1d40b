import { useId, useState } from 'react'
import { Button, Field } from '../../../controls/controls.tsx'
import { Tick } from '../../../controls/typed.tsx'
import { RichText } from '../../workbench/page/RichText.tsx'
import { FileAnswer } from './FileAnswer.tsx'
import { PictureAnswer } from './PictureAnswer.tsx'
import type { Typed } from './keptAnswers.ts'
import { htmlOfTyped, typedAmiss, waysToType, type AskedOnce } from './typedAnswers.ts'

const noSources = { parts: [], assets: [] }

/** Where one piece is answered: lines, formatted text, an address, a picture or a file, by what is asked for. */
export const AnswerField = ({
  asked: { thing, piece, items },
  typed,
  course,
  onType,
}: {
  asked: AskedOnce
  typed: Typed | undefined
  course: number
  /** null: nothing was typed. */
  onType: (typed: Typed | null) => void
}) => {
  const id = useId()
  const [isOpened, setOpened] = useState(false)
  const { type, title, hint } = thing
  const way = typed?.as === 'gone' ? null : (typed?.as ?? waysToType[type])
  const label = piece.says === '' ? title : piece.says
  const amiss = typedAmiss(typed, type)
  const amissLine = amiss && (
    <p id={`${id}-amiss`} className="w-full text-rust">
      {amiss}
    </p>
  )
  const notes = [
    ...(hint ? [hint] : []),
    ...(type === 'list' ? ['One on each line.'] : []),
    ...(type === 'date' ? ['A day, as the course writes it.'] : []),
    ...(items.length > 1 ? [`One answer for all ${items.length} places where it stands.`] : []),
  ].join(' ')
  const field = 'border border-line-strong bg-sheet px-2 py-1 text-ink'
  return (
    <div className="grid gap-1 py-2">
      {piece.mayGo && (
        <Tick
          label={`take out “${label}”`}
          checked={typed?.as === 'gone'}
          onChange={(isGone) => onType(isGone ? { as: 'gone' } : null)}
        />
      )}
      {way === 'picture' && (
        <PictureAnswer
          label={label}
          picture={typed?.as === 'picture' ? typed : null}
          onType={onType}
        />
      )}
      {way === 'file' && (
        <FileAnswer
          label={label}
          course={course}
          file={typed?.as === 'file' ? typed.file : null}
          onType={onType}
        />
      )}
      {way === 'lines' && (
        <>
          <label htmlFor={id} className="font-semibold">
            {label}
          </label>
          <textarea
            id={id}
            rows={Math.max(
              type === 'date' ? 1 : 2,
              Math.min(10, (typed?.as === 'lines' ? typed.text : '').split('\n').length),
            )}
            className={field}
            aria-invalid={amiss !== null}
            aria-describedby={
              [amiss && `${id}-amiss`, notes && `${id}-notes`].filter(Boolean).join(' ') ||
              undefined
            }
            value={typed?.as === 'lines' ? typed.text : ''}
            onChange={(event) =>
              onType(event.target.value === '' ? null : { as: 'lines', text: event.target.value })
            }
          />
          {amissLine}
          {type === 'rich-text' && (
            <Button
              shape="word"
              className="justify-self-start text-[13px]"
              onClick={() => {
                setOpened(true)
                onType({ as: 'html', html: htmlOfTyped(typed, type) ?? '<p></p>' })
              }}
            >
              with headings, lists and links
            </Button>
          )}
        </>
      )}
      {way === 'html' && (
        <>
          <span className="font-semibold">{label}</span>
          <RichText
            label={label}
            html={typed?.as === 'html' ? typed.html : ''}
            sources={noSources}
            {...(isOpened ? { begins: 'end' as const } : {})}
            onDone={(html) => onType({ as: 'html', html })}
          />
        </>
      )}
      {way === 'link' && (
        <div
          role="group"
          aria-labelledby={`${id}-label`}
          className="flex flex-wrap items-end gap-3"
        >
          <span id={`${id}-label`} className="w-full font-semibold">
            {label}
          </span>
          {(['address', 'words'] as const).map((part) => (
            <Field
              key={part}
              className="min-w-64 grow"
              label={
                part === 'words'
                  ? 'What the link says'
                  : type === 'e-mail'
                    ? 'E-mail address'
                    : 'Address'
              }
              type={part === 'words' ? 'text' : type === 'e-mail' ? 'email' : 'url'}
              aria-invalid={part === 'address' && amiss !== null}
              aria-describedby={amiss ? `${id}-amiss` : undefined}
              value={typed?.as === 'link' ? typed[part] : ''}
              onChange={(event) =>
                onType({
                  ...(typed?.as === 'link' ? typed : { as: 'link', address: '', words: '' }),
                  [part]: event.target.value,
                })
              }
            />
          ))}
          {amissLine}
        </div>
      )}
      {notes && (
        <p id={`${id}-notes`} className="text-[13px] text-ink-2">
          {notes}
        </p>
      )}
    </div>
  )
}
