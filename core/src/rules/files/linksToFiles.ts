import { isShown } from '../../course/index.ts'
import { withoutQuery } from '../../document/index.ts'
import { wordsFilled } from '../../expand/index.ts'
import { houseFileAt, newWords, readHandoutAddress, type WrittenFile } from '../../files/index.ts'
import { analysePage, type PageLink } from '../../page/index.ts'
import { remember } from '../../remember/index.ts'
import type { CheckContext, PlacedBlock } from '../context.ts'
import { fileSeen, wordsShown } from './filesThere.ts'

/** A link of a block to a file, as it was written. */
export interface LinkWanted {
  text: string
  /** null: the newest of a file of the library. */
  file: WrittenFile | null
  /** As it is sent. */
  address: string
}

/** The links to files in what deployment writes. */
export const linksWanted = remember(1000, (html: string): readonly LinkWanted[] =>
  analysePage(html).links.flatMap(({ href, text }): LinkWanted[] => {
    const file = readHandoutAddress(href)
    return file || houseFileAt(href) !== null ? [{ text, file, address: href }] : []
  }),
)

/** Where a link with the same words leads now; of several, those in the block itself where its marker tells them. */
export const linksNow = (
  { text }: LinkWanted,
  { block, stands }: PlacedBlock,
  context: CheckContext,
): readonly PageLink[] => {
  if (!stands) return []
  const alike = (context.pageOf(stands.there.item)?.links ?? []).filter(
    (link) => link.text === text,
  )
  return stands.reading.byMarker ? alike.filter((link) => link.block === block.key) : alike
}

/** The file of the course at an address. */
const fileAt = (address: string, { course }: CheckContext) =>
  course.files?.find(({ url }) => withoutQuery(url) === address)

/** Where a link leads, as people know it: the file, the item, or the address. */
export const whereLinkLeads = (href: string, context: CheckContext): string => {
  const target = context.leadsTo(href)
  const file = target.leads === 'file' ? fileAt(target.url, context) : undefined
  if (file?.restricted) return 'a file that is kept from students'
  if (file) return fileSeen(context, file)
  const item = target.leads === 'item' ? context.itemAt(target.id) : null
  return item && isShown(item) ? `“${item.name}”` : item ? 'an item that is hidden' : href
}

/** Whether a link leads to the file that it was written to lead to; a reason where that cannot be told, and `told` where other rules do. */
export const leadsThere = (
  { href }: PageLink,
  { file, address }: LinkWanted,
  context: CheckContext,
): 'yes' | 'no' | 'told' | { untold: string } => {
  const target = context.leadsTo(href)
  if (target.leads === 'nowhere' || target.leads === 'other-course') return 'told'
  if (href.trim() === '' || href.trim() === '#') return 'told'
  if (!file) return houseFileAt(href) === houseFileAt(address) ? 'yes' : 'no'
  const { files } = context.course
  if (!files && !['item', 'module', 'mail'].includes(target.leads))
    return { untold: 'the platform does not tell which files the course holds' }
  if (target.leads !== 'file') return 'no'
  const content = fileAt(target.url, context)?.content
  if (content === undefined) return { untold: 'the platform does not tell what the file holds' }
  if (!file.fields) return content === file.content ? 'yes' : 'no'
  const source = context.expected.template.files.find((held) => held.content === file.content)
  const wanted = source ? wordsFilled(source, file.fields) : null
  const words = wordsShown(context, content)
  if (wanted === null || words === null) return { untold: 'the text of the file could not be read' }
  return newWords(wanted, words) + newWords(words, wanted) === 0 ? 'yes' : 'no'
}
