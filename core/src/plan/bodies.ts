import { shortHash } from '../document/index.ts'
import type { Base, BaseEntry } from './base.ts'

/** HTML kept by its content. Equal HTML has equal ids. */
export interface Bodies {
  idOf: (html: string) => string
  /** undefined: it is missing, which says nothing of what it held. */
  htmlOf: (id: string) => string | undefined
}

/** Bodies kept in memory; what is asked for by its HTML is kept from then on. */
export interface KeptBodies extends Bodies {
  all: () => Record<string, string>
}

export const keptBodies = (known: Readonly<Record<string, string>> = {}): KeptBodies => {
  const byId = new Map(Object.entries(known))
  const ids = new Map<string, string>()
  return {
    idOf: (html) => {
      let id = ids.get(html)
      if (id === undefined) {
        id = shortHash(html)
        ids.set(html, id)
        byId.set(id, html)
      }
      return id
    },
    htmlOf: (id) => byId.get(id),
    all: () => Object.fromEntries(byId),
  }
}

/** Ids of every body that entries of a base name. */
export const bodiesOfEntries = (
  entries: readonly Pick<BaseEntry, 'page' | 'blocks'>[],
): string[] => [
  ...new Set(
    entries.flatMap(({ page, blocks }) => [
      ...(page === null ? [] : [page]),
      ...blocks.flatMap((block) => [block.sent, ...(block.page === null ? [] : [block.page])]),
    ]),
  ),
]

/** Ids of every body that a base names: all of them must be kept as long as the base is. */
export const bodiesOfBase = (base: Base): string[] => bodiesOfEntries(base.parts)

/** Of these ids, those whose body is missing. */
export const missingBodies = (ids: readonly string[], bodies: Bodies): string[] =>
  ids.filter((id) => bodies.htmlOf(id) === undefined)

/** The body of an id that was found to be there with `missingBodies`. Throws when it was not asked first. */
export const bodyOf = (bodies: Bodies, id: string): string => {
  const html = bodies.htmlOf(id)
  if (html === undefined)
    throw new Error(`body ${id} is missing; whoever reads bodies asks missingBodies first`)
  return html
}
