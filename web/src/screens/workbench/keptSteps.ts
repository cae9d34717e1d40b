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

const prefix = 'wickerframe/steps/'
/** What is long ago is not taken back after a reload; a browser holds about five megabytes in all. */
const mostSteps = 100
const mostLetters = 1_000_000

/** Keeps what can be taken back of a draft as it stands at a revision, for this tab; as much of it as there is room for. */
export const keepSteps = (key: string, revision: number, { done, undone }: Steps): void => {
  let most = mostSteps
  let text: string
  do {
    text = JSON.stringify({ revision, done: done.slice(-most), undone: undone.slice(-most) })
    most = Math.floor(most / 2)
  } while (text.length > mostLetters && most > 0)
  try {
    if (text.length > mostLetters) sessionStorage.removeItem(prefix + key)
    else sessionStorage.setItem(prefix + key, text)
  } catch {
    // No room, or storage is off: undo goes no further back than the page was opened.
  }
}

/** What was kept of a draft, where it still stands at that revision: with somebody else’s edits between, places are others. */
export const stepsKept = (key: string, revision: number): Steps => {
  const none: Steps = { done: [], undone: [] }
  try {
    const kept = JSON.parse(sessionStorage.getItem(prefix + key) ?? 'null') as
      | (Steps & { revision: number })
      | null
    return kept?.revision === revision ? { done: kept.done, undone: kept.undone } : none
  } catch {
    return none
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
