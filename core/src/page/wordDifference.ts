import { diffWordsWithSpace } from 'diff'

export interface WordRun {
  text: string
  /** same: in both; gone: only in the earlier text; new: only in the later one. */
  change: 'same' | 'gone' | 'new'
}

const mostEdits = 400

/**
 * Word-level difference of two texts (Myers 1986), capped: texts that differ in more than 400 words are told as
 * wholly replaced, since a longer list helps nobody and unrelated long texts take seconds.
 */
export const wordDifference = (before: string, after: string): WordRun[] => {
  const runs = diffWordsWithSpace(before, after, { maxEditLength: mostEdits })
  if (!runs) return [{ text: before, change: 'gone' }, { text: after, change: 'new' }]
  return runs.map((run) => ({ text: run.value, change: run.added ? 'new' : run.removed ? 'gone' : 'same' }))
}

const leastShared = 0.35

/**
 * The same for reading: changed words that stand side by side are one stretch, and texts that have little in common are told
 * as one that is gone and one that is new.
 */
export const readableDifference = (before: string, after: string): WordRun[] => {
  if (before !== '' && after !== '' && Math.max(shareSurviving(before, after), shareSurviving(after, before)) < leastShared) return [{ text: before, change: 'gone' }, { text: after, change: 'new' }]
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
      const space = /\s+$/.exec(gone)?.[0] ?? ''
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

/** Share of `wanted`'s words that also stand in `found`, counting each as often as it stands; 0 to 1. */
export const shareSurviving = (wanted: string, found: string): number => {
  const words = wordsOf(wanted)
  if (words.length === 0) return 1
  const left = new Map<string, number>()
  for (const word of wordsOf(found)) left.set(word, (left.get(word) ?? 0) + 1)
  let kept = 0
  for (const word of words) {
    const count = left.get(word) ?? 0
    if (count > 0) {
      kept += 1
      left.set(word, count - 1)
    }
  }
  return kept / words.length
}

export const countWords = (text: string): number => wordsOf(text).length
