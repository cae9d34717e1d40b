const htmlEscapes: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
}
export const escapeHtml = (text: string): string =>
  text.replace(/[&<>"]/g, (character) => htmlEscapes[character] ?? character)

export const paragraph = (text: string): string => `<p>${escapeHtml(text)}</p>`
/** Nothing for an empty one. */
export const heading = (text: string): string => (text === '' ? '' : `<h3>${escapeHtml(text)}</h3>`)
export const anchor = (href: string, text: string): string =>
  `<a href="${escapeHtml(href)}">${escapeHtml(text)}</a>`
/** @param members as HTML */
export const list = (tag: 'ul' | 'ol', members: readonly string[]): string =>
  `<${tag}>${members.map((member) => `<li>${member}</li>`).join('')}</${tag}>`
export const minuteWords = (count: number | undefined): string[] =>
  count === undefined ? [] : [`${count} ${count === 1 ? 'minute' : 'minutes'}`]
