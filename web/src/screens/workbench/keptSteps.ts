import type { TemplateEdit } from '@wickerframe/core'

/**
 * One step of undo: the edits it made and those that take it back, each in the order they are made, and when that was (milliseconds
 * since 1970).
 */
export interface Step {
  edits: TemplateEdit[]
  inverse: TemplateEdit[]
  at: number
}
export interface Steps {
  done: Step[]
  undone: Step[]
}
export const noSteps: Steps = { done: [], undone: [] }

const prefix = 'wickerframe/steps/'
/** What is long ago is not taken back after a reload; a browser holds about five megabytes in all. */
const mostSteps = 100
const mostLetters = 1_000_000

/**
 * Of a draft two revisions are kept, the one it has and the one that is being saved: whoever loads the page anew before the answer
 * came finds either.
 */
const slot = (key: string, revision: number): string => `${prefix}${key}/${revision % 2}`

/**
 * Keeps what can be taken back of a draft at a revision, for this tab, before it is sent; as much of it as there is room for.
 * @param steps null: what the draft would be at that revision has no steps of its own
 */
export const keepSteps = (key: string, revision: number, steps: Steps | null): void => {
  const { done, undone } = steps ?? noSteps
  let most = mostSteps
  let text: string
  do {
    text = JSON.stringify({ revision, done: done.slice(-most), undone: undone.slice(-most) })
    most = Math.floor(most / 2)
  } while (text.length > mostLetters && most > 0)
  try {
    if (!steps || text.length > mostLetters) sessionStorage.removeItem(slot(key, revision))
    else sessionStorage.setItem(slot(key, revision), text)
  } catch {
    // No room, or storage is off: undo goes no further back than the page was opened.
  }
}

/** What was kept of a draft, where it still stands at that revision: with somebody else’s edits between, places are others. */
export const stepsKept = (key: string, revision: number): Steps => {
  try {
    const kept = JSON.parse(sessionStorage.getItem(slot(key, revision)) ?? 'null') as
      | (Steps & { revision: number })
      | null
    return kept?.revision === revision ? { done: kept.done, undone: kept.undone } : noSteps
  } catch {
    return noSteps
  }
}

/** Whoever signs in next in this tab finds nothing of it. */
export const forgetSteps = (): void => {
  try {
    for (const name of Object.keys(sessionStorage))
      if (name.startsWith(prefix)) sessionStorage.removeItem(name)
  } catch {
    // Storage is off: there is nothing.
  }
}
