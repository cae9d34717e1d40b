import { useDeferredValue, useMemo, useState } from 'react'
import { faultsOf, readTypedQuestions, typedOfHtml, type QuestionBody } from '@wickerframe/core'
import { Button, plural } from '../../../controls/controls.tsx'
import { Dialog } from '../../../controls/Dialog.tsx'
import { faultWords } from './faultWords.ts'
import { QuestionRead } from './QuestionRead.tsx'

const noImages = (): null => null

/** A list as it would become questions, shown before it is taken. */
export const ListOfQuestions = ({
  onTake,
  onClose,
}: {
  onTake: (questions: QuestionBody[]) => void
  onClose: () => void
}) => {
  const [text, setText] = useState('')
  // A long list is read when there is time, so that typing does not wait for it.
  const readText = useDeferredValue(text)
  const { questions, unread } = useMemo(() => readTypedQuestions(readText), [readText])
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Questions from a list"
      explains="A number and what is asked; below it “a) …” with a star at the right answers. “Answer: …” makes a short answer, with a * in it a pattern; nothing at all an essay. “(2 points)” is what it is worth, “~ …” what is told afterwards."
    >
      <div className="mt-3 grid gap-4 md:grid-cols-2">
        <textarea
          aria-label="The list"
          rows={18}
          autoFocus
          spellCheck={false}
          className="w-full border border-line-strong bg-sheet p-2 font-mono text-[13px]"
          placeholder={
            '1. When is a neap tide? (2 points)\n   a) at new moon\n  *b) at the quarters\n\n2. Red marks the port hand.\n   Answer: True\n\n3. What is datum?\n   Answer: chart datum / the datum'
          }
          value={text}
          onPaste={(event) => {
            const listed = typedOfHtml(event.clipboardData.getData('text/html'))
            if (listed === null) return
            event.preventDefault()
            const { selectionStart, selectionEnd } = event.currentTarget
            setText(text.slice(0, selectionStart) + listed + text.slice(selectionEnd))
          }}
          onChange={(event) => setText(event.target.value)}
        />
        <div
          className="max-h-[26rem] overflow-y-auto border border-line bg-paper p-3"
          role="region"
          tabIndex={0}
          aria-label="As they are read"
        >
          {questions.length === 0 && (
            <p className="text-ink-2">Here they stand as they are read.</p>
          )}
          {unread.map(({ line, text: words }) => (
            <p key={line} className="text-rust">
              Line {line} stands before the first question and is left out: {words}
            </p>
          ))}
          <ol className="grid gap-3">
            {questions.map(({ line, body }, i) => (
              <li key={line} className="flex gap-2">
                <span className="text-ink-3">{i + 1}</span>
                <div className="min-w-0">
                  <QuestionRead body={body} isPlain showsRight sourceOf={noImages} />
                  {faultsOf(body).map((fault) => (
                    <p key={fault} className="text-rust">
                      {faultWords[fault]}
                    </p>
                  ))}
                </div>
              </li>
            ))}
          </ol>
        </div>
      </div>
      <p className="mt-4 flex gap-3">
        <Button
          shape="main"
          disabled={questions.length === 0 || questions.length > 300}
          onClick={() => onTake(questions.map(({ body }) => body))}
        >
          Put in {plural(questions.length, 'question')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </p>
    </Dialog>
  )
}
