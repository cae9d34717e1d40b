import { z } from 'zod'

/** Whether a text is one line without control characters: those write lines of their own into files, mails and logs. */
export const isLine = (text: string): boolean => !/[\p{Cc}\u2028\u2029]/u.test(text)

/** A name, a title, a label: one line of text. */
export const Line = (most: number, least = 1) =>
  z
    .string()
    .min(least)
    .max(most)
    .refine(isLine, 'one line of text, without line ends and control characters')

/**
 * A cell as it is written where a table leaves for a spreadsheet: what a spreadsheet would take for a formula begins with an
 * apostrophe, which it takes for "this is text" (common practice; no standard says so). Numbers stay as they are.
 */
export const safeCell = (text: string): string =>
  /^[=+\-@\t\r]/.test(text) && !/^[+-]?\d+(?:[.,]\d+)?$/.test(text) ? `'${text}` : text
