import { useMemo } from 'react'
import { readableDifference } from '@wickerframe/core'

/**
 * The words of a stretch of HTML, a line for each paragraph, and its images by description and file name. Nothing of it is ever
 * run: it is parsed into a document that is not shown.
 * @param withAddresses whether links also say where they lead, as far as that is outside the course
 */
export const wordsOfHtml = (html: string, withAddresses = false): string => {
  const parsed = new DOMParser().parseFromString(
    html.replace(/<\/(p|li|h[1-6]|tr|div)>/g, '</$1>\n'),
    'text/html',
  )
  for (const image of parsed.querySelectorAll('img'))
    image.replaceWith(
      ` [image ${image.getAttribute('alt') ?? ''}, ${(image.getAttribute('src') ?? '').split(/[/:]/).at(-1)}] `,
    )
  if (withAddresses)
    for (const link of parsed.querySelectorAll('a[href^="http"], a[href^="mailto:"]'))
      link.append(` (${link.getAttribute('href')})`)
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

/** The same of two stretches of HTML; where their words are the same, by where their links lead, and else in a sentence. */
export const HtmlDifference = ({ before, after }: { before: string; after: string }) => {
  const [was, is] = useMemo(() => {
    const words = [wordsOfHtml(before), wordsOfHtml(after)] as const
    return words[0] === words[1]
      ? ([wordsOfHtml(before, true), wordsOfHtml(after, true)] as const)
      : words
  }, [before, after])
  return (
    <>
      <TextDifference before={was} after={is} />
      {was === is && before !== after && (
        <p className="text-ink-3">
          The words are the same; how they are set, or where a link leads, is not.
        </p>
      )}
    </>
  )
}
