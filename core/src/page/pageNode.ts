/** A node of a page, with what is read of it: an element, text, or something else that is passed over. */
export type PageNode = PageElement | PageText | { nodeName: string }
export interface PageText {
  nodeName: '#text'
  value: string
}
export interface PageElement {
  nodeName: string
  tagName: string
  attrs: readonly { name: string; value: string }[]
  childNodes: readonly PageNode[]
}
