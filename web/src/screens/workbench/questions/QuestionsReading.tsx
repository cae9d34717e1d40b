import { isModule, type ExpectedPart } from '@wickerframe/core'
import type { Reader } from '../page/Reading.tsx'
import { QuestionRead } from './QuestionRead.tsx'

/** The questions of an assessment as its readers will find them in the chosen course. */
export const QuestionsReading = ({
  part: { definition, questions },
  reader,
  assets,
}: {
  part: ExpectedPart
  reader: Reader
  /** Data of images by their names on the platform. */
  assets: ReadonlyMap<string, string>
}) => {
  const asked = isModule(definition) ? undefined : definition.questions?.asked
  if (questions.length === 0 && !asked) return null
  const isInstructor = reader === 'instructor'
  return (
    <section aria-label="Questions" className="mt-3 border border-line bg-sheet p-3">
      <h3>Questions</h3>
      <ol className="mt-1 grid gap-3">
        {questions.map(({ key, left, body }, i) => (
          <li key={key} className="flex gap-2">
            <span className="w-6 shrink-0 text-right text-ink-3">{i + 1}</span>
            <div className="min-w-0">
              <QuestionRead
                body={body}
                isPlain={false}
                showsRight={isInstructor}
                sourceOf={(image) => assets.get(image) ?? null}
              />
              {isInstructor && left && (
                <p className="text-[12.5px] text-ink-3">
                  {left === 'sample'
                    ? 'A sample: put one of yours in its place.'
                    : 'A proposal: change it as you like.'}
                </p>
              )}
            </div>
          </li>
        ))}
      </ol>
      {isInstructor && asked && (
        <p className="mt-2">
          You are asked for at least {asked.atLeast} of your own
          {asked.about === '' ? '' : ` about ${asked.about}`}.
        </p>
      )}
    </section>
  )
}
