import { useMemo } from 'react'
import { readableDifference } from '@wickerframe/core'

/** The words of a stretch of HTML, a line for each paragraph. Nothing of it is ever run: it is parsed into a document that is not shown. */
export const wordsOfHtml = (html: string): string => {
  const parsed = new DOMParser().parseFromString(
    html.replace(/<\/(p|li|h[1-6]|tr|div)>/g, '</$1>\n'),
    'text/html',
  )
  return (parsed.body.textContent ?? '')
    .replace(/[ \t]+/g, ' ')
    .replace(/\s*\n\s*/g, '\n')
    .trim()
}

/** What changes between two texts, word by word: gone struck through, new underlined, so that it is told without colour too. */
export const TextDifference = ({ before, after }: { before: string; after: string }) => {
  const runs = useMemo(() => readableDifference(before, after), [before, after])
  return (
    <p className="max-w-[72ch] whitespace-pre-line">
      {runs.map((run, i) =>
        run.change === 'same' ? (
          <span key={i}>{run.text}</span>
        ) : run.change === 'gone' ? (
          <del key={i} className="mr-1 bg-rust-soft text-ink decoration-rust">
            {run.text}
          </del>
        ) : (
          <ins key={i} className="bg-tide-soft text-ink decoration-tide">
            {run.text}
          </ins>
        ),
      )}
    </p>
  )
}
