import { createElement, Fragment, memo, useMemo, type CSSProperties, type ReactNode } from 'react'
import { markedText } from './fieldsInText.ts'
import { framesInWords, letIn, parsePage, type PageElement, type PageNode } from '@wickerframe/core'

/** Attributes that are shown, by what React calls them. */
const shownAttributes: Readonly<Record<string, string>> = {
  alt: 'alt',
  colspan: 'colSpan',
  dir: 'dir',
  lang: 'lang',
  rowspan: 'rowSpan',
  scope: 'scope',
  start: 'start',
  title: 'title',
  reversed: 'reversed',
  // Of formulas.
  alttext: 'alttext',
  columnalign: 'columnalign',
  display: 'display',
  fence: 'fence',
  mathvariant: 'mathvariant',
  stretchy: 'stretchy',
}
const withoutContent = new Set(['br', 'hr', 'img', 'wbr', 'col'])
const isElement = (node: PageNode): node is PageElement => 'tagName' in node

/** An inline style as React takes it. */
const styleObject = (style: string): CSSProperties =>
  Object.fromEntries(
    style.split(';').flatMap((declaration) => {
      const colon = declaration.indexOf(':')
      if (colon < 0) return []
      const property = declaration.slice(0, colon).trim().toLowerCase()
      const name = property.replace(/-([a-z])/g, (_, letter: string) => letter.toUpperCase())
      return [[name, declaration.slice(colon + 1).trim()]]
    }),
  )

/** Text with its fields and its spots told apart; on a ground of its own, in the colour of the words there. */
const withFields = (text: string, onGround: boolean): ReactNode =>
  markedText(text).map((stretch, i) =>
    stretch.look === null ? (
      stretch.text
    ) : (
      <span key={i} className={onGround ? 'underline decoration-dotted' : stretch.look}>
        {stretch.text}
      </span>
    ),
  )

interface Look {
  /** What shows an image, by its name; null: it is not there. */
  sourceOf: (name: string) => string | null
  fields: boolean
  /** Whether the house style gives it a ground of its own. */
  onGround?: boolean
}

const drawn = (nodes: readonly PageNode[], look: Look): ReactNode[] =>
  nodes.map((node, i) => {
    if ('value' in node)
      return (
        <Fragment key={i}>
          {look.fields ? withFields(node.value, look.onGround === true) : node.value}
        </Fragment>
      )
    // As it was typed: it is not shown.
    if (!isElement(node) || node.tagName === 'annotation') return null
    const attribute = (name: string) => node.attrs.find((one) => one.name === name)?.value
    const written = attribute('style')
    const styled = written === undefined ? {} : { style: styleObject(written) }
    if (node.tagName === 'img') {
      const source = look.sourceOf((attribute('src') ?? '').replace(/^asset:/, ''))
      const alternative = attribute('alt') ?? ''
      return source === null ? (
        <span key={i} className="text-ink-3">
          [image{alternative === '' ? '' : `: ${alternative}`}]
        </span>
      ) : (
        <img key={i} src={source} alt={alternative} {...styled} />
      )
    }
    const within = withoutContent.has(node.tagName)
      ? []
      : drawn(
          node.childNodes,
          written?.includes('background:') ? { ...look, onGround: true } : look,
        )
    // A link is seen, not followed: who presses it wants to edit.
    if (node.tagName === 'a')
      return (
        <span key={i} className="text-tide underline" title={attribute('href')} {...styled}>
          {within}
        </span>
      )
    const attributes = Object.fromEntries(
      node.attrs.flatMap(({ name, value }) => {
        const shown = shownAttributes[name]
        return shown === undefined ? [] : [[shown, value]]
      }),
    )
    return createElement(node.tagName, { key: i, ...attributes, ...styled }, ...within)
  })

/** A piece of a page as it is read. It is let in first, and drawn element by element: nothing of it runs or loads by itself. */
export const PageHtml = memo(
  ({ html, sourceOf, fields = false }: { html: string } & Pick<Look, 'sourceOf'> & Partial<Look>) =>
    useMemo(
      () => drawn(parsePage(letIn(framesInWords(html)).html), { sourceOf, fields }),
      [html, sourceOf, fields],
    ),
)
