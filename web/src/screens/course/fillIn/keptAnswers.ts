import type { AnswerFile } from '@wickerframe/contract'
import type { ImageContent } from '../../../controls/imageFile.ts'

/**
 * What somebody typed for a piece: lines, HTML where it was formatted, an address with its words, a picture with what it shows, a
 * file that was brought in; or that it is to go.
 */
export type Typed =
  | { as: 'lines'; text: string }
  | { as: 'html'; html: string }
  | { as: 'link'; address: string; words: string }
  | { as: 'picture'; content: ImageContent; words: string }
  | { as: 'file'; file: AnswerFile }
  | { as: 'gone' }

const prefix = 'wickerframe/answers/'

/** What was typed in a course and not written yet, kept for this tab. */
export const keptAnswers = (course: number): Record<string, Typed> => {
  try {
    return JSON.parse(sessionStorage.getItem(prefix + course) ?? '{}') as Record<string, Typed>
  } catch {
    return {}
  }
}
export const keepAnswers = (course: number, typed: Readonly<Record<string, Typed>>): void => {
  // Of pictures there may be more than a browser has room for: they stand as long as the page is open, and so does all where
  // storage is off.
  const words = Object.entries(typed).filter(([, { as }]) => as !== 'picture')
  try {
    sessionStorage.setItem(prefix + course, JSON.stringify(Object.fromEntries(words)))
  } catch {}
}
/** Whoever signs in next in this tab finds nothing of it. */
export const forgetAnswers = (): void => {
  try {
    for (const name of Object.keys(sessionStorage))
      if (name.startsWith(prefix)) sessionStorage.removeItem(name)
  } catch {
    // Storage is off: there is nothing.
  }
}
