import {
  frameWords,
  styleProperties,
  styleValue,
  type BlockDifference,
  type PageDifference,
} from '@wickerframe/core'
import sanitizeHtml from 'sanitize-html'

/** Styles on the list of what is let in. */
const allowedStyles = {
  '*': Object.fromEntries(styleProperties.map((property) => [property, [styleValue]])),
}

/** Course HTML with nothing in it that runs, and no image but the platform's. */
export const safeHtml = (html: string, platformUrl: string): string =>
  sanitizeHtml(html, {
    allowedTags: [...sanitizeHtml.defaults.allowedTags, 'img', 'h1', 'h2', 'aside', 'section'],
    allowedAttributes: {
      '*': ['style'],
      a: ['href', 'title'],
      img: ['src', 'alt', 'width', 'height'],
      td: ['colspan', 'rowspan'],
      th: ['colspan', 'rowspan', 'scope'],
    },
    allowedStyles,
    allowedSchemes: ['https', 'http', 'mailto'],
    allowProtocolRelative: false,
    transformTags: {
      // Nothing of another place loads here: what would be shown is said.
      iframe: (_, attribs) => ({
        tagName: 'p',
        attribs: {},
        text: frameWords(attribs['title'] ?? '', attribs['src'] ?? ''),
      }),
      img: (tagName, attribs) => ({
        tagName,
        attribs: {
          ...attribs,
          src: (attribs['src'] ?? '').startsWith('/files/')
            ? new URL(attribs['src'] ?? '', platformUrl).href
            : '',
        },
      }),
    },
  })

const plain = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
const shell = (title: string, body: string, style = ''): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${plain(title)}</title><style>body{font:16px/1.65 Georgia,serif;color:#1d2a32;background:#fffdf8;margin:1.25rem;max-width:44rem}img{max-width:100%}a{color:#0b6468}${style}</style></head><body>${body}</body></html>`

/** A page as a document of its own: no script, no form. @param title is escaped here */
export const pageDocument = (title: string, html: string, platformUrl: string): string =>
  shell(title, safeHtml(html, platformUrl))

const saysOf: Readonly<Record<BlockDifference['state'], string | null>> = {
  unchanged: null,
  filled: null,
  altered: 'Changed from what the template says',
  missing: 'Not here',
  unfilled: 'Not filled in yet',
  'prompt-beside-answer': 'The prompt still stands beside the answer',
  guidance: 'A note to the instructor, still here',
  outdated: 'An earlier wording',
}
/** What departs stands in the page where it is; the remark on it in the margin, below it where there is no room beside it. */
const markStyle =
  'body{max-width:none}body>*{max-width:44rem}body>.mark{max-width:61rem;display:grid;grid-template-columns:minmax(0,44rem) minmax(0,15rem);column-gap:1.5rem;align-items:start;margin:.75rem 0}.seen{border-left:4px solid #96372a;background:#fbeae4;padding:.25rem .75rem}.waits .seen{border-left-style:dotted;border-color:#7a5b12;background:#fbf3dc}.remark{font:13px/1.45 system-ui,sans-serif;border-top:2px solid #96372a;padding-top:.25rem}.waits .remark{border-color:#7a5b12}.remark p{margin:0 0 .25rem}.says{font-weight:600}.gone{text-decoration:line-through;margin-right:.25em}.new{text-decoration:underline;text-decoration-thickness:2px}ins,del{color:inherit}@media(max-width:46rem){body>.mark{display:block}}'

const isWaiting = ({ state }: BlockDifference): boolean =>
  state === 'unfilled' || state === 'prompt-beside-answer'
/** What stands in the page of a block, and beside it how it departs and what the template expects. */
const inMark = (block: BlockDifference, inner: string): string =>
  `<section class="mark${isWaiting(block) ? ' waits' : ''}"><div class="seen">${inner}</div><aside class="remark"><p class="says">${plain(saysOf[block.state] ?? '')}</p>${
    block.expected === '' || block.state === 'missing'
      ? ''
      : `<p>The template expects: ${plain(block.expected.slice(0, 400))}${block.expected.length > 400 ? ' …' : ''}</p>`
  }</aside></section>`
const differenceHtml = ({ difference }: BlockDifference): string =>
  `<p>${difference.map(({ text, change }) => (change === 'gone' ? `<del class="gone">${plain(text)}</del>` : change === 'new' ? `<ins class="new">${plain(text)}</ins>` : plain(text))).join('')}</p>`

/**
 * A page with what departs from the template marked in it. Every stretch of the course's own HTML is sanitised by itself;
 * the marks around it, and the words of a difference, are ours and escaped.
 */
export const markedDocument = (
  { name, stretches, missing }: PageDifference,
  platformUrl: string,
): string =>
  shell(
    name,
    stretches
      .map(({ html, block }) =>
        !block || saysOf[block.state] === null
          ? safeHtml(html, platformUrl)
          : inMark(
              block,
              block.difference.length > 0 ? differenceHtml(block) : safeHtml(html, platformUrl),
            ),
      )
      .join('') +
      missing
        .map((block) => inMark(block, `<p>${plain(block.expected.slice(0, 600))}</p>`))
        .join(''),
    markStyle,
  )
