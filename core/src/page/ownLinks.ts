import type { PageFacts } from './analysePage.ts'

/** A page without what is its course's own, and that in the order in which it stood. */
export interface SharedPage {
  html: string
  own: string[]
}

const placeholder = 'wf-own:'

/**
 * Takes out of a page what differs from course to course though the page is the same: addresses within its own course, and
 * the part instances that markers name. What is left is the same in every course that has the page, so that it is stored
 * and analysed once. `withOwn` gives back the very page.
 * @param prefix how addresses of the course begin, e.g. `/courses/nav-110/`; empty: there is none
 */
export const withoutOwn = (html: string, prefix: string): SharedPage => {
  // A page that speaks of placeholders itself is left as it is.
  if (html.includes(placeholder)) return { html, own: [] }
  const own: string[] = []
  const shared = html.replace(
    /\b(href|src|data-wicker-part)="([^"<>]*)"/g,
    (whole, attribute: string, value: string) => {
      if (attribute !== 'data-wicker-part' && (prefix === '' || !value.startsWith(prefix)))
        return whole
      let at = own.indexOf(value)
      if (at < 0) at = own.push(value) - 1
      return `${attribute}="${placeholder}${at}"`
    },
  )
  return { html: shared, own }
}

/** The page as it stood in its course. */
export const withOwn = ({ html, own }: SharedPage): string =>
  own.length === 0
    ? html
    : html.replace(
        /\b(href|src|data-wicker-part)="wf-own:(\d+)"/g,
        (whole, attribute: string, at: string) =>
          own[Number(at)] === undefined ? whole : `${attribute}="${own[Number(at)]}"`,
      )

const valueOf = (text: string, own: readonly string[]): string => {
  if (!text.startsWith(placeholder)) return text
  // As an attribute's value is read: entities are undone by the parser of the whole page.
  return (own[Number(text.slice(placeholder.length))] ?? text)
    .replaceAll('&amp;', '&')
    .replaceAll('&quot;', '"')
    .replaceAll('&#39;', "'")
}

/** The facts of a page in its course, from those of what it shares with others; lists that do not differ are the same lists. */
export const factsWithOwn = (facts: PageFacts, own: readonly string[]): PageFacts =>
  own.length === 0
    ? facts
    : {
        ...facts,
        shared: facts.shared,
        links: facts.links.map((link) =>
          link.href.startsWith(placeholder) ? { ...link, href: valueOf(link.href, own) } : link,
        ),
        images: facts.images.map((image) =>
          image.source.startsWith(placeholder)
            ? { ...image, source: valueOf(image.source, own) }
            : image,
        ),
        media: facts.media.map((medium) =>
          medium.source.startsWith(placeholder)
            ? { ...medium, source: valueOf(medium.source, own) }
            : medium,
        ),
        markedPart: facts.markedPart === null ? null : valueOf(facts.markedPart, own),
      }
