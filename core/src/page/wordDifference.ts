import { z } from 'zod'
import { diffWordsWithSpace } from 'diff'
import { remember } from '../remember/index.ts'

export const WordRun = z.strictObject({
  text: z.string(),

  /** same: in both; gone: only in the earlier text; new: only in the later one. */
  change: z.enum(['same', 'gone', 'new']),
})
export type WordRun = z.output<typeof WordRun>

const mostEdits = 400

/**
 * Word-level difference of two texts (Myers 1986), capped: texts that differ in more than 400 words are told as
 * wholly replaced, since a longer list helps nobody and unrelated long texts take seconds.
 */
export const wordDifference = (before: string, after: string): WordRun[] => {
  const runs = diffWordsWithSpace(before, after, { maxEditLength: mostEdits })
  if (!runs)
    return [
      { text: before, change: 'gone' },
      { text: after, change: 'new' },
    ]
  return runs.map((run) => ({
    text: run.value,
    change: run.added ? 'new' : run.removed ? 'gone' : 'same',
  }))
}

const leastShared = 0.35

/**
 * The same for reading: changed words that stand side by side are one stretch, and texts that have little in common are told
 * as one that is gone and one that is new.
 */
export const readableDifference = (before: string, after: string): WordRun[] => {
  if (
    before !== '' &&
    after !== '' &&
    Math.max(shareSurviving(before, after), shareSurviving(after, before)) < leastShared
  )
    return [
      { text: before, change: 'gone' },
      { text: after, change: 'new' },
    ]
  const runs: WordRun[] = []
  let gone = ''
  let fresh = ''
  const flush = () => {
    if (gone !== '') runs.push({ text: gone, change: 'gone' })
    if (fresh !== '') runs.push({ text: fresh, change: 'new' })
    gone = fresh = ''
  }
  for (const run of wordDifference(before, after)) {
    if (run.change === 'gone') gone += run.text
    else if (run.change === 'new') fresh += run.text
    else if (run.text.trim() === '' && (gone !== '' || fresh !== '')) {
      gone += run.text
      fresh += run.text
    } else {
      // Space that both sides end in belongs to neither.
      const space = gone.slice(gone.trimEnd().length)
      const shared = space !== '' && fresh.endsWith(space) ? space : ''
      if (shared !== '') {
        gone = gone.slice(0, -shared.length)
        fresh = fresh.slice(0, -shared.length)
      }
      flush()
      runs.push({ text: shared + run.text, change: 'same' })
    }
  }
  flush()
  return runs
}

/** The stretches that are gone or new, with the spaces between words of one stretch kept. */
export const changedPhrases = (runs: readonly WordRun[], change: 'gone' | 'new'): string[] => {
  const phrases: string[] = []
  let open = false
  for (const run of runs) {
    if (run.change === change) {
      if (open) phrases[phrases.length - 1] += run.text
      else phrases.push(run.text)
      open = true
    } else if (run.change === 'same') {
      if (open && run.text.trim() === '') phrases[phrases.length - 1] += run.text
      else open = false
    }
  }
  return phrases.map((phrase) => phrase.trim()).filter((phrase) => phrase !== '')
}

const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []

/** How often each word stands in a text. */
interface WordCount {
  total: number
  of: ReadonlyMap<string, number>
}
const countsOf = remember(4000, (text: string): WordCount => {
  const words = wordsOf(text)
  const of = new Map<string, number>()
  for (const word of words) of.set(word, (of.get(word) ?? 0) + 1)
  return { total: words.length, of }
})

/** How many words two texts have in common, counting each as often as it stands in both, as a share of the words of each; 1 of no words. */
const sharesInCommon = (one: string, other: string): [number, number] => {
  const [a, b] = [countsOf(one), countsOf(other)]
  let common = 0
  for (const [word, count] of a.of) common += Math.min(count, b.of.get(word) ?? 0)
  return [a.total === 0 ? 1 : common / a.total, b.total === 0 ? 1 : common / b.total]
}

/** Share of `wanted`'s words that also stand in `found`, counting each as often as it stands; 0 to 1. */
export const shareSurviving = (wanted: string, found: string): number =>
  sharesInCommon(wanted, found)[0]

/** How alike two texts are, 0 to 1: what is left of the first, unless two thirds and more of the second are new. */
export const likeness = (wanted: string, found: string): number => {
  const [ofWanted, ofFound] = sharesInCommon(wanted, found)
  return Math.min(ofWanted, ofFound * 1.5)
}

export const countWords = (text: string): number => wordsOf(text).length
