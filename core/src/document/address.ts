import { z } from 'zod'

/** Spaces, line ends, control characters and marks without a width. */
const overlooked = /[\p{Cc}\p{Cf}\p{Z}]/gu
const schemes = new Set(['https', 'http', 'mailto', 'tel'])
/** Ours, until a page is written: to a part, an item, an image, a house text or file, a file of the course. */
const inside = new Set(['ref', 'item', 'part', 'asset', 'house-text', 'house-file', 'handout'])

/**
 * An address that pages may lead to: on the web, by mail or telephone, or inside the course; null for any other. What
 * browsers overlook in a scheme (spaces, line ends, control characters) is overlooked here as well.
 */
export const addressOf = (address: string): string | null => {
  const bare = address.replace(overlooked, '')
  const scheme = /^([^/?#:]*):/.exec(bare)?.[1]?.toLowerCase()
  return scheme === undefined || schemes.has(scheme) || inside.has(scheme) ? address : null
}

/** An address without its query and fragment: the place itself. By hand, for a pattern would look from each of many question marks anew. */
export const withoutQuery = (address: string): string => {
  const end = address.search(/[?#]/)
  return end < 0 ? address : address.slice(0, end)
}

/** An address in a document: empty while it is not known yet. */
export const Address = z
  .string()
  .max(2000)
  .refine(
    (address) => addressOf(address) !== null,
    'an address that begins with https, http, mailto or tel, or one inside the course',
  )
