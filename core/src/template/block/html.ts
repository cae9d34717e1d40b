import type { HouseRole } from '../../houseStyle/index.ts'

const htmlEscapes: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
}
export const escapeHtml = (text: string): string =>
  text.replace(/[&<>"]/g, (character) => htmlEscapes[character] ?? character)

export const paragraph = (text: string): string => `<p>${escapeHtml(text)}</p>`
/**
 * Nothing for an empty one.
 * @param words as HTML
 */
export const heading = (words: string): string => (words === '' ? '' : `<h3>${words}</h3>`)
export const anchor = (href: string, text: string): string =>
  `<a href="${escapeHtml(href)}">${escapeHtml(text)}</a>`
/** Says which role of the house style an element has; goes into its start tag. */
export const role = (name: HouseRole): string => ` class="house-${name}"`
/** A piece of a page in a role of the house style; where there is none, as it is. */
export const box = (name: HouseRole, html: string, { hasStyle }: { hasStyle: boolean }): string =>
  hasStyle ? `<div${role(name)}>${html}</div>` : html
/** @param members as HTML */
export const list = (tag: 'ul' | 'ol', members: readonly string[]): string =>
  `<${tag}>${members.map((member) => `<li>${member}</li>`).join('')}</${tag}>`
/** @param members each with its `li` */
export const roleList = (name: HouseRole, members: readonly string[]): string =>
  `<ul${role(name)}>${members.join('')}</ul>`
export const minuteWords = (count: number | undefined): string[] =>
  count === undefined ? [] : [`${count} ${count === 1 ? 'minute' : 'minutes'}`]
