import { answersOf, questionKindWords, type QuestionBody } from '@wickerframe/core'
import { plural } from '../../../controls/controls.tsx'
import { PageHtml } from '../page/PageHtml.tsx'

const marks: Readonly<Partial<Record<QuestionBody['kind'], string>>> = {
  'one-answer': '◦',
  'true-or-false': '◦',
  'several-answers': '▫',
}

/** A question to be read: what is asked, its answers, and how it is answered. Who is asked sees answers only where they choose one. */
export const QuestionRead = ({
  body,
  isPlain,
  showsRight,
  sourceOf,
}: {
  body: QuestionBody
  /** Whether its answers are plain text, as in a template, rather than HTML. */
  isPlain: boolean
  showsRight: boolean
  /** What shows an image, by its name; null: it is not there. */
  sourceOf: (name: string) => string | null
}) => {
  const mark = marks[body.kind]
  const answers = mark || showsRight ? answersOf(body) : []
  return (
    <div>
      <div className="page-text">
        {body.text === '' ? (
          <p className="italic text-ink-3">nothing asked yet</p>
        ) : (
          <PageHtml html={body.text} sourceOf={sourceOf} fields={isPlain} />
        )}
      </div>
      {answers.length > 0 && (
        <ul className="mt-1 grid gap-0.5">
          {answers.map(({ text, right }, i) => (
            <li key={i} className="flex gap-2">
              <span aria-hidden="true" className="text-ink-3">
                {mark ?? '='}
              </span>
              <span>
                {isPlain || !('choices' in body) ? (
                  text
                ) : (
                  <PageHtml html={text} sourceOf={sourceOf} />
                )}
              </span>
              {showsRight && right && <b className="text-tide">right</b>}
            </li>
          ))}
        </ul>
      )}
      <p className="mt-0.5 text-[12.5px] text-ink-3">
        {questionKindWords(body.kind)}, {plural(body.points, 'point')}
      </p>
    </div>
  )
}
