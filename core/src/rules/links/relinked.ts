import type { Change, CourseItem } from '../../course/index.ts'
import { foldedName } from '../../naming/index.ts'
import type { CheckContext } from '../context.ts'
import { repointed } from './repointed.ts'

/**
 * The change by which links of a page that lead to nothing lead where their words say.
 * @param addressOf the address that a link's words, folded, are to lead to; null where that cannot be told
 * @returns null where no link of the page is to be changed
 */
export const relinked = (
  context: CheckContext,
  item: CourseItem,
  addressOf: (words: string) => string | null,
): Change | null => {
  const links = context.pageOf(item)?.links ?? []
  let html = item.html ?? ''
  for (const { href, text } of links) {
    if (href.trim() === '' || href === '#' || context.leadsTo(href).leads !== 'nowhere') continue
    const to = addressOf(foldedName(text))
    // One address under two names would be sent to one of them.
    const isOfOne = links.every((link) => link.href !== href || link.text === text)
    html = (to !== null && isOfOne ? repointed(html, href, to) : null) ?? html
  }
  return html === item.html || item.html === null
    ? null
    : { change: 'set-item', id: item.id, fields: { html } }
}

/** The address of the only item that is called so; null for none, or several. */
export const addressByName =
  (context: CheckContext) =>
  (name: string): string | null => {
    const called = context.placedItems.filter(({ item }) => foldedName(item.name) === name)
    return called.length === 1 ? `item:${called[0]?.item.id}` : null
  }
