import {
  datesMentioned,
  escapeHtml,
  linesAsHtml,
  type Answer,
  type AnswerType,
  type Asset,
} from '@wickerframe/core'
import type { AskedOfCourse } from '@wickerframe/contract'
import type { Typed } from './keptAnswers.ts'

type Page = AskedOfCourse['pages'][number]
type Thing = Page['things'][number]
type Piece = Thing['pieces'][number]

/** A piece that is asked at some places of the course, and answered at all of them at once. */
export interface AskedOnce {
  /** The same as long as it asks the same at the same place. */
  key: string
  thing: Thing
  piece: Piece
  /** Ids of the items that ask it, the first first. */
  items: string[]
}
/** A page with what is answered on it. */
export interface PageToFill extends Pick<Page, 'item' | 'name' | 'url' | 'week' | 'neededBy'> {
  asked: AskedOnce[]
}

/** What is asked, page by page; what one answer holds for is asked where it stands first. */
export const asForm = (pages: readonly Page[]): PageToFill[] => {
  const forCourse = new Map<string, AskedOnce>()
  return pages
    .map(({ things, ...page }): PageToFill => ({
      ...page,
      asked: things.flatMap((thing) =>
        thing.pieces.flatMap((piece): AskedOnce[] => {
          const { block, forCourse: isForCourse } = thing
          const place = isForCourse ? 'course' : page.item
          const key = [place, block, piece.says, piece.nth].join('\n')
          const known = forCourse.get(key)
          if (known) {
            known.items.push(page.item)
            return []
          }
          const once = { key, thing, piece, items: [page.item] }
          if (isForCourse) forCourse.set(key, once)
          return [once]
        }),
      ),
    }))
    .filter(({ asked }) => asked.length > 0)
}

/** How something is typed, by what is asked for. */
export const waysToType: Readonly<Record<AnswerType, Typed['as']>> = {
  text: 'lines',
  'rich-text': 'lines',
  date: 'lines',
  list: 'lines',
  'e-mail': 'link',
  link: 'link',
  video: 'link',
  table: 'html',
  image: 'picture',
  file: 'file',
}

const isWebAddress = (text: string): boolean => /^https?:\/\/[^\s/]+\.[^\s]+$/.test(text)
const isMailAddress = (text: string): boolean => /^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(text)

const addressAmiss = (typed: string, type: AnswerType): string | null => {
  const address = typed.trim()
  if (address === '') return null
  if (type === 'e-mail')
    return isMailAddress(address) ? null : 'An e-mail address, such as name@college.example.'
  return isWebAddress(address) ? null : 'An address that begins with https://.'
}
const dayAmiss = (text: string): string | null =>
  text.trim() === '' || datesMentioned(text).length > 0
    ? null
    : 'A day with its month, such as 14 September 2026.'

/** Why what was typed cannot be written yet, in words; null: it can, or nothing was typed. */
export const typedAmiss = (typed: Typed | undefined, type: AnswerType): string | null => {
  if (typed?.as === 'link') return addressAmiss(typed.address, type)
  return typed?.as === 'lines' && type === 'date' ? dayAmiss(typed.text) : null
}

/** What is written for what was typed, as HTML; null: nothing was typed, or it cannot be written yet. */
export const htmlOfTyped = (typed: Typed | undefined, type: AnswerType): string | null => {
  switch (typed?.as) {
    // A picture or a file is sent beside.
    case 'picture':
      return typed.words.trim() === '' ? null : ''
    case 'file':
    case 'gone':
      return ''
    case 'lines':
      if (typedAmiss(typed, type) !== null) return null
      return linesAsHtml(typed.text.split('\n'), type === 'list' ? 'list' : 'paragraphs') || null
    case 'html':
      return typed.html.replace(/<[^>]*>/g, '').trim() === '' ? null : typed.html
    case 'link': {
      const address = typed.address.trim()
      if (address === '' || typedAmiss(typed, type) !== null) return null
      const words = typed.words.trim() || address
      const href = type === 'e-mail' ? `mailto:${address}` : address
      return `<p><a href="${escapeHtml(href)}">${escapeHtml(words)}</a></p>`
    }
    case undefined:
      return null
  }
}

const pictureOf = (typed: Typed | undefined): Asset | null =>
  typed?.as === 'picture'
    ? {
        ...typed.content,
        key: 'own',
        alternativeText: typed.words.trim(),
        licence: 'of who put it in',
      }
    : null

const fileOf = (typed: Typed | undefined): Answer['file'] =>
  typed?.as === 'file' ? { name: typed.file.fileName, content: typed.file.content } : undefined

/** Everything that was typed and can be written. */
export const answersOf = (
  pages: readonly PageToFill[],
  typed: Readonly<Record<string, Typed>>,
): Answer[] =>
  pages.flatMap(({ asked }) =>
    asked.flatMap(({ key, thing, piece: { says, nth }, items }) => {
      const html = htmlOfTyped(typed[key], thing.type)
      const picture = pictureOf(typed[key])
      const file = fileOf(typed[key])
      return html === null
        ? []
        : items.map((item) => ({
            item,
            block: thing.block,
            says,
            nth,
            html,
            ...(picture ? { picture } : {}),
            ...(file ? { file } : {}),
          }))
    }),
  )

/** How many things have an answer that can be written; one that holds at several places is one. */
export const readyIn = (
  pages: readonly PageToFill[],
  typed: Readonly<Record<string, Typed>>,
): number =>
  pages.reduce(
    (sum, { asked }) =>
      sum + asked.filter(({ key, thing }) => htmlOfTyped(typed[key], thing.type) !== null).length,
    0,
  )
