/** What stands where a platform does not put a name in, in a field that was just put in; it is meant to be written over. */
export const newReader = 'everybody'

/** `{reader}` or `{reader, everybody}`: words may stand beside it, no tags. */
const field = /\{reader(?:,([^{}<>]{0,200}))?\}/g

/** What the fields for the reader's first name say instead where a platform has no such thing, in order; null: nothing. */
export const readersIn = (text: string): (string | null)[] =>
  [...text.matchAll(field)].map(([, words]) => words?.trim() || null)

/**
 * A text with the first name of whoever reads it, as a platform wants it written; where it puts none in, with the words that are
 * there for it. Both are HTML where the text is.
 * @param name null: the platform puts none in
 */
export const withReader = (text: string, name: string | null): string =>
  text.includes('{reader')
    ? text.replace(field, (_, words: string | undefined) => name ?? words?.trim() ?? '')
    : text
