import { z } from 'zod'

/** The name of a host, as addresses have it: `film.kestrelsound.example`. */
export const HostName = z
  .string()
  .max(253)
  .regex(
    /^[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)+$/,
    'the name of a host in lower case, e.g. film.college.example',
  )

/** The host that an address leads to over TLS, in lower case; null for any other address. */
export const hostOf = (address: string): string | null =>
  /^https:\/\/([a-z0-9.-]{1,253})(?::\d{1,5})?(?:[/?#]|$)/i.exec(address)?.[1]?.toLowerCase() ??
  null

/** How wide what is shown within a page is to its height. */
export const frameShapes = { wide: '16/9', square: '1/1', tall: '3/4' } as const
export type FrameShape = keyof typeof frameShapes

/**
 * Where something of another place is to be shown within a page, as HTML that is let in: a link, until `framed` makes a frame of
 * it or takes it out.
 * @param name as HTML
 * @param href as it stands in an attribute
 */
export const frameOf = (href: string, name: string, shape: FrameShape): string =>
  `<p class="shown-${shape}"><a href="${href}">${name}</a></p>`

const place =
  /<p class="shown-(wide|square|tall)"><a href="([^"]{1,2000})">([^<]{0,1000})<\/a><\/p>/g

/** What a frame may do: run what is its own, and nothing of the page it stands in (HTML, the sandbox attribute). */
const sandbox = 'allow-scripts allow-same-origin allow-presentation allow-popups allow-forms'

/**
 * HTML that was let in, with frames where something of an allowed host is to be shown; of other hosts, nothing. What is shown is
 * linked below it as well, for where a platform drops frames.
 */
export const framed = (html: string, hosts: readonly string[]): string =>
  html.replace(place, (_, shape: FrameShape, href: string, name: string) => {
    const host = hostOf(href)
    return host !== null && hosts.includes(host)
      ? `<div><iframe src="${href}" title="${name.replace(/"/g, '&quot;')}" width="640" height="360" style="border:0;width:100%;height:auto;aspect-ratio:${frameShapes[shape]}" loading="lazy" allowfullscreen="" sandbox="${sandbox}"></iframe></div>`
      : ''
  })

/** What a frame shows, in words. */
export const frameWords = (title: string, source: string): string => {
  const host = hostOf(source)
  return `[${[title || 'content', 'shown here', ...(host ? [`from ${host}`] : [])].join(', ')}]`
}

/** HTML with what its frames show said in words: where a page is looked at and nothing of another place may load. */
export const framesInWords = (html: string): string =>
  html.replace(/<iframe\b([^<>]{0,4000})>[^<]{0,100}<\/iframe>/g, (_, attributes: string) => {
    const value = (name: string): string =>
      new RegExp(`\\b${name}="([^"]*)"`).exec(attributes)?.[1] ?? ''
    return `<span>${frameWords(value('title'), value('src'))}</span>`
  })
