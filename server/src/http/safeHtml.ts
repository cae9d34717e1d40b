import sanitizeHtml from 'sanitize-html'

/** Raised when the rules below change, so that what was kept of sanitised pages is made again. */
export const sanitisingPolicy = 1

/** Course HTML with nothing in it that runs, and no image but the platform's. */
export const safeHtml = (html: string, platformUrl: string): string =>
  sanitizeHtml(html, {
    allowedTags: [...sanitizeHtml.defaults.allowedTags, 'img', 'h1', 'h2', 'aside', 'section'],
    allowedAttributes: { a: ['href', 'title'], img: ['src', 'alt'], td: ['colspan', 'rowspan'], th: ['colspan', 'rowspan', 'scope'] },
    allowedSchemes: ['https', 'http', 'mailto'],
    allowProtocolRelative: false,
    transformTags: { img: (tagName, attribs) => ({ tagName, attribs: { ...attribs, src: (attribs['src'] ?? '').startsWith('/files/') ? new URL(attribs['src'] ?? '', platformUrl).href : '' } }) },
  })

/** A page as a document of its own: no script, no form. @param title is escaped here */
export const pageDocument = (title: string, html: string, platformUrl: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${sanitizeHtml(title, { allowedTags: [], allowedAttributes: {} })}</title><style>body{font:16px/1.65 Georgia,serif;color:#1d2a32;background:#fffdf8;margin:1.25rem;max-width:44rem}img{max-width:100%}a{color:#0b6468}</style></head><body>${safeHtml(html, platformUrl)}</body></html>`
